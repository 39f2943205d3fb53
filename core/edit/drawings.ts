/** Edits of drawings and of the time they are shown: what the buttons under the wheel do. */
import {
  emptyDrawing,
  dropEntities,
  find,
  putEntities,
  type Drawing,
  type Element,
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
  listFrame,
  removeRun,
  retime,
  runStart,
  setHold,
  shownOn,
  timedLayers,
  totalLength,
  type TimedLayer,
} from '../timing/index.ts';

/** A document after an edit, and the element frame the playhead belongs on. */
export interface Timed {
  readonly doc: ShotDocument;
  readonly frame: number;
}

interface Place {
  readonly element: Element;
  readonly timed: TimedLayer;
  readonly turn: number;
}

function placeOf(doc: ShotDocument, layerId: Id): Place {
  const layer = find(doc, 'layer', layerId);
  const element = find(doc, 'element', layer?.elementId);
  const timed = element && timedLayers(doc, element).find((each) => each.layer.id === layerId);
  if (!element || !timed) throw new Error(`Layer ${layerId} is not in this shot`);
  return { element, timed, turn: elementLength(doc, element) };
}

/**
 * Keeps a cycle free of flashes after one layer's time changed: layers that ran the whole turn
 * before hold their last drawing to the end of the new turn.
 */
function keepFull(before: ShotDocument, after: ShotDocument, element: Element): ShotDocument {
  if (element.time !== 'cycle') return after;
  const oldTurn = elementLength(before, element);
  const full = timedLayers(before, element).filter(({ list }) => list.period === null && totalLength(list) === oldTurn);
  const turn = elementLength(after, element);
  const changed = new Map<Id, RunList>();
  for (const { list } of full) {
    const now = find(after, 'runlist', list.id);
    const missing = now ? turn - totalLength(now) : 0;
    if (now && missing > 0 && now.runs.length > 0)
      changed.set(now.id, setHold(now, now.runs.length - 1, now.runs.at(-1)!.length + missing));
  }
  return putEntities(after, ...changed.values());
}

function insertAfter(
  doc: ShotDocument,
  place: Place,
  frame: number,
  drawing: Drawing | null,
  hold: number,
  newId: NewId,
): Timed {
  const { element, timed, turn } = place;
  const { layer, list } = timed;
  const here = exposureAt(list, frame, turn);
  const index = here ? here.index + 1 : list.runs.length;
  const slot = drawing ? newId() : null;
  const next = insertRun(list, index, { id: newId(), slot, length: hold });
  const nextLayer: Layer = drawing && slot ? { ...layer, slots: { ...layer.slots, [slot]: drawing.id } } : layer;
  const edited = keepFull(doc, putEntities(doc, next, nextLayer, ...(drawing ? [drawing] : [])), element);
  return { doc: edited, frame: runStart(next, index, elementLength(edited, element)) };
}

/** The hold a new drawing takes: that of the drawing shown, else 2. */
function usualHold(place: Place, frame: number): number {
  return exposureAt(place.timed.list, frame, place.turn)?.run.length ?? place.timed.list.runs.at(-1)?.length ?? 2;
}

/** A new empty drawing after the one shown, held as long; later ones move. */
export function newDrawing(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  return insertAfter(doc, place, frame, emptyDrawing(newId()), usualHold(place, frame), newId);
}

/** A copy of the drawing shown, right after it. Needs that drawing loaded. @throws if nothing is shown. */
export function copyDrawing(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  const source = find(doc, 'drawing', shownOn(place.timed, frame, place.turn)?.drawingId);
  if (!source) throw new Error('There is no drawing here to copy');
  return insertAfter(doc, place, frame, { ...source, id: newId() }, usualHold(place, frame), newId);
}

/** A stretch with no drawing after the one shown: what came before stops showing. */
export function insertBlank(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): Timed {
  const place = placeOf(doc, layerId);
  return insertAfter(doc, place, frame, null, usualHold(place, frame), newId);
}

