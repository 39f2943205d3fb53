/** Repeats of different lengths in one element: which divide it, and when all meet again. */
import type { Element, ShotDocument } from '../document/index.ts';
import { elementLength, timedLayers, type TimedLayer } from './element.ts';

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));

/** The shortest length in which each of some lengths fits a whole number of times. @param lengths whole, at least 1. */
export const meetingLength = (lengths: readonly number[]): number =>
  lengths.reduce((whole, length) => (whole / divisor(whole, length)) * length, 1);

interface OwnRepeat {
  readonly timed: TimedLayer;
  readonly period: number;
  /** Whether it is whole at the end of the element's turn. */
  readonly divides: boolean;
}

export interface Meeting {
  readonly turn: number;
  readonly repeats: readonly OwnRepeat[];
  /** Frames after which the element and all repeats begin together again. */
  readonly meets: number;
}

/** The repeats of their own inside an element. Still layers have none to speak of. */
export function meetingOf(doc: ShotDocument, element: Element): Meeting {
  const turn = elementLength(doc, element);
  const repeats = timedLayers(doc, element).flatMap((timed): OwnRepeat[] => {
    const { period } = timed.list;
    return period !== null && period > 1 ? [{ timed, period, divides: turn % period === 0 }] : [];
  });
  return { turn, repeats, meets: meetingLength([turn, ...repeats.map(({ period }) => period)]) };
}
