/** What every kind of derived content promises. A kind that is new in the list is held to all of it. */
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import {
  DERIVED,
  pathFingerprint,
  staleOf,
  touchedOf,
  type DerivedEntity,
  type DerivedKind,
  type Stale,
} from '../derived/index.ts';
import {
  find,
  newPath,
  putEntities,
  shotOf,
  type Drawing,
  type Entity,
  type Id,
  type Mark,
  type Shape,
  type ShotDocument,
  entitiesOf,
} from '../document/index.ts';
import {
  addLayer,
  addMark,
  deleteLayer,
  duplicateShot,
  layBetweens,
  layFills,
  layRide,
  layStarter,
  layTone,
  laySmear,
  newSmear,
  putTracePoint,
  relayRide,
  relaySmear,
  smearPlace,
  smearWork,
  subjectLayers,
  tieLayer,
  type SmearPlan,
  gapAt,
  newTone,
  refillable,
  relayBetween,
  relayFills,
  replaceSwatch,
  setPath,
  staleFills,
  toneSlots,
} from '../edit/index.ts';
import { boundsFingerprint, endsOf } from '../derived/index.ts';
import { polygonRing, seededIds } from '../geometry/index.ts';
import { computeSmear } from '../smears/index.ts';
import { newStarter, starterHolds, starterOf } from '../starters/index.ts';
import { everyKind } from './every-kind.ts';

const made = fixture(77);
const { newId, layerId, elementId, stroke, swatch } = made;
const square = (at: number): Float32Array =>
  polygonRing([
    [at, at],
    [at + 50, at],
    [at + 50, at + 50],
    [at, at + 50],
  ]);
const shape = (at: number): Shape => ({
  kind: 'shape',
  id: newId(),
  swatch,
  rings: [square(at)],
  rule: 'evenodd',
  opacity: 1,
});
const lined = cycleOf(made, 3, (i) => stroke(i * 30, 0, i * 30 + 20, 10));
const drawingIn = (doc: ShotDocument, layer: Id, index: number): Drawing =>
  find(doc, 'drawing', Object.values(layerOf(doc, layer).slots)[index])!;
const withMark = (doc: ShotDocument, drawing: Drawing, mark: Mark): ShotDocument =>
  putEntities(doc, { ...drawing, marks: { ...drawing.marks, [mark.id]: mark }, order: [...drawing.order, mark.id] });

interface Case {
  /** A document with the entity laid. */
  readonly laid: ShotDocument;
  /** Something it hangs on is changed; by that. */
  readonly change: (doc: ShotDocument) => ShotDocument;
  readonly changes: Id;
  /** Lays it again. */
  readonly again: (doc: ShotDocument, stale: Stale) => ShotDocument;
}

const traceId = newId();
const path = newPath(elementId, 'Way', Float32Array.of(0, 0, 0, 0, 9, 9, 90, 90, 80, 80, 90, 90), false, newId);