/** Deletes the exposure on a frame, and its drawing when nothing else shows it; later ones close up. */
export function deleteExposure(doc: ShotDocument, layerId: Id, frame: number): Timed {
  const { element, timed, turn } = placeOf(doc, layerId);
  const { layer, list } = timed;
  const here = exposureAt(list, frame, turn);
  if (!here) return { doc, frame };
  const next = removeRun(list, here.index);
  const { slot } = here.run;
  let edited = putEntities(doc, next);
  const slotGone = slot !== null && !next.runs.some((run) => run.slot === slot);
  if (slotGone) {
    const drawingId = layer.slots[slot]!;
    const slots = Object.fromEntries(Object.entries(layer.slots).filter(([key]) => key !== slot));
    edited = putEntities(edited, { ...layer, slots });
    const shownElsewhere = Object.values(edited.entities).some(
      (e) => e.kind === 'layer' && Object.values(e.slots).includes(drawingId),
    );
    if (!shownElsewhere) edited = dropEntities(edited, [drawingId]);
  }
  edited = keepFull(doc, edited, element);
  const newTurn = elementLength(edited, element);
  return {
    doc: edited,
    frame: Math.min(runStart(next, Math.max(0, Math.min(here.index, next.runs.length - 1)), newTurn), newTurn - 1),
  };
}

/** Holds what is shown on a frame for so many frames (at least 1); later ones move. */
export function holdFor(doc: ShotDocument, layerId: Id, frame: number, length: number): Timed {
  const { element, timed, turn } = placeOf(doc, layerId);
  const here = exposureAt(timed.list, frame, turn);
  if (!here || here.run.length === length) return { doc, frame };
  const next = setHold(timed.list, here.index, length);
  const edited = keepFull(doc, putEntities(doc, next), element);
  return { doc: edited, frame: runStart(next, here.index, elementLength(edited, element)) };
}

/** Puts a whole layer on 1s, 2s, 3s or any other hold; the playhead stays on its drawing. */
export function layerOn(doc: ShotDocument, layerId: Id, frame: number, hold: number): Timed {
  const { element, timed, turn } = placeOf(doc, layerId);
  const here = exposureAt(timed.list, frame, turn);
  const next = retime(timed.list, hold);
  const edited = keepFull(doc, putEntities(doc, next), element);
  const newTurn = elementLength(edited, element);
  return { doc: edited, frame: here ? runStart(next, here.index, newTurn) : Math.min(frame, newTurn - 1) };
}

/**
 * Adds a mark on top of the drawing a layer shows on a frame; where nothing shows, the drawing is
 * made there first. Needs that drawing loaded.
 */
export function addMark(doc: ShotDocument, layerId: Id, frame: number, mark: Mark, newId: NewId): ShotDocument {
  const { element, timed, turn } = placeOf(doc, layerId);
  const shown = shownOn(timed, frame, turn);
  const drawing = find(doc, 'drawing', shown?.drawingId);
  if (shown && !drawing) throw new Error(`Drawing ${shown.drawingId} is not loaded`);
  if (drawing)
    return putEntities(doc, {
      ...drawing,
      marks: { ...drawing.marks, [mark.id]: mark },
      order: [...drawing.order, mark.id],
    });
  const slot = newId();
  const made: Drawing = { kind: 'drawing', id: newId(), marks: { [mark.id]: mark }, order: [mark.id] };
  const { layer, list } = timed;
  const hold = list.period ?? list.runs.findLast((run) => run.slot !== null)?.length ?? 2;
  const next = fillGap(list, listFrame(list, frame, turn), slot, hold, newId);
  return keepFull(doc, putEntities(doc, next, { ...layer, slots: { ...layer.slots, [slot]: made.id } }, made), element);
}

/** Why a layer cannot be drawn on, said to the user, or null when it can. */
export function whyNotDrawable(layer: Layer | undefined): string | null {
  if (!layer) return 'There is no layer to draw on. Add one in the column on the right.';
  if (layer.locked) return `“${layer.name}” is locked. Unlock it to draw on it.`;
  if (!layer.visible) return `“${layer.name}” is hidden. Show it to draw on it.`;
  return null;
}
