/** The playhead on the whole shot, in place of the active element's own time: while it is assembled, and while all of it plays. */
import { standing } from '@tallow/core/assembly';
import { shotOf } from '@tallow/core/document';
import { modulo } from '@tallow/core/geometry';
import { create } from 'zustand';
import { playback } from './playback.ts';
import { current, shotFrameOf } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { atOpening } from '../shot/opening.ts';
import { useDocument } from '../shot/document.ts';

interface ShotTime {
  /** Whether the playhead is on the shot. */
  readonly on: boolean;
  /** Frame of the shot, while it is. */
  readonly frame: number;
}

const FRESH: ShotTime = { on: false, frame: 0 };
export const useShotTime = create<ShotTime>(() => FRESH);
export const shotTime = useShotTime.getState;

atOpening(() => {
  useShotTime.setState(FRESH);
});

/** The frame of the shot the playhead is on, in whichever time it is counted. */
export function shotFrameNow(): number {
  const { on, frame } = shotTime();
  const now = current();
  return on || !now ? frame : shotFrameOf(now, selection().frame, selection().turn);
}

/** Goes to a frame of the shot, past its ends round and round. The active element's own playhead goes along where it is seen. */
export function goToShotFrame(frame: number): void {
  const { doc } = useDocument.getState();
  if (!doc) return;
  const at = modulo(Math.round(frame), shotOf(doc).length);
  useShotTime.setState({ frame: at });
  const now = current();
  const here = now && now.path.length > 0 ? standing(doc, now.path, at) : null;
  if (here && shotFrameOf(now!, here.moment.frame, here.moment.turn) <= at)
    setSelection({ frame: here.moment.frame, turn: Math.max(0, Math.min(now!.turns - 1, here.moment.turn)) });
}

/** Puts the playhead on the shot, where it is. */
export function beginShotTime(): void {
  if (!shotTime().on) useShotTime.setState({ on: true, frame: shotFrameNow() });
}

/** Puts the playhead back on the active element's own time. */
export const endShotTime = (): void => {
  useShotTime.setState({ on: false });
};

/** Whether all of the shot is what would be played: where the playhead is on the shot, unless it is said otherwise. */
export const playsShot = (): boolean => playback().playsShot ?? shotTime().on;
