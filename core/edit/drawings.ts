/** Edits that make, copy, draw on and delete drawings. */
import {
  emptyDrawing,
  find,
  putEntities,
  type Drawing,
  type Id,
  type Layer,
  type Mark,
  type NewId,
  type RunList,
  type ShotDocument,
} from '../document/index.ts';
import {
  elementLength,
  exposureAt,
  fillGap,
  insertRun,
  isLocked,
  isVisible,
  listFrame,
  removeRun,
  setHold,
  shownOn,
  splitRun,
  timedLayers,
  type TimedLayer,
  placeOf,
  type Place,
} from '../timing/index.ts';
import { phaseAt } from '../plan/index.ts';
import { rescueDrawing } from './keep-both.ts';
import { swept } from './sweep.ts';
import { atRun, settled, withList, type Timed } from './place.ts';

/** What a layer shows of a clip: a drawing's marks or, with null, nothing, held for so many frames. */
export interface ClipPart {
  readonly drawing: Pick<Drawing, 'marks' | 'order'> | null;
  readonly hold: number;
}

/** Puts new drawings into a run list from an index on. */
function insertParts(doc: ShotDocument, place: Place, index: number, parts: readonly ClipPart[], newId: NewId): Timed {
  const { layer } = place.timed;
  let { list } = place.timed;
  const slots: Record<Id, Id> = { ...layer.slots };
  const made: Drawing[] = [];
  parts.forEach(({ drawing, hold }, i) => {
    const slot = drawing ? newId() : null;
    if (drawing && slot) {
      const { marks, order } = drawing;
      const copy: Drawing = { kind: 'drawing', id: newId(), marks, order };
      made.push(copy);
      slots[slot] = copy.id;
    }
    list = insertRun(list, index + i, { id: newId(), slot, length: hold });
  });
  return atRun(withList(doc, place, list, { ...layer, slots }, ...made), place, index);
}

const afterHere = ({ timed: { list }, turn }: Place, frame: number): number => {
  const here = exposureAt(list, frame, turn);
  return here ? here.index + 1 : list.runs.length;
};

/** The hold a new drawing takes: that of the phase it lies in, else of the drawing shown, else 2. */
function defaultHold(place: Place, frame: number): number {
  const planned = phaseAt(place.element.phases, frame)?.hold;
  return (
    planned ?? exposureAt(place.timed.list, frame, place.turn)?.run.length ?? place.timed.list.runs.at(-1)?.length ?? 2
  );
}

function insertAfter(doc: ShotDocument, layerId: Id, frame: number, drawing: ClipPart['drawing'], newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  return insertParts(doc, place, afterHere(place, frame), [{ drawing, hold: defaultHold(place, frame) }], newId);
}