const CASES: { readonly [K in DerivedKind]: () => Case } = {
  between: () => {
    const plan = { layerId, shares: [0.5], way: 'straight', pathId: null, ties: [] } as const;
    const gap = gapAt(lined, layerId, 0)!;
    const [from, to] = endsOf(lined, { ...plan, ...gap })!;
    const own = { marks: from.marks, order: from.order };
    const work = { from, to, path: null };
    const { doc } = layBetweens(lined, gap, { ...plan, from: gap.from, to: gap.to }, [own], work, 'insert', newId);
    return {
      laid: doc,
      change: (now) => withMark(now, find(now, 'drawing', from.id)!, stroke(1, 2, 3, 4)),
      changes: from.id,
      again: (now, { entity }) => {
        const [a, b] = endsOf(now, find(now, 'between', entity.id)!)!;
        return relayBetween(now, entity.id, {}, [{ marks: a.marks, order: a.order }], { from: a, to: b, path: null });
      },
    };
  },
  starter: () => {
    const kind = starterOf('liquid');
    const element = find(lined, 'element', elementId)!;
    const doc = putEntities(lined, path, { ...element, paths: [path.id] });
    const frames = (starter: Parameters<typeof starterHolds>[1]) =>
      starterHolds(doc, starter).map((_, i) => ({
        [kind.outputs[0]!.key]: [{ paint: kind.paints[0]!.key, rings: [square(i)] }],
      }));
    const fresh = {
      ...newStarter(element, 'liquid', kind.presets[0]!, 3, newId),
      pathId: path.id,
      along: pathFingerprint(path),
    };
    return {
      laid: layStarter(doc, fresh, frames(fresh), newId),
      change: (now) => setPath(now, path.id, { softStart: 0.9 }),
      changes: path.id,
      again: (now, { entity }) => {
        const starter = find(now, 'starter', entity.id)!;
        const along = pathFingerprint(find(now, 'path', path.id)!);
        return layStarter(now, { ...starter, along }, frames(starter), newId);
      },
    };
  },
  tone: () => {
    const body = cycleOf(made, 2, (i) => shape(i * 10));
    const tone = newTone(layerOf(body, layerId), newId);
    const cuts = (doc: ShotDocument, wanted: ReadonlySet<Id> | null) =>
      toneSlots(doc, tone, wanted).map(({ slot, print }) => ({ slot, print, shapes: { shade: [square(5)] } }));
    const { id } = drawingIn(body, layerId, 0);
    return {
      laid: layTone(body, tone, cuts(body, null), newId),
      change: (now) => withMark(now, find(now, 'drawing', id)!, shape(80)),
      changes: id,
      again: (now, { entity, sources }) =>
        layTone(now, find(now, 'tone', entity.id)!, cuts(now, new Set(sources.map(({ part }) => part))), newId),
    };
  },
  ride: () => {
    const slots = Object.keys(layerOf(lined, layerId).slots);
    const traced = slots.reduce(
      (doc, slot, i) => putTracePoint(doc, layerId, traceId, slot, { x: i * 20, y: i * 5 }, false),
      lined,
    );
    const added = addLayer(traced, elementId, 'Rider', 'line', layerId, newId);
    const tied = tieLayer(added.doc, added.layerId, layerId);
    const doc = addMark(tied, added.layerId, 0, stroke(1, 1, 9, 9), newId);
    const asked = { frame: 0, marks: [], onElementId: elementId, traceId, turnId: null };
    return {
      laid: layRide(doc, { ...asked, layerId: added.layerId }, newId).doc,
      change: (now) => putTracePoint(now, layerId, traceId, slots[1]!, { x: 70, y: 70 }, false),
      changes: elementId,
      again: (now, { entity }) => relayRide(now, entity.id, newId),
    };
  },
  smear: () => {
    const place = smearPlace(lined, layerId, 1)!;
    const plan = newSmear(place, subjectLayers(lined, layerId), 'stretch', {});
    const compute = (doc: ShotDocument, of: SmearPlan) => computeSmear(smearWork(doc, of)!, newId);
    const { id } = drawingIn(lined, layerId, 0);
    return {
      laid: laySmear(lined, plan, compute(lined, plan), place.replaces, newId).doc,
      change: (now) => withMark(now, find(now, 'drawing', id)!, stroke(3, 40, 30, 48)),
      changes: id,
      again: (now, { entity }) => {
        const smear = find(now, 'smear', entity.id)!;
        return relaySmear(now, entity.id, {}, compute(now, smear), newId)!.doc;
      },
    };
  },
  fill: () => {
    const added = addLayer(lined, elementId, 'Fill', 'body', layerId, newId);
    const plan = { layerId: added.layerId, bounds: [layerId], gap: 4, under: null };
    const filled = [{ rings: [square(0)], seed: { x: 20, y: 20 }, swatch }];
    const { id } = drawingIn(lined, layerId, 0);
    return {
      laid: layFills(added.doc, plan, 0, filled, boundsFingerprint(added.doc, plan, 0)!, newId),
      change: (now) => withMark(now, find(now, 'drawing', id)!, stroke(0, 0, 9, 9)),
      changes: id,
      again: (now) => {
        const [stale] = staleFills(now, elementId);
        const regions = refillable(now, stale!);
        const print = boundsFingerprint(now, plan, stale!.frame)!;
        return relayFills(
          now,
          stale!,
          regions,
          regions.map(() => filled[0]!),
          print,
        );
      },
    };
  },
};

const KINDS = Object.keys(DERIVED) as DerivedKind[];

