/** Pairs of colours for what comes before and after, all light enough to stand on dark. */
import { distance } from './contrast.ts';

export interface ColourPair {
  readonly before: string;
  readonly after: string;
}

/** The pairs to choose from; the first is the usual one. */
export const COLOUR_PAIRS: readonly ColourPair[] = [
  { before: '#3fc7b4', after: '#a48cff' },
  { before: '#6bd15f', after: '#f08be0' },
  { before: '#57b4ff', after: '#f2d64b' },
  { before: '#ff9d8a', after: '#7fd8ff' },
  { before: '#e3a0ff', after: '#b7e04a' },
];

/** The pair whose nearer colour is farthest from all of some colours; the usual one when there are none. */
export function farthestPair(colours: readonly string[], pairs: readonly ColourPair[] = COLOUR_PAIRS): ColourPair {
  const apart = ({ before, after }: ColourPair) =>
    Math.min(...colours.flatMap((colour) => [distance(colour, before), distance(colour, after)]));
  return pairs.reduce((best, pair) => (apart(pair) > apart(best) ? pair : best));
}
