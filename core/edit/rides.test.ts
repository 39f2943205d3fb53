import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { entitiesOf, find, putEntities, type Id, type ShotDocument, type Stroke } from '../document/index.ts';
import { staleOf } from '../derived/index.ts';
import {
  addElement,
  addLayer,
  addMark,
  addPlatePoints,
  layRide,
  newDrawing,
  putTracePoint,
  relayRide,
  rideOfLayer,
  setPlacements,
  setRide,
  tieLayer,
  whyNotPlatePoints,
  whyNotRide,
} from './index.ts';

const made = fixture(91);
const { layerId, elementId, newId, stroke } = made;
const body = cycleOf(made, 4, (i) => stroke(i * 30, 0, i * 30 + 20, 10));
const slots = Object.keys(layerOf(body, layerId).slots);
const [pointId, turnId] = [newId(), newId()];
/** A point that goes to the right, and a second one that turns about it by a quarter each drawing. */
const traced = slots.reduce((doc, slot, i) => {
  const at = { x: i * 100, y: 50 };
  const turn = { x: at.x + 40 * Math.cos((i * Math.PI) / 2), y: at.y + 40 * Math.sin((i * Math.PI) / 2) };
  return putTracePoint(putTracePoint(doc, layerId, pointId, slot, at, false), layerId, turnId, slot, turn, false);
}, body);
const asked = { layerId, frame: 0, marks: [] as Id[], onElementId: elementId, traceId: pointId, turnId };

/** A layer tied to the body with a stroke from the point to the right of it, on the first drawing. */
function withTool() {
  const added = addLayer(traced, elementId, 'Tool', 'line', layerId, newId);
  const doc = addMark(tieLayer(added.doc, added.layerId, layerId), added.layerId, 0, stroke(0, 50, 30, 50), newId);
  return { doc, toolId: added.layerId };
}
const ends = (doc: ShotDocument, id: Id, slot: Id) => {
  const drawing = find(doc, 'drawing', layerOf(doc, id).slots[slot])!;
  const { samples } = drawing.marks[drawing.order[0]!] as Stroke;
  return [samples.x[0]!, samples.y[0]!, samples.x.at(-1)!, samples.y.at(-1)!].map((v) => Math.round(v));
};