/** A new empty drawing between the one shown and the next, held as long; later ones move. */
export const newDrawing = (doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed =>
  insertAfter(doc, layerId, frame, emptyDrawing(newId()), newId);

/** A stretch with no drawing after the one shown: what came before stops showing. */
export const insertBlank = (doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed =>
  insertAfter(doc, layerId, frame, null, newId);

/** The loaded drawing a layer shows on a frame. @throws if nothing is shown or it is not loaded. */
function drawingHere(doc: ShotDocument, { timed, turn }: Place, frame: number): Drawing {
  const drawing = find(doc, 'drawing', shownOn(timed, frame, turn)?.drawingId);
  if (!drawing) throw new Error('There is no drawing here');
  return drawing;
}

/** A copy of the drawing shown, right after it. Needs that drawing loaded. @throws if nothing is shown. */
export function copyDrawing(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed {
  return insertAfter(doc, layerId, frame, drawingHere(doc, placeOf(doc, layerId), frame), newId);
}

/** Takes runs of a layer as a clip. Drawings not loaded are taken as empty ones. @param indices of its run list. */
export function clipOf(doc: ShotDocument, layerId: Id, indices: readonly number[]): ClipPart[] {
  const { timed } = placeOf(doc, layerId);
  return indices.flatMap((index) => {
    const run = timed.list.runs[index];
    if (!run) return [];
    const drawing = run.slot ? find(doc, 'drawing', timed.layer.slots[run.slot]) : undefined;
    return [{ drawing: run.slot ? (drawing ?? emptyDrawing('')) : null, hold: run.length }];
  });
}

/** Puts a clip before the run at an index; later drawings move. */
export const insertClip = (
  doc: ShotDocument,
  layerId: Id,
  index: number,
  clip: readonly ClipPart[],
  newId: NewId,
): Timed => insertParts(doc, placeOf(doc, layerId), index, clip, newId);

/** A new empty drawing before the run at an index, held as long as what shows there. */
export function newDrawingBefore(doc: ShotDocument, layerId: Id, index: number, newId: NewId): Timed {
  const hold = placeOf(doc, layerId).timed.list.runs[index]?.length ?? 2;
  return insertClip(doc, layerId, index, [{ drawing: emptyDrawing(''), hold }], newId);
}

/** Puts a clip after what is shown on a frame; later drawings move. */
export function pasteClip(
  doc: ShotDocument,
  layerId: Id,
  frame: number,
  clip: readonly ClipPart[],
  newId: NewId,
): Timed {
  const place = placeOf(doc, layerId);
  return insertParts(doc, place, afterHere(place, frame), clip, newId);
}

/** A new empty drawing from this frame of a hold on; what was held before is shortened. On the first frame it follows. */
export function breakHold(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  const { list, layer } = place.timed;
  const here = exposureAt(list, frame, place.turn);
  const into = here ? listFrame(list, frame, place.turn) - here.start : 0;
  if (!here || into === 0) return newDrawing(doc, layerId, frame, newId);
  const slot = newId();
  const made = emptyDrawing(newId());
  const next = splitRun(list, here.index, into, { id: newId(), slot, length: here.run.length - into });
  return atRun(
    withList(doc, place, next, { ...layer, slots: { ...layer.slots, [slot]: made.id } }, made),
    place,
    here.index + 1,
  );
}

/**
 * Takes the topmost marks of the drawing shown into a new drawing after it, held as long: for strokes
 * that were drawn before the new drawing was added. @param count of marks, at least 1.
 */
export function moveToNewDrawing(doc: ShotDocument, layerId: Id, frame: number, count: number, newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  const from = drawingHere(doc, place, frame);
  const lifted = from.order.slice(-Math.max(1, count));
  const pick = (ids: readonly Id[]) => ({
    order: [...ids],
    marks: Object.fromEntries(ids.map((id) => [id, from.marks[id]!])),
  });
  const rest: Drawing = { ...from, ...pick(from.order.slice(0, from.order.length - lifted.length)) };
  const part = { drawing: pick(lifted), hold: defaultHold(place, frame) };
  return insertParts(putEntities(doc, rest), place, afterHere(place, frame), [part], newId);
}

/** What becomes of the frames of deleted drawings: later ones close up, or the drawing before is held on. */
export type Deleting = 'close up' | 'hold before';

/** Deletes runs of a layer, and their drawings when nothing else shows them. @param indices of its run list. */
export function deleteRuns(doc: ShotDocument, layerId: Id, indices: readonly number[], how: Deleting): Timed {
  const place = placeOf(doc, layerId);
  let { list } = place.timed;
  const first = Math.min(...indices);
  for (const index of [...indices].sort((a, b) => b - a)) {
    const gone = list.runs[index];
    if (!gone) continue;
    list = removeRun(list, index);
    const heir = index > 0 ? index - 1 : 0;
    const heldOn = list.runs[heir];
    if (how === 'hold before' && heldOn) list = setHold(list, heir, heldOn.length + gone.length);
  }
  const edited = swept(putEntities(doc, list), [list.id]);
  return atRun(settled(doc, edited, place), place, how === 'hold before' ? Math.max(0, first - 1) : first);
}

/** Deletes what is shown on a frame. */
export function deleteExposure(doc: ShotDocument, layerId: Id, frame: number, how: Deleting = 'close up'): Timed {
  const { timed, turn } = placeOf(doc, layerId);
  const here = exposureAt(timed.list, frame, turn);
  return here ? deleteRuns(doc, layerId, [here.index], how) : { doc, frame };
}

function makeFirst(place: Place, frame: number, newId: NewId): { list: RunList; slot: Id } {
  const { timed, turn } = place;
  // A slot that is still to be drawn, of a layer tied to another, takes the drawing.
  const bare = exposureAt(timed.list, frame, turn)?.run.slot;
  if (bare) return { list: timed.list, slot: bare };
  const slot = newId();
  const planned = phaseAt(place.element.phases, frame)?.hold;
  const hold = timed.list.period ?? planned ?? timed.list.runs.findLast((run) => run.slot !== null)?.length ?? 2;
  return { list: fillGap(timed.list, listFrame(timed.list, frame, turn), slot, hold, newId), slot };
}

/** A drawing with marks on top of those it has. */
const withMarks = (drawing: Drawing, marks: readonly Mark[]): Drawing => ({
  ...drawing,
  marks: { ...drawing.marks, ...Object.fromEntries(marks.map((mark) => [mark.id, mark])) },
  order: [...drawing.order, ...marks.map((mark) => mark.id)],
});

/**
 * Adds marks on top of the drawing a layer shows on a frame; where nothing shows, the drawing is
 * made there first. Needs that drawing loaded.
 */
export function addMarks(
  doc: ShotDocument,
  layerId: Id,
  frame: number,
  marks: readonly Mark[],
  newId: NewId,
): ShotDocument {
  const place = placeOf(doc, layerId);
  const shown = shownOn(place.timed, frame, place.turn);
  const drawing = find(doc, 'drawing', shown?.drawingId);
  if (shown && !drawing) throw new Error(`Drawing ${shown.drawingId} is not loaded`);
  const base = drawing ?? emptyDrawing(newId());
  const grown = withMarks(base, marks);
  if (drawing) return putEntities(doc, grown);
  const { layer } = place.timed;
  const { list, slot } = makeFirst(place, frame, newId);
  const nextLayer: Layer = { ...layer, slots: { ...layer.slots, [slot]: grown.id } };
  return withList(doc, place, list, nextLayer, grown);
}

/** Where marks are to go: a layer's drawing, by its id where there is one as the pen lands, else a new one on a frame. */
export interface LandingPlace {
  readonly layerId: Id;
  readonly drawingId: Id | null;
  readonly frame: number;
}

/**
 * Adds marks where the pen landed, whatever others have changed since: to that very drawing, wherever it is shown by
 * now; where it or its layer is gone, to a new one, on a layer of its own if need be. Needs that drawing loaded.
 */
export function landMarks(
  doc: ShotDocument,
  { layerId, drawingId, frame }: LandingPlace,
  marks: readonly Mark[],
  newId: NewId,
): ShotDocument {
  const drawing = find(doc, 'drawing', drawingId);
  if (drawing) return putEntities(doc, withMarks(drawing, marks));
  const layer = find(doc, 'layer', layerId);
  const element = find(doc, 'element', layer?.elementId);
  const timed = element && timedLayers(doc, element).find((each) => each.layer.id === layerId);
  if (timed) {
    const isFree = !shownOn(timed, frame, elementLength(doc, element));
    return isFree
      ? addMarks(doc, layerId, frame, marks, newId)
      : insertAfter(doc, layerId, frame, withMarks(emptyDrawing(newId()), marks), newId).doc;
  }
  const made = withMarks(emptyDrawing(newId()), marks);
  return rescueDrawing(putEntities(doc, made), made);
}

/** Adds one mark, see `addMarks`. */
export const addMark = (doc: ShotDocument, layerId: Id, frame: number, mark: Mark, newId: NewId): ShotDocument =>
  addMarks(doc, layerId, frame, [mark], newId);

/** Why a layer cannot be drawn on, said to the user, or null when it can. */
export function whyNotDrawable(timed: TimedLayer | undefined): string | null {
  if (!timed) return 'There is no layer to draw on. Add one in the column on the right.';
  const { layer, folder } = timed;
  if (isLocked(timed))
    return layer.locked
      ? `“${layer.name}” is locked. Unlock it to draw on it.`
      : `“${layer.name}” lies in the locked folder “${folder!.name}”. Unlock the folder to draw on it.`;
  if (!isVisible(timed))
    return layer.visible
      ? `“${layer.name}” is hidden by its folder “${folder!.name}”. Show the folder to draw on it.`
      : `“${layer.name}” is hidden. Show it to draw on it.`;
  return null;
}
