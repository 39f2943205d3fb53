/** Edits of drawings and their time as the buttons, keys and the wheel make them. */
import { find, randomId, type Id, type ShotDocument } from '@tallow/core/document';
import {
  breakHold,
  clipOf,
  copyDrawing,
  deleteRuns,
  holdFor,
  indicesOf,
  insertBlank,
  layerOn,
  moveToNewDrawing,
  newDrawing,
  pasteClip,
  setStill,
  shiftPhase,
  type Deleting,
  type RunSelection,
  type Timed,
  setElement,
} from '@tallow/core/edit';
import { exposureAt, isLocked } from '@tallow/core/timing';
import { current, shownNow, type Current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, useDocument } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import { runsToEdit, selectedNow } from '../selection/to-edit.ts';
import { withDrawings } from '../saving/drawings.ts';

/** Why the time of a layer, the active one if none is named, cannot be changed now, or null. */
export function whyNotTime(layerId?: Id): string | null {
  const now = current();
  const timed = layerId === undefined ? now?.active : now?.layers.find(({ layer }) => layer.id === layerId);
  if (!timed) return 'There is no layer. Add one first.';
  const { layer, list } = timed;
  if (isLocked(timed)) return `“${layer.name}” is locked. Unlock it first.`;
  if (list.period === 1) return `“${layer.name}” is still: it shows one drawing throughout.`;
  return null;
}

export const whyNotRuns = (): string | null => whyNotTime() ?? (runsToEdit() ? null : 'Nothing shows on this frame.');

export function whyNotDrawing(what: string): string | null {
  const now = current();
  return whyNotTime() ?? (now && shownNow(now, selection().frame) ? null : `There is no drawing here to ${what}.`);
}

/** Runs an edit of time on the active layer and puts the playhead where it belongs, in one step. */
export function editTime(
  name: string,
  change: (doc: ShotDocument, layerId: Id, frame: number) => Timed,
  gesture?: string,
): void {
  const now = current();
  if (!now?.active) return;
  let { frame } = selection();
  edit(
    name,
    (doc) => {
      const timed = change(doc, now.active!.layer.id, frame);
      frame = timed.frame;
      return timed.doc;
    },
    gesture,
  );
  goTo(frame);
}

function drawingsOf(now: Current, runs: RunSelection): Id[] {
  const { layer, list } = now.active!;
  return indicesOf(runs, list.runs.length).flatMap((index) => {
    const slot = list.runs[index]?.slot;
    return slot ? (layer.slots[slot] ?? []) : [];
  });
}

/** How many runs a layer has. */
const lengthOf = (doc: ShotDocument, layerId: Id): number =>
  find(doc, 'runlist', find(doc, 'layer', layerId)?.runListId)?.runs.length ?? 1;

/** Does something with the selected runs once their drawings are here. */
function withRuns(then: (runs: RunSelection & { layerId: Id }) => void): void {
  const now = current();
  const runs = runsToEdit();
  if (now && runs)
    withDrawings(drawingsOf(now, runs), () => {
      then(runs);
    });
}

/** Holds what is picked, or what is shown, for so many frames. */
export function hold(length: number): void {
  const selected = selectedNow();
  if (selected) editTime(`picked on ${length}s`, (doc, layer, frame) => layerOn(doc, layer, frame, length, selected));
  else editTime(`hold ${length}s`, (doc, layer, frame) => holdFor(doc, layer, frame, length));
}

export const wholeLayerOn = (length: number): void => {
  editTime(`whole layer on ${length}s`, (doc, layer, frame) => layerOn(doc, layer, frame, length));
};

/** Frames the drawing on the playhead is held for, or null where nothing shows. */
export function heldFor(now: Current | null, frame: number): number | null {
  return (now?.active && exposureAt(now.active.list, frame, now.length)?.run.length) ?? null;
}

/** The longest hold of what is picked, or else of what is shown, frames. */
export function longestSelected(): number | null {
  const runs = runsToEdit();
  const list = current()?.active?.list;
  if (!runs || !list) return null;
  return Math.max(...indicesOf(runs, list.runs.length).map((index) => list.runs[index]!.length));
}

