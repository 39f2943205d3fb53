/** Cleaning up: drawing the line over a rough, slot by slot. */
import { find, type Id, type Mark, type NewId, type ShotDocument } from '../document/index.ts';
import { exposureAt, placeOf, runStart, shownOn, slotsInOrder, timedLayers, type TimedLayer } from '../timing/index.ts';
import { addMarks } from './drawings.ts';

/** A drawing of the rough, and whether the line over it is there. */
interface ToClean {
  /** Where it first shows, frame of the element. */
  readonly frame: number;
  readonly drawn: boolean;
}

/** The rough that a layer is drawn over: one that it is tied to, else the nearest below it; null where there is none. */
export function roughFor(doc: ShotDocument, layerId: Id): TimedLayer | null {
  const { timed, element } = placeOf(doc, layerId);
  const layers = timedLayers(doc, element);
  const roughs = layers.filter(({ layer }) => layer.role === 'rough' && layer.id !== layerId);
  const at = layers.findIndex(({ layer }) => layer.id === layerId);
  const below = layers.slice(at + 1).find((each) => roughs.includes(each));
  return roughs.find(({ list }) => list.id === timed.list.id) ?? below ?? null;
}

/** The drawings of a layer's rough in the order in which they first show. */
export function toClean(doc: ShotDocument, layerId: Id): readonly ToClean[] {
  const rough = roughFor(doc, layerId);
  if (!rough) return [];
  const { timed, turn } = placeOf(doc, layerId);
  const tied = rough.list.id === timed.list.id;
  return slotsInOrder(rough.list).flatMap(({ slot, index }) => {
    if (!rough.layer.slots[slot]) return [];
    const frame = runStart(rough.list, index, turn);
    const shown = shownOn(timed, frame, turn);
    const own = tied ? timed.layer.slots[slot] !== undefined : shown?.exposure.start === frame;
    return [{ frame, drawn: own }];
  });
}

/** The frame of the next drawing of the rough that has no line yet, round and round; null when all have one. */
export function nextToClean(doc: ShotDocument, layerId: Id, frame: number): number | null {
  const open = toClean(doc, layerId).filter(({ drawn }) => !drawn);
  return (open.find((each) => each.frame > frame) ?? open[0])?.frame ?? null;
}

/** The id of the drawing a layer shows on a frame, if any. */
const shownId = (doc: ShotDocument, layerId: Id, frame: number): Id | undefined => {
  const { timed, turn } = placeOf(doc, layerId);
  return shownOn(timed, frame, turn)?.drawingId;
};

/** The frames of some to which marks can be carried on: each drawing once, and not those that have them already. */
export function carriedTo(
  doc: ShotDocument,
  layerId: Id,
  marks: readonly Mark[],
  frames: readonly number[],
): readonly number[] {
  const { timed, turn } = placeOf(doc, layerId);
  const seen = new Set<Id>();
  return frames.filter((frame) => {
    const exposure = exposureAt(timed.list, frame, turn);
    const key = exposure?.run.slot ?? String(frame);
    if (seen.has(key)) return false;
    seen.add(key);
    const drawing = find(doc, 'drawing', shownId(doc, layerId, frame));
    return marks.some(({ id }) => !drawing?.marks[id]);
  });
}

/** Lays copies of marks on what a layer shows on some frames: what does not move is drawn once. */
export function carryOn(
  doc: ShotDocument,
  layerId: Id,
  marks: readonly Mark[],
  frames: readonly number[],
  newId: NewId,
): ShotDocument {
  return carriedTo(doc, layerId, marks, frames).reduce((now, frame) => {
    const drawing = find(now, 'drawing', shownId(now, layerId, frame));
    // The drawing the marks come from may be among them.
    const fresh = marks.filter(({ id }) => !drawing?.marks[id]).map((mark): Mark => ({ ...mark, id: newId() }));
    return addMarks(now, layerId, frame, fresh, newId);
  }, doc);
}
