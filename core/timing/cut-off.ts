/** What of an element lies beyond the end of what it is seen in: its slot, or the shot. */
import type { Element } from '../document/index.ts';
import { momentOn, seenFrames, type InTime } from './placed.ts';

export interface CutOff {
  /** Frames of the turn, or of the whole, that are still shown; 0 when nothing of it is. */
  readonly shown: number;
  /** Frames of it all. */
  readonly of: number;
  readonly by: 'slot' | 'shot';
}

/**
 * How the end of its slot or of the shot cuts the last turn of a cycle that begins in it, or an element that does not go
 * round; null when it cuts nothing.
 * @param length the element's, frames. @param outerLength of the shot, or of the element it lies in.
 */
export function cutOff(
  placement: InTime,
  element: Pick<Element, 'time'>,
  length: number,
  outerLength: number,
): CutOff | null {
  const room = outerLength - placement.start;
  const whole = seenFrames({ ...placement, lasts: null }, element, length);
  if (room <= 0) return { shown: 0, of: element.time === 'cycle' ? length : whole, by: 'shot' };
  const slot = placement.lasts ?? Infinity;
  const shown = Math.min(room, slot);
  if (whole <= shown) return null;
  const by = slot < room ? 'slot' : 'shot';
  if (element.time !== 'cycle') return { shown, of: whole, by };
  const last = momentOn(placement, element, length, placement.start + shown - 1)!;
  return last.frame + 1 < length ? { shown: last.frame + 1, of: length, by } : null;
}

/** Said to the user. */
export function cutOffText({ shown, of, by }: CutOff, cycle: boolean): string {
  if (shown === 0) return 'begins after the end of the shot';
  const end = by === 'slot' ? 'the end of its slot' : 'the end of the shot';
  return `${cycle ? 'last turn cut off' : 'cut off'} by ${end}, ${shown} of ${of} frames`;
}