export const addDrawing = (): void => {
  setSelection({ selectedRuns: null });
  editTime('new drawing', (doc, layer, frame) => newDrawing(doc, layer, frame, randomId));
};
export const addDrawingHere = (): void => {
  setSelection({ selectedRuns: null });
  editTime('new drawing here', (doc, layer, frame) => breakHold(doc, layer, frame, randomId));
};
export const addBlank = (): void => {
  setSelection({ selectedRuns: null });
  editTime('blank', (doc, layer, frame) => insertBlank(doc, layer, frame, randomId));
};
export function duplicateDrawing(): void {
  const now = current();
  const shown = now && shownNow(now, selection().frame);
  if (!shown) return;
  setSelection({ selectedRuns: null });
  withDrawings([shown.drawingId], () => {
    editTime('copy of drawing', (doc, layer, frame) => copyDrawing(doc, layer, frame, randomId));
  });
}

/** Takes the last strokes of this drawing into a new one after it. */
export function moveLastToNewDrawing(count: number): void {
  const now = current();
  const shown = now && shownNow(now, selection().frame);
  if (!shown) return;
  setSelection({ selectedRuns: null });
  withDrawings([shown.drawingId], () => {
    editTime(count === 1 ? 'lift last stroke' : `lift last ${count} strokes`, (doc, layer, frame) =>
      moveToNewDrawing(doc, layer, frame, count, randomId),
    );
  });
}

export function deleteSelected(how: Deleting): void {
  withRuns((runs) => {
    setSelection({ selectedRuns: null });
    editTime(runs.count === 1 ? 'delete drawing' : `delete ${runs.count} drawings`, (doc, layer) =>
      deleteRuns(doc, layer, indicesOf(runs, lengthOf(doc, layer)), how),
    );
  });
}

export function copySelected(then: () => void = () => undefined): void {
  withRuns((runs) => {
    const { doc } = useDocument.getState();
    if (!doc) return;
    setSelection({
      clip: { shotId: doc.shotId, parts: clipOf(doc, runs.layerId, indicesOf(runs, lengthOf(doc, runs.layerId))) },
    });
    then();
  });
}

export function cutSelected(): void {
  copySelected(() => {
    deleteSelected('close up');
  });
}

export function whyNotPaste(): string | null {
  const { clip } = selection();
  const { doc } = useDocument.getState();
  if (!clip) return 'Nothing has been copied yet.';
  if (clip.shotId !== doc?.shotId) return 'What was copied belongs to another shot and its palette.';
  return whyNotTime();
}

export function paste(): void {
  const { clip } = selection();
  if (!clip) return;
  setSelection({ selectedRuns: null });
  const count = clip.parts.length;
  editTime(count === 1 ? 'paste drawing' : `paste ${count} drawings`, (doc, layer, frame) =>
    pasteClip(doc, layer, frame, clip.parts, randomId),
  );
}

/** Lets the active layer's ring run later or earlier against the others. */
export function shiftActive(by: number): void {
  const now = current();
  if (now?.active) edit('phase', (doc) => shiftPhase(doc, now.active!.layer.id, by, randomId));
}

/** Lets the active layer show this drawing throughout, or run again. */
export function setActiveStill(still: boolean): void {
  const now = current();
  if (!now?.active) return;
  const { layer } = now.active;
  const { frame } = selection();
  edit(still ? 'still layer' : 'moving layer', (doc) => setStill(doc, layer.id, still, frame));
  goTo(selection().frame);
}

/** Picks every drawing of the active layer, or nothing. */
export function selectAll(): void {
  const now = current();
  const count = now?.active?.list.runs.length ?? 0;
  if (now?.active && count > 0) setSelection({ selectedRuns: { layerId: now.active.layer.id, first: 0, count } });
}

/** Closes the element into a cycle, or opens it again. */
export function toggleCycle(): void {
  const element = current()?.element;
  if (!element) return;
  const isCycle = element.time === 'cycle';
  edit(isCycle ? 'open the element' : 'close into a cycle', (doc) =>
    setElement(doc, element.id, { time: isCycle ? 'open' : 'cycle' }),
  );
}
