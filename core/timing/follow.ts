/**
 * Frames that go with what is drawn: where a frame of one state of a run list is in another. The playhead, what is
 * picked, values over time and phases keep to their drawings by it when drawings are put in, taken out or held otherwise.
 */
import type { RunList } from '../document/index.ts';
import { exposureAt, exposures, listFrame, runStart, totalLength } from './runs.ts';

/**
 * The element frame on which a list shows what it showed on a frame before: the same run, as far into it (or on its
 * last frame, where it is shorter); without that run the same drawing; without that too, where what followed begins. Past
 * the end of the list, as far past its end.
 * @param turn frames of the element before, `turnAfter` after.
 */
export function followed(before: RunList, after: RunList, frame: number, turn: number, turnAfter: number): number {
  if (before === after) return frame;
  const here = exposureAt(before, frame, turn);
  if (!here) return frame + totalLength(after) - totalLength(before);
  const into = listFrame(before, frame, turn) - here.start;
  const at = (index: number, most: number): number =>
    runStart(after, index, turnAfter) + Math.min(most, after.runs[index]!.length - 1);
  const own = after.runs.findIndex((run) => run.id === here.run.id);
  if (own >= 0) return at(own, into);
  const { slot } = here.run;
  if (slot !== null) {
    // Of several times it is shown, the one as far on.
    const times = (list: RunList) => exposures(list).filter(({ run }) => run.slot === slot);
    const which = times(before).findIndex(({ index }) => index === here.index);
    const shown = times(after);
    const found = shown[Math.min(which, shown.length - 1)];
    if (found) return at(found.index, into);
  }
  const kept = new Set(after.runs.map((run) => run.id));
  const next = before.runs.slice(here.index + 1).find((run) => kept.has(run.id));
  if (next)
    return at(
      after.runs.findIndex((run) => run.id === next.id),
      0,
    );
  return Math.max(0, totalLength(after) - 1);
}
