import { cycleOf, fixture, layerOf, runsOf } from '../fixture.ts';
import { staleOf, touchedOf } from '../derived/index.ts';
import {
  encodeEntity,
  entitiesOf,
  find,
  putEntities,
  readEntity,
  type Id,
  type Mark,
  type ShotDocument,
  type SmearForm,
  type SmearTime,
  type Tone,
} from '../document/index.ts';
import { elementLength, frameOfSlot, timedLayers } from '../timing/index.ts';
import { computeBetweens } from '../between/index.ts';
import { arrivedAs, computeSmear, SQUASHED } from '../smears/index.ts';
import {
  addLayer,
  addMark,
  addShake,
  cutHeld,
  betweenWork,
  CONTACT_NAMES,
  freeSmear,
  gapAt,
  holdFor,
  layContactWays,
  movesHeld,
  laySmear,
  newSmear,
  newTone,
  nextBare,
  putArrival,
  relaySmear,
  setCamera,
  setCameraKey,
  setElement,
  setPlacements,
  setPose,
  smearPlace,
  smearWork,
  subjectLayers,
  takeSmear,
  tieLayer,
  type SmearPlan,
} from './index.ts';

const made = fixture(83);
const { layerId, elementId, newId, stroke } = made;
/** A ring of ink whose middle is `x`. */
const round = (x: number) =>
  stroke(...Array.from({ length: 25 }, (_, i) => [x + 20 * Math.cos(i * 0.262), 60 + 20 * Math.sin(i * 0.262)]).flat());
/** Five drawings on 2s, the third far from the second. */
const places = [0, 20, 260, 280, 300];
const cycle = cycleOf(made, 5, (i) => round(places[i]!));
const shot = setElement(cycle, elementId, { time: 'one-shot' });

const holds = (doc: ShotDocument) =>
  runsOf(doc, layerId)
    .map(({ length }) => length)
    .join(' ');
const slotAt = (doc: ShotDocument, index: number): Id => runsOf(doc, layerId)[index]!.slot!;
const lengthOf = (doc: ShotDocument) => elementLength(doc, find(doc, 'element', elementId)!);
const compute = (doc: ShotDocument, plan: SmearPlan) => computeSmear(smearWork(doc, plan)!, newId);

function smeared(
  doc: ShotDocument,
  index: number,
  form: SmearForm = 'stretch',
  asked: SmearTime = 'hold',
  settings = {},
) {
  const place = smearPlace(doc, layerId, index, asked)!;
  const plan = newSmear(place, subjectLayers(doc, layerId), form, settings);
  return { place, ...laySmear(doc, plan, compute(doc, plan), place.replaces, newId) };
}
const oneOf = (doc: ShotDocument) => entitiesOf(doc, 'smear')[0]!;

/** The shot with a body on some of the second and third drawings' frames, and tone cut from it. */
function toned(frames: readonly number[]): { doc: ShotDocument; body: Id; shade: Id } {
  const tied = (doc: ShotDocument, name: string) => {
    const { doc: added, layerId: id } = addLayer(doc, elementId, name, 'body', null, newId);
    const marked = frames.reduce(
      (now, frame) => addMark(now, id, frame, round(places[frame / 2]!), newId),
      tieLayer(added, id, layerId),
    );
    return { id, doc: marked };
  };
  const body = tied(shot, 'Body');
  const shade = tied(body.doc, 'Body shade');
  const tone: Tone = {
    ...newTone(layerOf(shade.doc, body.id), newId),
    layers: { shade: shade.id },
    hangsOn: { [slotAt(shot, 1)]: '', [slotAt(shot, 2)]: '' },
    everywhere: false,
  };
  return { doc: putEntities(shade.doc, tone), body: body.id, shade: shade.id };
}

