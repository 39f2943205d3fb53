import { cycleOf, fixture, layerOf, runsOf } from '../fixture.ts';
import { boundsFingerprint } from '../derived/index.ts';
import { find, putEntities, shotOf, type Drawing, type Shape, type ShotDocument } from '../document/index.ts';
import { doubleAreaOf, polygonRing, ringPoints, type Point } from '../geometry/index.ts';
import {
  addLayer,
  fillOfLayer,
  layFills,
  refillable,
  relayFills,
  repaint,
  staleFills,
  tieLayer,
  unfill,
} from './index.ts';

const made = fixture(13);
const { newId, layerId, elementId, stroke, swatch } = made;
const box = (left: number, size = 50): Float32Array =>
  polygonRing([
    [left, 0],
    [left + size, 0],
    [left + size, size],
    [left, size],
  ]);
const filled = (left: number, own = swatch, size = 50) => ({
  rings: [box(left, size)],
  seed: { x: left + size / 2, y: size / 2 },
  swatch: own,
});
const lined = cycleOf(made, 2, (i) => stroke(i, 0, i, 60));
const other = shotOf(lined).swatches.find((id) => id !== swatch)!;
const { doc: base, layerId: fillId } = ((): { doc: ShotDocument; layerId: string } => {
  const { doc, layerId: id } = addLayer(lined, elementId, 'Fill', 'body', null, newId);
  return { doc: tieLayer(doc, id, layerId), layerId: id };
})();
const plan = { layerId: fillId, bounds: [layerId], gap: 4, under: null };
const lay = (doc: ShotDocument, ...shapes: ReturnType<typeof filled>[]): ShotDocument =>
  layFills(doc, plan, 0, shapes, boundsFingerprint(doc, plan, 0)!, newId);
const slot = runsOf(base, fillId)[0]!.slot!;
const drawingIn = (doc: ShotDocument): Drawing => find(doc, 'drawing', layerOf(doc, fillId).slots[slot])!;
const shapesIn = (doc: ShotDocument): Shape[] => drawingIn(doc).order.map((id) => drawingIn(doc).marks[id] as Shape);
const areaOf = ({ rings }: Pick<Shape, 'rings'>): number =>
  Math.abs(rings.reduce((sum, ring) => sum + doubleAreaOf(ringPoints(ring, 2)), 0)) / 2;
const regionsIn = (doc: ShotDocument) => fillOfLayer(doc, fillId)!.slots[slot]!.regions;
const inside = (left: number): Point => ({ x: left + 25, y: 25 });

test('regions become shapes in the order they came, remembered with a place inside each', () => {
  const doc = lay(base, filled(0), filled(100, other));
  expect(shapesIn(doc).map((s) => s.swatch)).toEqual([swatch, other]);
  expect(regionsIn(doc)).toMatchObject([
    { markId: shapesIn(doc)[0]!.id, x: 25, y: 25, swatch },
    { markId: shapesIn(doc)[1]!.id, x: 125, y: 25, swatch: other },
  ]);
});

test('a region that is filled already keeps its shape and takes the new form and swatch', () => {
  const doc = lay(base, filled(0));
  const again = lay(doc, filled(5, other));
  expect(shapesIn(again)).toHaveLength(1);
  expect(shapesIn(again)[0]).toMatchObject({ id: shapesIn(doc)[0]!.id, swatch: other, rings: [box(5)] });
  expect(regionsIn(again)).toHaveLength(1);
});

test('what runs out lays nothing', () => {
  expect(lay(base, { ...filled(0), rings: [] }).entities[fillId]).toBe(base.entities[fillId]);
});

test('taking a fill away takes its region whole, or that part of a larger shape', () => {
  const doc = lay(base, filled(0), filled(100));
  const without = unfill(doc, fillId, 0, inside(0), [box(0)]);
  expect(shapesIn(without).map(({ id }) => id)).toEqual([shapesIn(doc)[1]!.id]);
  expect(regionsIn(without)).toHaveLength(1);
  const large = lay(base, filled(0, swatch, 100));
  const cut = unfill(large, fillId, 0, inside(0), [box(0)]);
  expect(areaOf(shapesIn(cut)[0]!)).toBeCloseTo(100 * 100 - 50 * 50, -1);
  // What is cut by hand is filled by hand: it is not laid again.
  expect(regionsIn(cut)).toHaveLength(0);
});

test('where nothing is filled, nothing is taken away and nothing painted', () => {
  const doc = lay(base, filled(0));
  expect(unfill(doc, fillId, 0, inside(300), [])).toBe(doc);
  expect(repaint(doc, fillId, 0, inside(300), other)).toBe(doc);
  expect(repaint(doc, fillId, 0, inside(0), swatch)).toBe(doc);
});

test('painted in another swatch, it is laid again in that one', () => {
  const doc = repaint(lay(base, filled(0)), fillId, 0, inside(0), other);
  expect([shapesIn(doc)[0]!.swatch, regionsIn(doc)[0]!.swatch]).toEqual([other, other]);
});

describe('after the lines have changed', () => {
  const doc = lay(base, filled(0), filled(100), filled(200));
  const line = find(doc, 'drawing', Object.values(layerOf(doc, layerId).slots)[0])!;
  const mark = stroke(1, 2, 3, 4);
  const moved = putEntities(doc, {
    ...line,
    marks: { ...line.marks, [mark.id]: mark },
    order: [...line.order, mark.id],
  });
  const [stale] = staleFills(moved, elementId);

  test('the slot is told, with the frame it shows on', () => {
    expect(staleFills(doc, elementId)).toEqual([]);
    expect(stale).toMatchObject({ slot, frame: 0 });
    expect(staleFills(moved, elementId)).toHaveLength(1);
  });

  test('what is found again takes its new form; what is lost, and what a hand changed, stays as it was', () => {
    const [, , third] = shapesIn(moved) as [Shape, Shape, Shape];
    const drawing = drawingIn(moved);
    const touched = putEntities(moved, {
      ...drawing,
      marks: { ...drawing.marks, [third.id]: { ...third, rings: [box(230)] } },
    });
    const regions = refillable(touched, stale!);
    expect(regions.map(({ x }) => x)).toEqual([25, 125]);
    const print = boundsFingerprint(touched, plan, 0)!;
    const again = relayFills(touched, stale!, regions, [filled(3), null], print);
    expect(shapesIn(again).map(({ rings }) => rings)).toEqual([[box(3)], [box(100)], [box(230)]]);
    expect(staleFills(again, elementId)).toEqual([]);
  });

  test('a region that is found with nothing in it keeps its shape', () => {
    const print = boundsFingerprint(moved, plan, 0)!;
    const again = relayFills(moved, stale!, refillable(moved, stale!), [{ ...filled(3), rings: [] }], print);
    expect(shapesIn(again)).toEqual(shapesIn(moved));
  });
});
