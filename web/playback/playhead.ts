/** Moving the playhead: on the active element's own time, turn after turn. */
import { shotOf } from '@tallow/core/document';
import { modulo } from '@tallow/core/geometry';
import { exposureAt, exposures, runStart } from '@tallow/core/timing';
import { current, type Current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { playback, setPlayback, stopPlaying } from './playback.ts';
import { goToShotFrame, shotTime } from './shot-time.ts';

/** Steps by frames: of the shot while the playhead is on it, else of the active element. */
export function stepFrame(by: number): void {
  if (!shotTime().on) {
    goTo(selection().frame + by);
    return;
  }
  if (playback().playing) stopPlaying();
  goToShotFrame(shotTime().frame + by);
}

/** Goes to a frame of the active element; past the ends of a cycle into the turn before or after, round and round. */
export function goTo(frame: number, inTurn: number = selection().turn): void {
  const now = current();
  if (!now) return;
  if (playback().playing) stopPlaying();
  if (now.element.time !== 'cycle') {
    setSelection({ frame: Math.min(now.length - 1, Math.max(0, frame)), turn: 0 });
    return;
  }
  const turn = modulo(inTurn + Math.floor(frame / now.length), now.turns);
  setSelection({ frame: modulo(frame, now.length), turn });
}

/** Goes to the first (-1) or last (1) frame: of the shot while the playhead is on it, else of this turn of the active element. */
export function goToEnd(side: 1 | -1): void {
  const now = current();
  if (!now) return;
  if (!shotTime().on) {
    goTo(side < 0 ? 0 : now.length - 1);
    return;
  }
  if (playback().playing) stopPlaying();
  goToShotFrame(side < 0 ? 0 : shotOf(now.doc).length - 1);
}

/** The element frame on which what shows on a frame begins. */
function exposureStart(now: Current, frame: number): number | undefined {
  const here = now.active && exposureAt(now.active.list, frame, now.length);
  return here && now.active ? runStart(now.active.list, here.index, now.length) : undefined;
}

/** The frame of the drawing so many drawings on (or back, below 0), beyond the ends of a turn on cycles. @param posed only keys and breakdowns. */
function drawingFrame(by: 1 | -1, posed = false): number | undefined {
  const now = current();
  if (!now?.active) return undefined;
  const { list } = now.active;
  const starts = exposures(list)
    .filter(({ run }) => !posed || (run.slot !== null && list.poses[run.slot] !== undefined))
    .map(({ index }) => runStart(list, index, now.length))
    .sort((a, b) => a - b);
  const { frame } = selection();
  const from = exposureStart(now, frame) ?? frame;
  const found = by === 1 ? starts.find((s) => s > frame) : starts.findLast((s) => s < from);
  if (found !== undefined || now.element.time !== 'cycle') return found;
  const round = by === 1 ? starts[0] : starts.at(-1);
  return round === undefined ? undefined : round + by * now.length;
}

/** Goes to the drawing before (-1) or after (1) on the active layer. */
export function stepDrawing(by: 1 | -1): void {
  if (shotTime().on) {
    stepFrame(by);
    return;
  }
  const next = drawingFrame(by);
  if (next !== undefined) goTo(next);
}

/** Why there is no key to go to; null where there is one. */
export function whyNotPose(): string | null {
  const list = current()?.active?.list;
  return list?.runs.some(({ slot }) => slot !== null && list.poses[slot] !== undefined)
    ? null
    : 'No drawing of this layer is a key or a breakdown: Timing says which are.';
}

/** Goes to the key or breakdown before (-1) or after (1) on the active layer. */
export function stepPose(by: 1 | -1): void {
  const next = drawingFrame(by, true);
  if (next !== undefined) goTo(next);
}

let flippedFrom: { frame: number; turn: number } | null = null;
let rolling: ReturnType<typeof setInterval> | undefined;
const ROLL_MS = 130;
const ROLL_STEPS = [1, 1, -1, -1, -1, -1, 1, 1] as const;

/** Shows the drawing before or after for as long as a key is held. */
export function flip(by: 1 | -1): void {
  if (flippedFrom) return;
  const { frame, turn } = selection();
  flippedFrom = { frame, turn };
  setPlayback({ flipping: true });
  stepDrawing(by);
}

/** Rolls to and fro through two neighbours either side, for as long as a key is held. */
export function roll(): void {
  if (flippedFrom) return;
  const { frame, turn } = selection();
  flippedFrom = { frame, turn };
  setPlayback({ flipping: true });
  let step = 0;
  rolling = setInterval(() => {
    stepDrawing(ROLL_STEPS[step % ROLL_STEPS.length]!);
    step += 1;
  }, ROLL_MS);
}

/** Comes back to where flipping or rolling began. */
export function unflip(): void {
  clearInterval(rolling);
  if (flippedFrom) {
    setSelection(flippedFrom);
    setPlayback({ flipping: false });
  }
  flippedFrom = null;
}