describe('in time', () => {
  it('takes a frame from the end of the hold before: the arrival keeps its frame, nothing later moves', () => {
    const { doc, frame } = smeared(shot, 2);
    expect(holds(doc)).toBe('2 1 1 2 2 2');
    expect(frame).toBe(3);
    expect(frameOfSlot(doc, layerId, slotAt(shot, 2))).toBe(4);
    expect(lengthOf(doc)).toBe(lengthOf(shot));
  });

  it('without a frame to spare takes the place of the in-between before, but not of a key', () => {
    const ones = putEntities(shot, {
      ...find(shot, 'runlist', layerOf(shot, layerId).runListId)!,
      runs: runsOf(shot, layerId).map((run) => ({ ...run, length: 1 })),
    });
    const replaced = smeared(ones, 2);
    expect(replaced.place.time).toBe('replace');
    expect(holds(replaced.doc)).toBe('1 1 1 1 1');
    expect(runsOf(replaced.doc, layerId).map(({ slot }) => slot)).not.toContain(slotAt(ones, 1));
    // It goes from the drawing before that one.
    expect(oneOf(replaced.doc).stops).toEqual([slotAt(ones, 0), slotAt(ones, 2)]);
    const keyed = setPose(ones, layerId, [1], 'key');
    const longer = smeared(keyed, 2);
    expect(longer.place.time).toBe('longer');
    expect(holds(longer.doc)).toBe('1 1 1 1 1 1');
  });

  it('on a cycle the step across the seam is smeared at its end', () => {
    const { doc } = smeared(cycle, 0);
    expect(holds(doc)).toBe('2 2 2 2 1 1');
    expect(oneOf(doc).stops.at(-1)).toBe(slotAt(cycle, 0));
    expect(lengthOf(doc)).toBe(lengthOf(cycle));
    // In a shot that ends nothing comes before the first.
    expect(smearPlace(shot, layerId, 0)).toMatchObject({ stops: [slotAt(shot, 0)], time: 'longer' });
  });

  it('what comes from nowhere is smeared along a line that is pulled for it', () => {
    const place = smearPlace(shot, layerId, 0)!;
    const bare = newSmear(place, [layerId], 'stretch', {});
    expect(smearWork(shot, bare)).toBeNull();
    const plan = { ...bare, way: 'line', line: Float32Array.of(-300, 60, 0, 60) } as const;
    const { doc } = laySmear(shot, plan, compute(shot, plan), null, newId);
    expect(holds(doc)).toBe('1 2 2 2 2 2');
    const drawing = find(doc, 'drawing', layerOf(doc, layerId).slots[oneOf(doc).slot!])!;
    const [mark] = Object.values(drawing.marks);
    expect(mark?.kind === 'stroke' && Math.min(...mark.samples.x)).toBeLessThan(-200);
  });

  it('a trail lies behind, on a layer tied to its subject, and moves no time', () => {
    const { doc } = smeared(shot, 2, 'trail');
    expect(holds(doc)).toBe(holds(shot));
    const [lead, behind] = timedLayers(doc, find(doc, 'element', elementId)!);
    expect(lead!.layer.id).toBe(layerId);
    expect(behind!.layer.runListId).toBe(lead!.layer.runListId);
    expect(Object.keys(behind!.layer.slots)).toEqual([slotAt(shot, 2)]);
    // Where it is empty nothing is left to draw.
    expect(nextBare(doc, behind!.layer.id, 0)).toBeNull();
    // Another on the next drawing shares the layer; a second one here has its own.
    const next = smeared(doc, 3, 'trail').doc;
    expect(timedLayers(next, find(next, 'element', elementId)!)).toHaveLength(2);
    expect(timedLayers(smeared(next, 2, 'trail').doc, find(next, 'element', elementId)!)).toHaveLength(2);
    expect(entitiesOf(smeared(next, 2, 'trail').doc, 'layer')).toHaveLength(3);
  });

  it('what is tied and no part of the subject goes on showing what it showed', () => {
    const added = addLayer(shot, elementId, 'Rough', 'rough', null, newId);
    const tied = addMark(tieLayer(added.doc, added.layerId, layerId), added.layerId, 2, stroke(0, 0, 5, 5), newId);
    const { doc } = smeared(tied, 2);
    const rough = layerOf(doc, added.layerId);
    expect(rough.slots[oneOf(doc).slot!]).toBe(rough.slots[slotAt(shot, 1)]);
  });

  it('tone goes with its body: cut anew where that is smeared, and nothing of it stays where that is not', () => {
    for (const frames of [[2], [2, 4]]) {
      const { body, shade, doc: painted } = toned(frames);
      const { doc } = smeared(painted, 2);
      const slot = oneOf(doc).slot!;
      expect(layerOf(doc, body).slots[slot] !== undefined).toBe(frames.length === 2);
      expect(layerOf(doc, shade).slots[slot]).toBeUndefined();
      // What is to be cut is known.
      expect(slot in entitiesOf(doc, 'tone')[0]!.hangsOn).toBe(true);
    }
  });

  it('to be traced, all of it lies on a guide layer and no frame is taken', () => {
    const place = smearPlace(shot, layerId, 2)!;
    const plan = { ...newSmear(place, [layerId], 'stretch', {}), asGuide: true };
    const { doc } = laySmear(shot, plan, compute(shot, plan), null, newId);
    expect(holds(doc)).toBe(holds(shot));
    expect(entitiesOf(doc, 'layer').find(({ id }) => id === oneOf(doc).behindId)).toMatchObject({
      role: 'guide',
      forWork: true,
    });
  });
});