describe('what rides', () => {
  it('is where the point is on every drawing, turned as the second turns about it', () => {
    const { doc, toolId } = withTool();
    const { doc: rode, layerId: on } = layRide(doc, { ...asked, layerId: toolId }, newId);
    expect(on).toBe(toolId);
    expect(slots.map((slot) => ends(rode, toolId, slot))).toEqual([
      [0, 50, 30, 50],
      [100, 50, 100, 80],
      [200, 50, 170, 50],
      [300, 50, 300, 20],
    ]);
    // Turned by none it only goes along.
    const ride = rideOfLayer(rode, toolId)!;
    expect(ends(setRide(rode, ride.id, { turnId: null }, newId), toolId, slots[1]!)).toEqual([100, 50, 130, 50]);
  });

  it('that is picked up gets a layer of its own over the one it lay on', () => {
    const both = addMark(traced, layerId, 0, stroke(0, 50, 30, 50), newId);
    const drawing = find(both, 'drawing', layerOf(both, layerId).slots[slots[0]!])!;
    const { doc, layerId: on } = layRide(both, { ...asked, marks: [drawing.order[1]!] }, newId);
    expect(on).not.toBe(layerId);
    expect(layerOf(doc, on).runListId).toBe(layerOf(doc, layerId).runListId);
    expect(find(doc, 'drawing', drawing.id)!.order).toEqual([drawing.order[0]]);
    expect(ends(doc, on, slots[2]!)).toEqual([200, 50, 170, 50]);
  });

  it('on points of a plate is on every frame, though nothing is drawn where they are kept', () => {
    const added = addPlatePoints(body, elementId, 6, newId);
    const list = find(added.doc, 'runlist', layerOf(added.doc, added.layerId).runListId)!;
    expect(list.runs).toHaveLength(6);
    const on = newId();
    const clicked = list.runs.reduce(
      (doc, { slot }, i) => putTracePoint(doc, added.layerId, on, slot!, { x: i * 7, y: i * i }, false),
      added.doc,
    );
    const what = { layerId, frame: 0, marks: [], onElementId: elementId, traceId: on, turnId: null };
    expect(whyNotRide(clicked, what)).toBeNull();
    const { doc, layerId: rider } = layRide(clicked, what, newId);
    const first = ends(doc, layerId, slots[0]!);
    const own = find(doc, 'runlist', layerOf(doc, rider).runListId)!;
    expect(own.runs.map(({ slot }) => ends(doc, rider, slot!).slice(0, 2))).toEqual(
      list.runs.map((_, i) => [first[0]! + i * 7, first[1]! + i * i]),
    );
    expect(whyNotPlatePoints(body)).toContain('no plate');
  });

  it('is laid again where a point is moved; a drawing that a hand has changed stays', () => {
    const { doc, toolId } = withTool();
    const rode = layRide(doc, { ...asked, layerId: toolId }, newId).doc;
    const touched = addMark(rode, toolId, 2, stroke(1, 1, 2, 2), newId);
    const moved = putTracePoint(touched, layerId, pointId, slots[2]!, { x: 0, y: 0 }, false);
    const ride = rideOfLayer(moved, toolId)!;
    const again = relayRide(moved, ride.id, newId);
    expect(ends(again, toolId, slots[2]!).slice(0, 2)).toEqual([0, 0]);
    expect(find(again, 'drawing', layerOf(again, toolId).slots[slots[1]!])!.order).toHaveLength(2);
  });

  it('on a point of another element goes by that element’s times and place', () => {
    const other = addElement(traced, 'Other', 0, newId);
    const own = find(other.doc, 'element', other.elementId)!.layers[0]!;
    const drawn = addMark(newDrawing(other.doc, own, 0, newId).doc, own, 0, stroke(0, 50, 30, 50), newId);
    const { doc, layerId: on } = layRide(drawn, { ...asked, layerId: own, turnId: null }, newId);
    expect(on).not.toBe(own);
    const { runs } = entitiesOf(doc, 'runlist').find(({ id }) => id === layerOf(doc, on).runListId)!;
    expect(runs.map(({ length }) => length)).toEqual([2, 2, 2, 2]);
    expect(ends(doc, on, runs[3]!.slot!)).toEqual([300, 50, 330, 50]);
  });

  it('on another element that is used twice goes by the use that is meant, and is laid again when that is moved', () => {
    const other = addElement(traced, 'Other', 0, newId);
    const own = find(other.doc, 'element', other.elementId)!.layers[0]!;
    const drawn = addMark(newDrawing(other.doc, own, 0, newId).doc, own, 0, stroke(0, 50, 30, 50), newId);
    const first = entitiesOf(drawn, 'placement').find((each) => each.elementId === elementId)!;
    const second = { ...first, id: newId(), start: first.start - 2, x: first.x + 50 };
    const plane = entitiesOf(drawn, 'plane').find(({ placements }) => placements.includes(first.id))!;
    const twice = putEntities(drawn, second, { ...plane, placements: [...plane.placements, second.id] });
    const { doc, layerId: on } = layRide(
      twice,
      { ...asked, layerId: own, turnId: null, onUseId: second.id, marks: [] },
      newId,
    );
    // It began two frames before: the second drawing of its own stands on the first frame here.
    const ride = rideOfLayer(doc, on)!;
    expect(ride.slots[ride.base]).toBe(slots[1]);
    const { runs } = entitiesOf(doc, 'runlist').find(({ id }) => id === layerOf(doc, on).runListId)!;
    expect(ends(doc, on, runs[3]!.slot!)).toEqual([200, 50, 230, 50]);
    expect(staleOf(doc, other.elementId, 'by itself')).toEqual([]);
    const moved = setPlacements(doc, [second.id], { x: second.x + 10 });
    expect(staleOf(moved, other.elementId, 'by itself').map(({ entity }) => entity.id)).toEqual([ride.id]);
    expect(staleOf(setPlacements(doc, [first.id], { x: 999 }), other.elementId, 'by itself')).toEqual([]);
  });

  it('is told why it can not', () => {
    expect(whyNotRide(traced, asked)).toContain('can not ride on a point of its own');
    expect(whyNotRide(body, asked)).toBe('The point is gone.');
    const { doc, toolId } = withTool();
    const bare = { ...asked, layerId: toolId, frame: 4 };
    expect(whyNotRide(doc, bare)).toBe('Nothing is drawn here that could ride.');
    expect(layRide(doc, bare, newId).doc).toBe(doc);
  });
});
