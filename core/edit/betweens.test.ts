import { cycleOf, fixture, layerOf, fixtureList, runsOf } from '../fixture.ts';
import { computeBetweens } from '../between/index.ts';
import { endsOf, staleOf } from '../derived/index.ts';
import { find, putEntities, type Drawing, type ShotDocument, entitiesOf } from '../document/index.ts';
import {
  addMark,
  bareRuns,
  betweenAtFrame,
  betweensOf,
  changeStretch,
  deleteLayer,
  deleteRuns,
  duplicateShot,
  keepVariant,
  showVariant,
  wholeScope,
  drawingBefore,
  dropTrace,
  fitsWithin,
  freeBetween,
  gapAt,
  layBetweens,
  layBoil,
  nextBare,
  prepareSlots,
  putTracePoint,
  relayBetween,
  setElement,
  setPose,
  setRepeat,
  shiftPhase,
  slotsOf,
  takeBetween,
  tieLayer,
  touchedSlots,
  traceTicks,
  untieLayer,
  whyNotTied,
  addLayer,
  newDrawing,
  type BetweenFrames,
} from './index.ts';
import { elementLength, meetingOf, repeatedRuns, timedLayers } from '../timing/index.ts';

const made = fixture(31);
const { newId, layerId, elementId, stroke } = made;
const four = cycleOf(made, 4, (i) => stroke(i * 30, 0, i * 30 + 20, 10));
const stale = (doc: ShotDocument) => staleOf(doc, elementId, 'by itself');
const plan = { shares: [0.25, 0.5, 0.75], way: 'straight' as const, pathId: null, ties: [] };

function lay(doc: ShotDocument, frame: number, frames: BetweenFrames, shares = plan.shares) {
  const gap = gapAt(doc, layerId, frame)!;
  const own = { ...plan, shares, layerId, from: gap.from, to: gap.to };
  const [from, to] = endsOf(doc, own)!;
  const drawings = computeBetweens({ from, to, before: null, path: null, settings: own }, newId);
  return layBetweens(doc, gap, own, drawings, { from, to, path: null }, frames, newId);
}
/** Left end of the mark of each drawing in order. */
const places = (doc: ShotDocument): (number | null)[] =>
  runsOf(doc, layerId).map((run) => {
    const drawing = find(doc, 'drawing', layerOf(doc, layerId).slots[run.slot ?? '']);
    const mark = drawing?.marks[drawing.order[0]!];
    return mark?.kind === 'stroke' ? Math.round(mark.samples.x[0]! * 10) / 10 : null;
  });