test('a layer’s place over time is motion like any other', () => {
  // The same ring on two drawings; its layer is moved by 300 px from one to the next.
  const still = cycleOf(made, 2, () => round(0));
  const moving = setElement(still, elementId, { time: 'one-shot' });
  const layer = layerOf(moving, layerId);
  const keys = [
    { frame: 1, value: 0, ease: 'straight' },
    { frame: 2, value: 300, ease: 'straight' },
  ] as const;
  const moved = putEntities(moving, { ...layer, shift: { ...layer.shift, x: { keys: [...keys] } } });
  const place = smearPlace(moved, layerId, 1)!;
  const marks = layerOf(moved, layerId).slots[place.stops[1]!]!;
  const plan = {
    ...newSmear(place, [layerId], 'stretch', { amount: 100 }),
    marks: find(moved, 'drawing', marks)!.order,
  };
  const { own } = compute(moved, plan);
  const xs = own.get(layerId)!.flatMap((mark) => (mark.kind === 'stroke' ? [...mark.samples.x] : []));
  // Its frame is the one before it arrives: there the layer is not moved yet.
  expect(Math.min(...xs)).toBeLessThan(0);
  expect(Math.max(...xs)).toBeGreaterThan(300);
});

test('a layer that moves while its drawing is held is smeared where it moves, and no later drawing moves', () => {
  const one = setElement(
    cycleOf(made, 1, () => round(0)),
    elementId,
    { time: 'one-shot' },
  );
  const held = holdFor(one, layerId, 0, 8).doc;
  const layer = layerOf(held, layerId);
  const keys = [
    { frame: 3, value: 0, ease: 'straight' },
    { frame: 4, value: 300, ease: 'straight' },
  ] as const;
  const moving = putEntities(held, { ...layer, shift: { ...layer.shift, x: { keys: [...keys] } } });
  expect([0, 3, 4, 5].map((frame) => movesHeld(moving, layerId, frame))).toEqual([false, false, true, false]);
  const cut = cutHeld(moving, layerId, 4, newId);
  const place = smearPlace(cut, layerId, 1)!;
  const plan = newSmear(place, [layerId], 'stretch', { amount: 100 });
  const { doc } = laySmear(cut, plan, compute(cut, plan), null, newId);
  expect(holds(doc)).toBe('3 1 4');
  expect(lengthOf(doc)).toBe(8);
  const smear = entitiesOf(doc, 'smear')[0]!;
  const drawing = find(doc, 'drawing', layerOf(doc, layerId).slots[smear.slot!])!;
  const xs = Object.values(drawing.marks).flatMap((mark) => (mark.kind === 'stroke' ? [...mark.samples.x] : []));
  expect(Math.max(...xs) - Math.min(...xs)).toBeGreaterThan(300);
  // Laid, nothing of what it hangs on has changed.
  expect(staleOf(doc, elementId, 'by itself')).toEqual([]);
});

