/**
 * Frames that go with what is drawn: where a frame of one state of a run list is in another. The playhead, what is
 * picked, values over time and phases keep to their drawings by it when drawings are put in, taken out or held otherwise.
 */
import type { Id, Run, RunList } from '../document/index.ts';
import { exposureAt, exposures, runStart, totalLength } from './runs.ts';

/** Past the end of a list nothing shows; that is not the same as a run that shows nothing. */
const NONE = 'none';

interface Frames {
  /** What shows on each frame of the element, as far as the list goes. */
  readonly slots: readonly (Id | null)[];
  /** Whether a run begins on a frame, or the list has ended by then. */
  readonly begins: (frame: number) => boolean;
}

function framesOf(list: RunList, turn: number): Frames {
  const length = list.offset === 0 && list.period === null ? totalLength(list) : turn;
  const slots = Array.from({ length }, (_, frame) => {
    const here = exposureAt(list, frame, turn);
    return here ? here.run.slot : NONE;
  });
  const starts = new Set(list.runs.map((_, index) => runStart(list, index, turn)));
  return { slots, begins: (frame) => frame === 0 || frame >= length || starts.has(frame) };
}

/** The run of a list that is, or shows, what a run of an earlier state was: by id, else by its drawing, as far on. */
function sameRun(before: RunList, after: RunList, run: Run, index: number): number {
  const own = after.runs.findIndex(({ id }) => id === run.id);
  if (own >= 0 || run.slot === null) return own;
  const times = (list: RunList) => exposures(list).filter((each) => each.run.slot === run.slot);
  const shown = times(after);
  const which = times(before).findIndex((each) => each.index === index);
  return shown[Math.min(which, shown.length - 1)]?.index ?? -1;
}

/** Moves frames of an element from one state of a list to another. */
export interface Follower {
  /** The frame on which the list now shows what it showed on this one; see `follower`. */
  readonly at: (frame: number) => number;
  /** Whether what it showed on a frame is still there. */
  readonly keeps: (frame: number) => boolean;
}

/**
 * How frames go from one state of a list to another. What is the same up to a change stays, what is the same after it
 * keeps its distance from the end. In between a frame goes with its run, as far into it as that now goes; without its
 * run, with its drawing; without that, to where what followed now begins. Past the end frames stay.
 * @param turn frames of the element before, `turnAfter` after.
 */
export function follower(before: RunList, after: RunList, turn: number, turnAfter: number): Follower {
  const [from, to] = [framesOf(before, turn), framesOf(after, turnAfter)];
  const [old, now] = [from.slots, to.slots];
  const max = Math.min(old.length, now.length);
  let head = 0;
  while (head < max && old[head] === now[head]) head += 1;
  while (!from.begins(head) || !to.begins(head)) head -= 1;
  let tail = 0;
  while (tail < max - head && old[old.length - 1 - tail] === now[now.length - 1 - tail]) tail += 1;
  while (!from.begins(old.length - tail) || !to.begins(now.length - tail)) tail -= 1;
  const isSame = (frame: number) => frame < head || frame >= old.length - tail;
  const runAt = (frame: number) => {
    const here = exposureAt(before, frame, turn);
    return here ? { here, index: sameRun(before, after, here.run, here.index) } : null;
  };
  return {
    at: (frame) => {
      if (frame >= old.length || frame < head) return frame;
      if (isSame(frame)) return frame + now.length - old.length;
      const found = runAt(frame);
      if (!found) return frame;
      if (found.index < 0) return Math.max(0, Math.min(now.length - 1, Math.max(head, now.length - tail)));
      const { here, index } = found;
      const start = runStart(before, here.index, turn);
      const into = frame >= start ? frame - start : frame + turn - start;
      const first = runStart(after, index, turnAfter);
      const kept = after.runs[index]!.length;
      if (into < kept) return (first + into) % Math.max(1, turnAfter);
      // Cut in two, the later part goes on under another id: it is as far from what follows as it was.
      const left = here.run.length - into;
      const rest = now.length - tail - left;
      const isRest = old.length - tail === start + here.run.length && rest > first && now[rest] === here.run.slot;
      return isRest ? rest : (first + kept - 1) % Math.max(1, turnAfter);
    },
    keeps: (frame) => frame >= old.length || isSame(frame) || (runAt(frame)?.index ?? -1) >= 0,
  };
}