describe('in-betweens', () => {
  it('are ordinary drawings between two others; what follows moves', () => {
    const laid = lay(four, 0, 'insert');
    expect(places(laid.doc)).toEqual([0, 7.5, 15, 22.5, 30, 60, 90]);
    expect(runsOf(laid.doc, layerId).map((run) => run.length)).toEqual([2, 2, 2, 2, 2, 2, 2]);
    expect(betweenAtFrame(laid.doc, layerId, laid.frame)!.id).toBe(laid.betweenId);
  });

  it('take frames from the hold when it has room', () => {
    const held = putEntities(four, {
      ...fixtureList(four, layerId),
      runs: runsOf(four, layerId).map((run, i) => (i === 0 ? { ...run, length: 8 } : run)),
    });
    expect(fitsWithin(gapAt(held, layerId, 0)!, 3)).toBe(true);
    expect(fitsWithin(gapAt(four, layerId, 0)!, 3)).toBe(false);
    const laid = lay(held, 0, 'within').doc;
    expect(runsOf(laid, layerId).map((run) => run.length)).toEqual([2, 2, 2, 2, 2, 2, 2]);
  });

  it('lie after the exposure they were asked for, where a drawing shows twice', () => {
    const twice = changeStretch(
      four,
      { layerIds: [layerId], from: 0, length: 4 },
      (runs, id) => repeatedRuns(runs, 2, id),
      newId,
    ).doc;
    expect(places(twice)).toEqual([0, 30, 0, 30, 60, 90]);
    const laid = lay(twice, 4, 'insert', [0.5]).doc;
    expect(places(laid)).toEqual([0, 30, 0, 15, 30, 60, 90]);
    expect(betweenAtFrame(laid, layerId, 0)).toBeUndefined();
    expect(betweenAtFrame(laid, layerId, 4)).toBeDefined();
  });

  it('fill slots that wait between two drawings', () => {
    const two = deleteRuns(four, layerId, [2, 3], 'close up').doc;
    const opened = prepareSlots(two, layerId, 4, 2, newId);
    const key = newDrawing(opened, layerId, 7, newId);
    const doc = addMark(key.doc, layerId, key.frame, stroke(90, 0, 110, 10), newId);
    expect(bareRuns(timedLayers(doc, find(doc, 'element', elementId)!)[0]!)).toEqual([2, 3]);
    const gap = gapAt(doc, layerId, 2)!;
    expect(gap.bare).toHaveLength(2);
    const laid = lay(doc, 2, 'slots', [1 / 3, 2 / 3]).doc;
    expect(places(laid)).toEqual([0, 30, 50, 70, 90]);
    expect(nextBare(laid, layerId, 0)).toBeNull();
  });

  it('lead across the seam of a cycle, and nowhere else past the end', () => {
    expect(gapAt(four, layerId, 6)).toMatchObject({ seam: true });
    expect(gapAt(setElement(four, elementId, { time: 'one-shot' }), layerId, 6)).toBeNull();
    expect(places(lay(four, 6, 'insert', [0.5]).doc)).toEqual([0, 30, 60, 90, 45]);
    expect(drawingBefore(four, { layerId, from: gapAt(four, layerId, 6)!.from })!.order).toHaveLength(1);
  });

  it('are computed again when a drawing they hang on changes, but not what was drawn on by hand', () => {
    const { doc, betweenId } = lay(four, 0, 'insert');
    expect(stale(doc)).toEqual([]);
    const touched = addMark(doc, layerId, 2, stroke(5, 5, 6, 6), newId);
    const between = find(touched, 'between', betweenId)!;
    expect([...touchedSlots(touched, [between])]).toEqual([between.slots[0]]);
    const first = find(touched, 'drawing', layerOf(touched, layerId).slots[between.from])!;
    const moved: Drawing = {
      ...first,
      marks: { [first.order[0]!]: { ...stroke(-40, 0, -20, 10), id: first.order[0]! } },
    };
    const changed = putEntities(touched, moved);
    expect(stale(changed).map(({ entity }) => entity.id)).toEqual([betweenId]);
    const [from, to] = endsOf(changed, between)!;
    const drawings = computeBetweens({ from, to, before: null, path: null, settings: between }, newId);
    const again = relayBetween(changed, betweenId, {}, drawings, { from, to, path: null });
    expect(places(again)).toEqual([-40, 7.5, -5, 12.5, 30, 60, 90]);
    expect(stale(again)).toEqual([]);
    // Computed from what is not there any more, they count as out of date.
    const late = relayBetween(again, betweenId, {}, drawings, { from: to, to, path: null });
    expect(stale(late)).toHaveLength(1);
    const taken = takeBetween(again, betweenId);
    expect(places(taken)).toEqual([-40, 7.5, 30, 60, 90]);
    expect(betweensOf(taken, elementId)).toEqual([]);
    expect(places(freeBetween(again, betweenId))).toEqual(places(again));
  });
});

it('are in a copy of the shot what they were: computed, and up to date; variants keep their drawings', () => {
  const { doc } = lay(four, 0, 'insert');
  const kept = keepVariant(doc, elementId, wholeScope(doc, elementId), newId);
  const copy = duplicateShot(kept, newId(), newId);
  const betweens = entitiesOf(copy, 'between');
  expect(betweens).toHaveLength(1);
  expect(touchedSlots(copy, betweens).size).toBe(0);
  expect(staleOf(copy, betweens[0]!.elementId, 'by itself')).toEqual([]);
  const variant = entitiesOf(copy, 'variant').find((e) => e.held !== null)!;
  const shown = showVariant(copy, variant.id);
  const layer = layerOf(shown, variant.scope[0]!);
  expect(Object.values(layer.slots).every((id) => find(shown, 'drawing', id))).toBe(true);
  expect(find(shown, 'runlist', layer.runListId)!.runs).toHaveLength(7);
  // And a layer that goes takes its in-betweens with it.
  expect(betweensOf(deleteLayer(doc, layerId), elementId)).toEqual([]);
});