test('a use that moves smears like what is drawn, and its smear follows when the way of it changes', () => {
  const still = setElement(
    cycleOf(made, 2, () => round(0)),
    elementId,
    { time: 'one-shot' },
  );
  const use = entitiesOf(still, 'placement')[0]!;
  const to = (far: number) => {
    const keys = [
      { frame: 1, value: 0, ease: 'straight' },
      { frame: 2, value: far, ease: 'straight' },
    ] as const;
    return setPlacements(still, [use.id], { shift: { ...use.shift, x: { keys: [...keys] } } });
  };
  const moving = to(300);
  const place = smearPlace(moving, layerId, 1)!;
  const plan = newSmear(place, [layerId], 'stretch', { amount: 100 });
  const { doc, smearId } = laySmear(moving, plan, compute(moving, plan), null, newId);
  const drawn = find(doc, 'drawing', layerOf(doc, layerId).slots[find(doc, 'smear', smearId)!.slot!])!;
  const xs = Object.values(drawn.marks).flatMap((mark) => (mark.kind === 'stroke' ? [...mark.samples.x] : []));
  expect(Math.max(...xs) - Math.min(...xs)).toBeGreaterThan(300);
  expect(staleOf(doc, elementId, 'by itself')).toEqual([]);
  const farther = setPlacements(doc, [use.id], { shift: find(to(500), 'placement', use.id)!.shift });
  expect(staleOf(farther, elementId, 'by itself').map(({ entity }) => entity.id)).toEqual([smearId]);
});

test('what the camera passes smears too, but for its shakes; a cycle that drifts is smeared over its seam by what it drifts', () => {
  const still = setElement(
    cycleOf(made, 2, () => round(0)),
    elementId,
    { time: 'one-shot' },
  );
  const place = smearPlace(still, layerId, 1)!;
  const plan = newSmear(place, [layerId], 'stretch', { amount: 100 });
  const pan = [0, 1, 2].reduce((doc, frame) => setCameraKey(doc, 'x', frame, 'straight'), still);
  const filmed = setCamera(pan, 'x', 2, -400);
  const goneBy = (doc: ShotDocument, each: SmearPlan = plan) => {
    const { stops } = smearWork(doc, each)!;
    return stops.map(({ matrices }) => Math.round(matrices[0]![4]));
  };
  // It is seen 400 px farther to the right when it arrives: from there, it came from the left.
  expect(goneBy(filmed)).toEqual([-400, 0]);
  expect(goneBy(addShake(still, 1, 3, newId).doc)).toEqual([0, 0]);
  const use = entitiesOf(still, 'placement')[0]!;
  const drifting = setPlacements(setElement(still, elementId, { time: 'cycle' }), [use.id], { drift: { x: 90, y: 0 } });
  const seam = newSmear(smearPlace(drifting, layerId, 0)!, [layerId], 'stretch', { amount: 100 });
  expect(goneBy(drifting, seam)).toEqual([-90, 0]);
  expect(goneBy(drifting, { ...plan, time: seam.time })).toEqual([0, 0]);
});

