/** What of an element lies beyond the end of its shot. */
import type { Element, Placement } from '../document/index.ts';

export interface CutOff {
  /** Frames of the turn, or of the whole, that are still shown; 0 when nothing of it is. */
  readonly shown: number;
  /** Frames of it all. */
  readonly of: number;
}

/**
 * How the shot's end cuts the last turn of a cycle that begins in it, or an element that does not go round; null when it
 * cuts nothing.
 */
export function cutOff(
  placement: Placement,
  element: Pick<Element, 'time'>,
  length: number,
  shotLength: number,
): CutOff | null {
  const room = shotLength - placement.start;
  if (room <= 0) return { shown: 0, of: length };
  if (element.time !== 'cycle') return room < length ? { shown: room, of: length } : null;
  const turns = Math.ceil(room / length);
  if (placement.repeats !== null && placement.repeats < turns) return null;
  const last = room - (turns - 1) * length;
  return last < length ? { shown: last, of: length } : null;
}

/** Said to the user. */
export function cutOffText({ shown, of }: CutOff, cycle: boolean): string {
  if (shown === 0) return 'begins after the end of the shot';
  return cycle
    ? `last turn cut off by the end of the shot, ${shown} of ${of} frames`
    : `cut off by the end of the shot, ${shown} of ${of} frames`;
}