describe('slots', () => {
  it('are proposed from the middle between two drawings, and in order elsewhere', () => {
    const ahead = prepareSlots(
      cycleOf(made, 1, () => stroke(0, 0, 1, 1)),
      layerId,
      6,
      2,
      newId,
    );
    const open = setElement(ahead, elementId, { time: 'one-shot' });
    expect(nextBare(open, layerId, 0)).toBe(2);
    expect(nextBare(ahead, layerId, 0)).toBe(4);
  });

  it('are drawn on where they wait', () => {
    const doc = prepareSlots(four, layerId, 4, 2, newId);
    const drawn = addMark(doc, layerId, 8, stroke(200, 0, 210, 0), newId);
    expect(places(drawn)).toEqual([0, 30, 60, 90, 200, null]);
    expect(runsOf(drawn, layerId)).toHaveLength(6);
  });

  it('are shared by tied layers, and a layer that would lose drawings is not tied', () => {
    const added = addLayer(four, elementId, 'Fill', 'body', layerId, newId);
    expect(whyNotTied(added.doc, layerId, added.layerId)).toMatch(/4 drawings of “Line” would have no slot/);
    const tied = tieLayer(added.doc, added.layerId, layerId);
    expect(layerOf(tied, added.layerId).runListId).toBe(layerOf(tied, layerId).runListId);
    const own = untieLayer(tied, added.layerId, newId);
    expect(layerOf(own, added.layerId).runListId).not.toBe(layerOf(own, layerId).runListId);
    expect(runsOf(own, added.layerId)).toEqual(runsOf(own, layerId));
  });

  it('and holds of another layer are taken over without its drawings', () => {
    const added = addLayer(four, elementId, 'Fill', 'body', layerId, newId);
    const doc = slotsOf(added.doc, added.layerId, layerId, newId);
    expect(runsOf(doc, added.layerId).map((run) => run.length)).toEqual([2, 2, 2, 2]);
    expect(layerOf(doc, added.layerId).slots).toEqual({});
  });
});

it('lets a held drawing boil for as long as it is held, and a still layer in a loop of its own', () => {
  const held = putEntities(four, {
    ...fixtureList(four, layerId),
    runs: runsOf(four, layerId).map((run, i) => (i === 0 ? { ...run, length: 7 } : run)),
  });
  const breath = find(held, 'drawing', Object.values(layerOf(held, layerId).slots)[0])!;
  const boiling = layBoil(held, layerId, 0, [breath, breath], 2, newId).doc;
  expect(runsOf(boiling, layerId).map((run) => run.length)).toEqual([2, 2, 2, 1, 2, 2, 2]);
  expect(runsOf(boiling, layerId)[3]!.slot).toBe(runsOf(boiling, layerId)[0]!.slot);
  // Across the seam: begun three frames later, the same frames show the same breaths.
  const late = shiftPhase(held, layerId, 3, newId);
  const round = layBoil(late, layerId, 3, [breath, breath], 2, newId).doc;
  expect(runsOf(round, layerId).map((run) => run.length)).toEqual([2, 2, 2, 1, 2, 2, 2]);
  expect(fixtureList(round, layerId).offset).toBe(3);
  const still = putEntities(four, { ...fixtureList(four, layerId), period: 1 });
  const loop = layBoil(still, layerId, 0, [breath, breath], 2, newId).doc;
  expect(fixtureList(loop, layerId)).toMatchObject({ period: 6 });
});

it('tells which repeats divide an element and when all meet', () => {
  const added = addLayer(four, elementId, 'Boil', 'texture', layerId, newId);
  let doc = newDrawing(added.doc, added.layerId, 0, newId).doc;
  doc = setRepeat(doc, added.layerId, 3);
  const element = find(doc, 'element', elementId)!;
  expect(elementLength(doc, element)).toBe(8);
  expect(meetingOf(doc, element)).toMatchObject({ turn: 8, meets: 24, repeats: [{ period: 3, divides: false }] });
  expect(meetingOf(setRepeat(doc, added.layerId, 4), element)).toMatchObject({
    meets: 8,
    repeats: [{ divides: true }],
  });
});

it('tells keys and breakdowns from in-betweens', () => {
  const doc = setPose(setPose(four, layerId, [0, 3], 'key'), layerId, [1], 'breakdown');
  expect(Object.values(fixtureList(doc, layerId).poses).sort()).toEqual(['breakdown', 'key', 'key']);
  expect(Object.values(fixtureList(setPose(doc, layerId, [0, 1, 3], null), layerId).poses)).toEqual([]);
  // A slot that goes takes its pose with it.
  expect(Object.values(fixtureList(deleteRuns(doc, layerId, [0], 'close up').doc, layerId).poses).sort()).toEqual([
    'breakdown',
    'key',
  ]);
});

it('follows a point from drawing to drawing, in the order of time', () => {
  const slots = runsOf(four, layerId).map((run) => run.slot!);
  const id = newId();
  let doc = putTracePoint(four, layerId, id, slots[2]!, { x: 20, y: 0 }, false);
  doc = putTracePoint(doc, layerId, id, slots[0]!, { x: 0, y: 0 }, false);
  doc = putTracePoint(doc, layerId, id, slots[2]!, { x: 25, y: 5 }, true);
  const [trace] = find(doc, 'element', elementId)!.traces;
  expect(traceTicks(doc, trace!)).toMatchObject([
    { frame: 0, x: 0, aim: false },
    { frame: 4, x: 25, aim: true },
  ]);
  expect(find(dropTrace(doc, elementId, id), 'element', elementId)!.traces).toEqual([]);
});
