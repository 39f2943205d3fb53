/** Straight ahead: on to the next drawing by itself or on a key, making one where there is none. */
import { randomId } from '@tallow/core/document';
import { copyDrawing, newDrawing } from '@tallow/core/edit';
import { exposureAt, runStart } from '@tallow/core/timing';
import { current, shownNow } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { toolState } from '../hand/tool-state.ts';
import { goTo, stepDrawing } from '../playback/playhead.ts';
import { editTime, whyNotTime } from './time-edits.ts';

/** Whether what shows now is the last of its layer, with nothing after it and no seam to go over. */
function atTheEnd(): boolean {
  const now = current();
  if (!now?.active || now.element.time === 'cycle') return false;
  const { list } = now.active;
  const here = exposureAt(list, selection().frame, now.length);
  return here === null || here.index === list.runs.length - 1;
}

/** Goes on to the next drawing; past the last exposure a new one is made, empty or with what is there. */
export function goOnward(): void {
  if (whyNotTime()) return;
  setSelection({ selectedRuns: null });
  if (!atTheEnd()) {
    stepDrawing(1);
    return;
  }
  const now = current();
  const isDrawn = now !== null && shownNow(now, selection().frame) !== null;
  editTime('new drawing', (doc, layer, frame) =>
    toolState().grows && isDrawn ? copyDrawing(doc, layer, frame, randomId) : newDrawing(doc, layer, frame, randomId),
  );
}

/** After a stroke: goes on if that is wanted. */
export function strokeDone(): void {
  const now = current();
  if (!toolState().goesOn || !now?.active || now.active.list.period === 1) return;
  // The first stroke of an empty layer makes its drawing; the playhead stands on its first frame then.
  const here = exposureAt(now.active.list, selection().frame, now.length);
  if (here) goTo(runStart(now.active.list, here.index, now.length));
  goOnward();
}
