import { find, putEntities, type Layer, type ShotDocument } from '../document/index.ts';
import { cycleOf, fixture, layerOf } from '../fixture.ts';
import { seededIds } from '../geometry/index.ts';
import { placeOf, runStart, shownOn } from '../timing/index.ts';
import {
  addMarks,
  carriedTo,
  carryOn,
  isOlder,
  lineOver,
  nextToClean,
  renewBrushes,
  roughFor,
  toClean,
} from './index.ts';

const made = fixture(71);
const { layerId: roughId, stroke } = made;
const newId = seededIds(72);
const COUNT = 5;

/** A cycle of five rough drawings on 2s with a line tied to it. */
function begun(): { doc: ShotDocument; lineId: string } {
  const doc = cycleOf(made, COUNT, (i) => stroke(i * 10, 0, i * 10 + 20, 9));
  const rough: Layer = { ...layerOf(doc, roughId), role: 'rough' };
  const { doc: tied, layerId } = lineOver(putEntities(doc, rough), roughId, 'Line', 'line', newId);
  return { doc: tied, lineId: layerId };
}

const cleaned = (doc: ShotDocument, lineId: string, frame: number) =>
  addMarks(doc, lineId, frame, [stroke(frame, 0, frame + 5, 5)], newId);

test('goes from drawing to drawing of the rough, round and round, until each has its line', () => {
  const { doc: first, lineId } = begun();
  let doc = first;
  expect(roughFor(doc, lineId)?.layer.id).toBe(roughId);
  expect(roughFor(doc, roughId)).toBeNull();
  const frames = toClean(doc, lineId).map(({ frame }) => frame);
  expect(frames).toHaveLength(COUNT);
  let at = frames[2]!;
  doc = cleaned(doc, lineId, at);
  const visited = [at];
  for (let next = nextToClean(doc, lineId, at); next !== null; next = nextToClean(doc, lineId, at)) {
    visited.push(next);
    at = next;
    doc = cleaned(doc, lineId, at);
  }
  expect(visited).toEqual([...frames.slice(2), ...frames.slice(0, 2)]);
  expect(toClean(doc, lineId).every(({ drawn }) => drawn)).toBe(true);
});

test('what does not move is carried on to every drawing asked for, each copy a mark of its own', () => {
  const { doc, lineId } = begun();
  const first = cleaned(doc, lineId, 0);
  const { timed, turn } = placeOf(first, lineId);
  const marks = Object.values(find(first, 'drawing', shownOn(timed, 0, turn)?.drawingId)!.marks);
  const frames = timed.list.runs.map((_, i) => runStart(timed.list, i, turn));
  const carried = carryOn(first, lineId, marks, frames, newId);
  const drawings = frames.map((frame) => {
    const { timed: now } = placeOf(carried, lineId);
    return find(carried, 'drawing', shownOn(now, frame, turn)?.drawingId)!;
  });
  expect(new Set(drawings.map(({ id }) => id)).size).toBe(COUNT);
  expect(drawings.map(({ order }) => order.length)).toEqual(Array(COUNT).fill(1));
  expect(new Set(drawings.flatMap(({ order }) => order)).size).toBe(COUNT);
  // Asked again for frames of one drawing and for where they come from, it adds them once and nowhere twice.
  const again = [0, 1, 2, 3];
  expect(carriedTo(first, lineId, marks, again)).toEqual([2]);
  expect(carriedTo(first, lineId, marks, [0])).toEqual([]);
  // Where they come from they stay once.
  expect(drawings[0]!.marks[marks[0]!.id]).toBe(marks[0]);
});

test('older strokes are taken to the newest brush, and nothing else of them changes', () => {
  const { doc, lineId } = begun();
  const pencil = { ...stroke(0, 0, 9, 9), brush: { kind: 'pencil', width: 6, opacity: 1, pressure: true } } as const;
  const ink = stroke(5, 5, 8, 8);
  const drawn = addMarks(doc, lineId, 0, [pencil, ink], newId);
  const { timed, turn } = placeOf(drawn, lineId);
  const { drawingId } = shownOn(timed, 0, turn)!;
  expect([isOlder(pencil), isOlder(ink)]).toEqual([true, false]);
  const renewed = find(renewBrushes(drawn, { [drawingId]: [pencil.id, ink.id] }), 'drawing', drawingId)!;
  expect(renewed.marks[ink.id]).toBe(ink);
  expect(renewed.marks[pencil.id]).toEqual({ ...pencil, brush: { ...pencil.brush, version: 2 } });
  expect(isOlder(renewed.marks[pencil.id]!)).toBe(false);
});
