/** Edits of what is picked in time, on one layer, on the picked ones, or on all together. */
import { randomId, type Id } from '@tallow/core/document';
import {
  changeStretch,
  clipOf,
  indicesOf,
  insertClip,
  makeOwn,
  newDrawingBefore,
  nextBare,
  rollEnd,
  shownTimes,
  spanOf,
  splitHere,
  swapRuns,
  type RunSelection,
  type RunsChange,
  type Stretch,
} from '@tallow/core/edit';
import { framesTyped, heldAlong, heldLonger, isLocked, reversedRuns } from '@tallow/core/timing';
import { current, shownNow } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import { editTime, whyNotRuns, whyNotTime } from './time-edits.ts';
import { runsToEdit, selectedNow } from '../selection/to-edit.ts';
import { withDrawings } from '../saving/drawings.ts';

/** The layers an edit of time is for: all unlocked ones when they change together, else the picked ones. */
export function layersToEdit(): Id[] {
  const now = current();
  if (!now?.active) return [];
  const open = new Set(
    now.layers.filter((timed) => !isLocked(timed) && timed.list.period !== 1).map(({ layer }) => layer.id),
  );
  const own = now.active.layer.id;
  const wanted = selection().together ? [own, ...open] : [own, ...(selectedNow()?.also ?? [])];
  return [...new Set(wanted)].filter((id) => open.has(id));
}

/** The frames an edit of time is for: what is picked, else what shows on the playhead; or the whole element. */
export function stretchToEdit(whole = false): Stretch | null {
  const now = current();
  const layerIds = layersToEdit();
  if (!now?.active || layerIds.length === 0) return null;
  if (whole) return { layerIds, from: 0, length: now.length };
  const runs = runsToEdit();
  if (!runs) return null;
  return { layerIds, ...spanOf(now.active.list, runs, now.length) };
}

/** Why what is active cannot be changed in time, or null. */
export const whyNotStretch = (): string | null =>
  selection().together
    ? current()?.active
      ? null
      : 'There is no layer. Add one first.'
    : (whyNotTime() ?? whyNotRuns());

/** Changes the runs of what is active, in one step. @param whole all of the element's time. */
export function change(name: string, how: RunsChange, whole = false): void {
  const stretch = stretchToEdit(whole);
  const trouble = whole ? whyNotTime() : whyNotStretch();
  if (!stretch || trouble) {
    if (trouble) say(trouble);
    return;
  }
  let frame = stretch.from;
  edit(name, (doc) => {
    const timed = changeStretch(doc, stretch, how, randomId);
    frame = timed.frame;
    return timed.doc;
  });
  setSelection({ selectedRuns: null });
  goTo(frame);
}

export const reverse = (): void => {
  change('turn round', reversedRuns);
};

/** Reads holds such as `1,1,2` or `2, 0.3s` as typed; null when they are none. @param rate frames per second. */
export function readHolds(text: string, rate: number): number[] | null {
  const holds = text
    .split(/[\s,;]+/)
    .filter((each) => each !== '')
    .map((each) => framesTyped(each, rate) ?? 0);
  return holds.length > 0 && holds.every((each) => each >= 1 && each <= 1000) ? holds : null;
}

export const holdAlong = (holds: readonly number[], whole: boolean): void => {
  change(`holds ${holds.slice(0, 6).join(', ')}`, (runs) => heldAlong(runs, holds), whole);
};

/** Each of what is active a frame longer or shorter; what follows moves. */
export function pushBy(by: 1 | -1): void {
  const selected = selectedNow();
  change(by > 0 ? 'hold longer' : 'hold shorter', (runs) => heldLonger(runs, by));
  if (selected) setSelection({ selectedRuns: selected });
}

/** The last of what is active a frame longer or shorter at the cost of the next; nothing else moves. */
export function rollBy(by: 1 | -1): void {
  const runs = runsToEdit();
  const total = current()?.active?.list.runs.length ?? 1;
  if (runs)
    editTime(by > 0 ? 'hold into the next' : 'hold back from the next', (doc, layer) =>
      rollEnd(doc, layer, (runs.first + runs.count - 1) % total, by),
    );
}

export const whyNotRoll = (): string | null =>
  whyNotRuns() ??
  ((current()?.active?.list.runs.length ?? 0) > 1 ? null : 'There is no other drawing to take frames from.');

export const split = (): void => {
  editTime('split hold', (doc, layer, frame) => splitHere(doc, layer, frame, randomId));
};

/** The first and the last of what is picked change places; a single one with the next. */
export function swap(): void {
  const runs = runsToEdit();
  const total = current()?.active?.list.runs.length ?? 0;
  if (!runs || total < 2) return;
  const other = (runs.first + Math.max(1, runs.count - 1)) % total;
  editTime('swap drawings', (doc, layer) => swapRuns(doc, layer, runs.first, other));
}

export const insertBefore = (): void => {
  const runs = runsToEdit();
  if (runs) editTime('new drawing before', (doc, layer) => newDrawingBefore(doc, layer, runs.first, randomId));
};

/** Puts copies of runs of the active layer before the one at an index. */
export function copyTo(runs: RunSelection, to: number): void {
  const now = current();
  if (!now?.active) return;
  const { layer, list } = now.active;
  const indices = indicesOf(runs, list.runs.length);
  const drawings = indices.flatMap((index) => layer.slots[list.runs[index]?.slot ?? ''] ?? []);
  withDrawings(drawings, () => {
    setSelection({ selectedRuns: null });
    editTime(runs.count === 1 ? 'copy of drawing' : `copy of ${runs.count} drawings`, (doc, id) =>
      insertClip(doc, id, to, clipOf(doc, id, indices), randomId),
    );
  });
}

/** Copies of what is active right after it. */
export function duplicateSelected(): void {
  const runs = runsToEdit();
  const count = current()?.active?.list.runs.length ?? 0;
  if (runs) copyTo(runs, Math.min(count, runs.first + runs.count));
}

/** How many exposures show the drawing on the playhead. */
export function shownHere(): number {
  const now = current();
  return now?.active ? shownTimes(now.doc, now.active.layer.id, selection().frame) : 0;
}

export const whyNotOwn = (): string | null =>
  whyNotTime() ?? (shownHere() > 1 ? null : 'Nothing else shows this drawing.');

export function own(): void {
  const now = current();
  const shown = now && shownNow(now, selection().frame);
  if (!shown) return;
  withDrawings([shown.drawingId], () => {
    editTime('drawing of its own', (doc, layer, frame) => makeOwn(doc, layer, frame, randomId));
  });
}

/** Goes to the next slot of the active layer that is still to be drawn. */
export function goToBare(): void {
  const now = current();
  const frame = now?.active && nextBare(now.doc, now.active.layer.id, selection().frame);
  if (frame != null) goTo(frame);
}

export function whyNotBare(): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  return nextBare(now.doc, now.active.layer.id, selection().frame) === null
    ? 'Every slot of this layer is drawn.'
    : null;
}