describe('afterwards', () => {
  const laid = smeared(shot, 2);
  const drawingOf = (doc: ShotDocument) => find(doc, 'drawing', layerOf(doc, layerId).slots[oneOf(doc).slot!])!;

  it('is laid again where its drawings change, in the same place', () => {
    const more = compute(laid.doc, { ...oneOf(laid.doc), settings: { ...oneOf(laid.doc).settings, amount: 30 } });
    const { doc } = relaySmear(
      laid.doc,
      laid.smearId,
      { settings: { ...oneOf(laid.doc).settings, amount: 30 } },
      more,
      newId,
    )!;
    expect(holds(doc)).toBe(holds(laid.doc));
    expect(drawingOf(doc).id).toBe(drawingOf(laid.doc).id);
    expect(drawingOf(doc)).not.toEqual(drawingOf(laid.doc));
    expect(oneOf(doc).settings['amount']).toBe(30);
  });

  it('what a hand drew on it stays when it is laid again, and when it is taken away', () => {
    const drawing = drawingOf(laid.doc);
    const mark = stroke(5, 5, 9, 9);
    const touched = putEntities(laid.doc, {
      ...drawing,
      marks: { ...drawing.marks, [mark.id]: mark },
      order: [...drawing.order, mark.id],
    });
    expect(touchedOf(touched, oneOf(touched))).toHaveLength(1);
    const again = relaySmear(touched, laid.smearId, { seed: 5 }, compute(touched, oneOf(touched)), newId)!.doc;
    expect(drawingOf(again).order).toEqual(drawingOf(touched).order);
    const taken = takeSmear(touched, laid.smearId);
    expect(holds(taken)).toBe('2 1 1 2 2 2');
    expect(entitiesOf(taken, 'smear')).toEqual([]);
  });

  it('taken away, all is as it was; let be, it stays as drawings', () => {
    const taken = takeSmear(laid.doc, laid.smearId);
    expect(holds(taken)).toBe(holds(shot));
    expect(Object.keys(taken.entities).sort()).toEqual(Object.keys(shot.entities).sort());
    const trail = smeared(shot, 2, 'trail');
    expect(Object.keys(takeSmear(trail.doc, trail.smearId).entities).sort()).toEqual(Object.keys(shot.entities).sort());
    const free = freeSmear(laid.doc, laid.smearId);
    expect(holds(free)).toBe(holds(laid.doc));
    expect(entitiesOf(free, 'smear')).toEqual([]);
  });

  it('made another kind it goes to the place of that kind, and back', () => {
    const plan = { form: 'trail', settings: {}, time: 'behind' } as const;
    const trail = relaySmear(laid.doc, laid.smearId, plan, compute(laid.doc, { ...oneOf(laid.doc), ...plan }), newId)!;
    expect(holds(trail.doc)).toBe(holds(shot));
    expect(oneOf(trail.doc)).toMatchObject({ id: laid.smearId, slot: null });
    const back = { form: 'stretch', settings: {}, time: 'hold' } as const;
    const { doc } = relaySmear(
      trail.doc,
      laid.smearId,
      back,
      compute(trail.doc, { ...oneOf(trail.doc), ...back }),
      newId,
    )!;
    expect(holds(doc)).toBe(holds(laid.doc));
    expect(entitiesOf(doc, 'layer')).toHaveLength(1);
  });

  it('told to take the place of the drawing before, it does, and is to be laid anew from the one before that', () => {
    const changes = { time: 'replace' } as const;
    const { doc } = relaySmear(laid.doc, laid.smearId, changes, compute(laid.doc, oneOf(laid.doc)), newId)!;
    expect(runsOf(doc, layerId)).toHaveLength(5);
    expect(lengthOf(doc)).toBe(lengthOf(shot));
    expect(runsOf(doc, layerId).map(({ slot }) => slot)).not.toContain(slotAt(shot, 1));
    expect(oneOf(doc).stops).toEqual([slotAt(shot, 0), slotAt(shot, 2)]);
    expect(staleOf(doc, elementId, 'by itself').map(({ entity }) => entity.id)).toEqual([laid.smearId]);
  });

  it('what it took the place of is kept, and comes back when it goes elsewhere or away', () => {
    const changes = { time: 'replace' } as const;
    const { doc } = relaySmear(laid.doc, laid.smearId, changes, compute(laid.doc, oneOf(laid.doc)), newId)!;
    const before = find(shot, 'drawing', layerOf(shot, layerId).slots[slotAt(shot, 1)]);
    expect(find(doc, 'drawing', before?.id)).toBe(before);
    expect(readEntity(encodeEntity(oneOf(doc)))).toEqual({ ok: oneOf(doc) });
    const hold = { time: 'hold' } as const;
    const back = relaySmear(doc, laid.smearId, hold, compute(doc, oneOf(doc)), newId)!.doc;
    expect(holds(back)).toBe(holds(laid.doc));
    expect(oneOf(back).replaced).toBeUndefined();
    expect(layerOf(back, layerId).slots[slotAt(shot, 1)]).toBe(before?.id);
    expect(oneOf(back).stops).toEqual(oneOf(laid.doc).stops);
    expect(staleOf(back, elementId, 'by itself').map(({ entity }) => entity.id)).toEqual([laid.smearId]);
    const away = takeSmear(doc, laid.smearId);
    expect(holds(away)).toBe(holds(shot));
    expect(away.entities).toEqual(shot.entities);
    // A key is a key again.
    const keyed = setPose(laid.doc, layerId, [1], 'key');
    const onKey = relaySmear(keyed, laid.smearId, changes, compute(keyed, oneOf(keyed)), newId)!.doc;
    const poses = (of: ShotDocument) => find(of, 'runlist', layerOf(of, layerId).runListId)!.poses;
    expect(poses(onKey)[slotAt(shot, 1)]).toBeUndefined();
    expect(poses(takeSmear(onKey, laid.smearId))).toEqual(poses(keyed));
    // Let be, it is a drawing like all others, and the one before is gone.
    expect(find(freeSmear(doc, laid.smearId), 'drawing', before?.id)).toBeUndefined();
  });

  it('a swath goes on over the drawings that follow, and ends where the layer does', () => {
    const { doc } = smeared(shot, 3, 'swath', 'hold', { lasts: 5 });
    expect(Object.keys(layerOf(doc, oneOf(doc).behindId!).slots)).toEqual([slotAt(shot, 3), slotAt(shot, 4)]);
  });
});

