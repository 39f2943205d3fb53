/**
 * Spacing: where on a path something is on each tick. Two things are multiplied: how time eases
 * (gently at the start, gently at the end), and what slows it on the way (slow places, distance).
 */
import type { Path } from '../document/index.ts';
import { clamp, gently } from '../geometry/index.ts';

type Eased = Pick<Path, 'softStart' | 'softEnd'>;
type Slowed = Pick<Path, 'slows' | 'perspective'> & { standIn: Pick<Path['standIn'], 'sizeStart' | 'sizeEnd'> };
/** What of a path decides its spacing. */
type Spaced = Eased & Slowed & Pick<Path, 'ticks' | 'placed' | 'closed'>;

/** What is left of the speed in a slow place that stops: ticks coincide to the eye, yet keep their order. */
const STOPPED = 0.002;
/** What is left where no stop is asked for. */
const SLOWEST = 0.04;

/**
 * How far an eased time has come. The curve is the cubic Bézier (0,0) (softStart,0) (1-softEnd,1) (1,1),
 * as in the timing functions of CSS Easing Level 1; it never turns back for any softness in [0, 1].
 * @param time 0 to 1. @returns 0 to 1.
 */
export function easeOf({ softStart, softEnd }: Eased, time: number): number {
  if (time <= 0) return 0;
  if (time >= 1) return 1;
  const [x1, x2] = [softStart, 1 - softEnd];
  const x = (t: number) => t * (3 * (1 - t) * (1 - t) * x1 + t * (3 * (1 - t) * x2 + t));
  let [low, high] = [0, 1];
  // Bisection: + - * / alone, so every engine finds the same place.
  for (let i = 0; i < 48; i++) {
    const middle = (low + high) / 2;
    if (x(middle) < time) low = middle;
    else high = middle;
  }
  const t = (low + high) / 2;
  return gently(t);
}

/** The share of full speed on a place of the way, above 0. @param share of the way, 0 to 1. */
function paceAt({ slows, perspective, standIn }: Slowed, share: number): number {
  let pace = 1;
  for (const { at, width, amount } of slows) {
    const off = Math.abs(share - at) / width;
    if (off >= 1) continue;
    const bell = (1 - off * off) * (1 - off * off);
    pace *= Math.max(amount >= 1 ? STOPPED : SLOWEST, 1 - amount * bell);
  }
  if (perspective) {
    const [start, end] = [standIn.sizeStart, standIn.sizeEnd];
    pace *= (start + (end - start) * share) / Math.max(start, end);
  }
  return pace;
}

/** Samples of the way on which the pace is summed. */
const SUMMED = 512;

/** The way made of place against time at full ease: monotonic, 0 to 1. */
function placeAfter(path: Slowed): (passed: number) => number {
  if (path.slows.length === 0 && !path.perspective) return (passed) => passed;
  const sums = [0];
  for (let i = 0; i < SUMMED; i++) sums.push(sums[i]! + 1 / paceAt(path, (i + 0.5) / SUMMED));
  const all = sums.at(-1)!;
  return (passed) => {
    const want = passed * all;
    let [low, high] = [0, SUMMED];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (sums[middle]! <= want) low = middle;
      else high = middle;
    }
    const step = sums[high]! - sums[low]!;
    return clamp((low + (step === 0 ? 0 : (want - sums[low]!) / step)) / SUMMED, 0, 1);
  };
}

/** Share of time of a tick: the last tick of an open way is at its end, that of a closed one leads back to its first. */
const timeOf = ({ ticks, closed }: Pick<Path, 'ticks' | 'closed'>, index: number): number =>
  index / (closed ? ticks : ticks - 1);

/** The ticks of even spacing, shares of the way. */
export const flatTicks = (path: Pick<Path, 'ticks' | 'closed'>): number[] =>
  Array.from({ length: path.ticks }, (_, i) => timeOf(path, i));

/** The ticks as the ease and the slow places lay them, shares of the way, never turning back. */
export function easedTicks(path: Spaced): number[] {
  const place = placeAfter(path);
  return Array.from({ length: path.ticks }, (_, i) => place(easeOf(path, timeOf(path, i))));
}

/**
 * The ticks of a path: shares of the way, 0 to 1, never turning back. Those the user has moved stay where they
 * were put; the others keep to their side of them.
 */
export function ticksOf(path: Spaced): number[] {
  const eased = easedTicks(path);
  const put = Object.entries(path.placed)
    .map(([index, share]) => [Number(index), share] as const)
    .filter(([index]) => index < path.ticks)
    .sort((a, b) => a[0] - b[0]);
  if (put.length === 0) return eased;
  // By hand, too, order holds: a tick put before an earlier one counts as on it.
  let min = 0;
  const kept = new Map(put.map(([index, share]): [number, number] => [index, (min = Math.max(min, share))]));
  const after = (index: number) => put.find(([i]) => i > index)?.[0];
  let floor = 0;
  return eased.map((share, index) => {
    const own = kept.get(index);
    const next = after(index);
    floor = own ?? clamp(share, floor, Math.max(floor, next === undefined ? 1 : kept.get(next)!));
    return floor;
  });
}

/** A tick the user has moved: between its neighbours, so that the order is kept. Ends of an open way stay at its ends. */
export function placeTick(path: Spaced, index: number, share: number): Path['placed'] {
  const ticks = ticksOf(path);
  const min = ticks[index - 1] ?? 0;
  const max = ticks[index + 1] ?? 1;
  return { ...path.placed, [String(index)]: clamp(share, min, max) };
}

/** What a row of ticks measures. Lengths in px. */
export interface SpacingFacts {
  readonly steps: readonly number[];
  readonly largest: number;
  readonly smallest: number;
  /** Index of the step that is largest: from that tick to the next. */
  readonly largestAt: number;
  /** The largest step in shares of the stand-in's size there. */
  readonly inSizes: number;
  /** The first step over which stand-ins no longer overlap, or null. */
  readonly partAt: number | null;
}

/**
 * Numbers that help to judge spacing.
 * @param sizes of the stand-in along the way at each tick, px.
 */
export function spacingFacts(ticks: readonly number[], length: number, sizes: readonly number[]): SpacingFacts {
  const steps = ticks.slice(1).map((share, i) => (share - ticks[i]!) * length);
  let largestAt = 0;
  steps.forEach((step, i) => {
    if (step > steps[largestAt]!) largestAt = i;
  });
  const between = (i: number) => (sizes[i]! + sizes[i + 1]!) / 2;
  const parted = steps.findIndex((step, i) => step > between(i));
  return {
    steps,
    largest: steps[largestAt] ?? 0,
    smallest: Math.min(...steps),
    largestAt,
    inSizes: steps.length === 0 ? 0 : steps[largestAt]! / between(largestAt),
    partAt: parted < 0 ? null : parted,
  };
}