test('every kind of entity that keeps what it laid is in the list', () => {
  const keeps = (entity: Entity) => 'laid' in entity || JSON.stringify(entity).includes('"print"');
  const kinds = Object.values(everyKind(seededIds(4)).entities).flatMap((e) => (keeps(e) ? [e.kind] : []));
  expect(new Set(kinds)).toEqual(new Set(KINDS));
});

describe.each(KINDS)('%s', (kind) => {
  const { laid, change, changes, again } = CASES[kind]();
  const entityIn = (doc: ShotDocument): DerivedEntity =>
    Object.values(doc.entities).find((e): e is DerivedEntity => e.kind === kind)!;
  const stale = (doc: ShotDocument) => staleOf(doc, entityIn(doc).elementId, DERIVED[kind].again);
  const things = (doc: ShotDocument) =>
    (DERIVED[kind].laid as (d: ShotDocument, e: Entity) => { drawingId: Id; markId: Id | null }[])(doc, entityIn(doc));
  /** Moves the first thing it laid, as a hand might. */
  const touched = (doc: ShotDocument): ShotDocument => {
    const { drawingId, markId } = things(doc)[0]!;
    const drawing = find(doc, 'drawing', drawingId)!;
    const id = markId ?? drawing.order[0]!;
    const mark = drawing.marks[id]!;
    const moved: Mark =
      mark.kind === 'shape'
        ? { ...mark, rings: [square(200)] }
        : { ...mark, samples: { ...mark.samples, x: mark.samples.x.map((x) => x + 3) } };
    return putEntities(doc, { ...drawing, marks: { ...drawing.marks, [id]: moved } });
  };

  test('as it was laid it is neither stale nor touched', () => {
    expect(things(laid).length).toBeGreaterThan(0);
    expect(stale(laid)).toEqual([]);
    expect(touchedOf(laid, entityIn(laid))).toEqual([]);
  });

  test('a change of what it hangs on makes it stale and names what changed; laid again it is not', () => {
    const changed = change(laid);
    expect(stale(changed)).toHaveLength(1);
    expect(stale(changed)[0]!.sources.flatMap(({ hangsOn }) => hangsOn)).toContain(changes);
    const relaid = again(changed, stale(changed)[0]!);
    expect(stale(relaid)).toEqual([]);
    expect(touchedOf(relaid, entityIn(relaid))).toEqual([]);
  });

  test('what a hand touched is told, and stays when it is laid again', () => {
    const byHand = change(touched(laid));
    const { drawingId, markId } = things(laid)[0]!;
    expect(touchedOf(byHand, entityIn(byHand))).toMatchObject([{ drawingId, markId }]);
    const relaid = again(byHand, stale(byHand)[0]!);
    const before = find(byHand, 'drawing', drawingId)!;
    const after = find(relaid, 'drawing', drawingId)!;
    expect(markId ? after.marks[markId] : after).toEqual(markId ? before.marks[markId] : before);
  });

  test('other paint and other ids are no hand and no change', () => {
    const other = shotOf(laid).swatches.find((id) => id !== swatch)!;
    for (const doc of [replaceSwatch(laid, swatch, other), duplicateShot(laid, newId(), newId)]) {
      expect(stale(doc)).toEqual([]);
      expect(touchedOf(doc, entityIn(doc))).toEqual([]);
    }
  });

  test('a source that is deleted asks for nothing', () => {
    const doc =
      kind === 'starter' ? laid : deleteLayer(addLayer(laid, elementId, 'Rest', 'line', null, newId).doc, layerId);
    const gone = kind === 'starter' ? { ...doc, entities: { ...doc.entities } } : doc;
    if (kind === 'starter') Reflect.deleteProperty(gone.entities, path.id);
    for (const entity of Object.values(gone.entities))
      if (entity.kind === kind) expect(staleOf(gone, elementId, DERIVED[kind].again)).toEqual([]);
  });
});

test('what no print is kept of is stale when it was just changed, and not before', () => {
  const { laid } = CASES.starter();
  const starter = entitiesOf(laid, 'starter')[0]!;
  const old = putEntities(laid, { ...starter, along: null });
  expect(staleOf(old, elementId, 'by itself')).toEqual([]);
  expect(staleOf(old, elementId, 'by itself', new Set([path.id]))).toHaveLength(1);
});