describe('round a contact', () => {
  const place = smearPlace(shot, layerId, 2)!;
  const plan = newSmear(place, [layerId], 'stretch', {});
  const squash = () => arrivedAs(smearWork(shot, plan)!, SQUASHED, newId);
  const width = (marks: readonly Mark[]) => {
    const xs = marks.flatMap((mark) => (mark.kind === 'stroke' ? [...mark.samples.x] : []));
    return Math.max(...xs) - Math.min(...xs);
  };

  it('a squash takes the first frame of the drawing that arrives, shorter along its way by what it is squashed', () => {
    const { doc, frame } = putArrival(shot, layerId, slotAt(shot, 2), squash(), newId);
    expect(holds(doc)).toBe('2 2 1 1 2 2');
    expect(frame).toBe(4);
    expect(lengthOf(doc)).toBe(lengthOf(shot));
    const marks = squash().get(layerId)!;
    expect(width(marks)).toBeCloseTo(width([round(0)]) * SQUASHED, 0);
    // Tone of what is squashed is cut anew there.
    const painted = toned([2, 4]);
    const bodies = new Map([[painted.body, marks]]);
    const { doc: put } = putArrival(painted.doc, layerId, slotAt(shot, 2), bodies, newId);
    const slot = slotAt(put, 2);
    expect(layerOf(put, painted.body).slots[slot]).toBeDefined();
    expect(layerOf(put, painted.shade).slots[slot]).toBeUndefined();
    expect(slot in entitiesOf(put, 'tone')[0]!.hangsOn).toBe(true);
    // Against where it came to: its leading end stays.
    const right = (all: readonly Mark[]) =>
      Math.max(...all.flatMap((mark) => (mark.kind === 'stroke' ? [...mark.samples.x] : [])));
    expect(right(marks)).toBeCloseTo(280, 0);
  });

  it('three ways are kept as variants that begin from the same timing', () => {
    const gap = gapAt(shot, layerId, 2)!;
    const between = {
      layerId,
      from: gap.from,
      to: gap.to,
      shares: [0.5],
      way: 'straight',
      pathId: null,
      ties: [],
    } as const;
    const work = betweenWork(shot, between, false)!;
    const doc = layContactWays(
      shot,
      layerId,
      2,
      {
        between: { plan: between, drawing: computeBetweens(work, newId)[0]!, work },
        stretch: { plan, smeared: compute(shot, plan), replaces: null },
      },
      newId,
    );
    const variants = entitiesOf(doc, 'variant');
    const timing = (runs: readonly { length: number }[]) => runs.map(({ length }) => length).join(' ');
    const heldAs = (name: string) => variants.find((each) => each.name === name)!.held;
    expect(variants.map(({ name }) => name).sort()).toEqual([...CONTACT_NAMES].sort());
    expect(timing(heldAs('without')!.lists[0]!.runs)).toBe(holds(shot));
    expect(timing(heldAs('one drawing more')!.lists[0]!.runs)).toBe('2 2 2 2 2 2');
    expect(heldAs('stretched')).toBeNull();
    expect(holds(doc)).toBe('2 1 1 2 2 2');
  });
});
