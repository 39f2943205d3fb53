import { gently } from './numbers.ts';
/**
 * Sines made of + - * and floor alone. Engines differ in the last bit of their own sine; where a count of
 * points may hang on it, that is a difference between the page and the server.
 */

const { floor, max, min } = Math;

/**
 * The sine of a share of a turn: `sineTurn(0.25)` is 1. Within 2e-9 of the true sine, and exactly periodic
 * for shares that differ by whole turns exactly.
 * Method: Taylor's series to the 13th power on a quarter turn, folded by symmetry.
 */
export function sineTurn(turn: number): number {
  const part = turn - floor(turn);
  const half = part >= 0.5 ? part - 0.5 : part;
  const quarter = half > 0.25 ? 0.5 - half : half;
  const x = quarter * 6.283185307179586;
  const s = x * x;
  const sine = x * (1 - (s / 6) * (1 - (s / 20) * (1 - (s / 42) * (1 - (s / 72) * (1 - (s / 110) * (1 - s / 156))))));
  return part >= 0.5 ? -sine : sine;
}

/** The cosine of a share of a turn. */
export const cosineTurn = (turn: number): number => sineTurn(turn + 0.25);

/** From 0 at `from` to 1 at `to`, gently at both ends; constant beyond them. */
export function smoothStep(from: number, to: number, value: number): number {
  return gently(min(1, max(0, (value - from) / (to - from))));
}

export const mix = (from: number, to: number, share: number): number => from + (to - from) * share;

export const clamp = (value: number, lowest: number, highest: number): number => min(highest, max(lowest, value));
