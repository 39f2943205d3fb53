/** Polylines walked by arc length. */
import type { Point } from './matrix.ts';

/** Places at which the part of a line may begin and end. */
const PLACES = 400;

/** A polyline walked by arc length. */
export interface Walk {
  readonly points: readonly Point[];
  /** Length passed at each point, px. */
  readonly passed: Float64Array;
  readonly length: number;
}

/** @param closed whether the last point leads back to the first; it is then not repeated. */
export function walkOf(points: readonly Point[], closed: boolean): Walk {
  const all = closed && points.length > 1 ? [...points, points[0]!] : points;
  const passed = new Float64Array(all.length);
  for (let i = 1; i < all.length; i++) {
    const [dx, dy] = [all[i]!.x - all[i - 1]!.x, all[i]!.y - all[i - 1]!.y];
    passed[i] = passed[i - 1]! + Math.sqrt(dx * dx + dy * dy);
  }
  return { points: all, passed, length: passed.at(-1) ?? 0 };
}

/** The index of the piece a length falls into, and how far into it, 0 to 1. */
export function seek({ passed }: Walk, length: number): { at: number; share: number } {
  let [low, high] = [0, passed.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (passed[middle]! <= length) low = middle;
    else high = middle;
  }
  const step = (passed[high] ?? 0) - (passed[low] ?? 0);
  return { at: low, share: step > 0 ? Math.min(1, Math.max(0, (length - passed[low]!) / step)) : 0 };
}

/** Points at even lengths along a walk; on a closed one from a share on, the start not repeated. */
export function evenPoints(walk: Walk, count: number, closed: boolean, from = 0, backwards = false): Point[] {
  return Array.from({ length: count }, (_, i) => {
    const part = closed ? i / count : count > 1 ? i / (count - 1) : 0;
    const along = backwards ? from - part : from + part;
    const share = closed ? along - Math.floor(along) : backwards ? 1 - part : part;
    const { at, share: into } = seek(walk, share * walk.length);
    const [a, b] = [walk.points[at]!, walk.points[at + 1] ?? walk.points[at]!];
    return { x: a.x + (b.x - a.x) * into, y: a.y + (b.y - a.y) * into };
  });
}

/** The part of an open line from the place nearest to one point to the place after that which is nearest to another. */
export function partBetween(line: readonly Point[], from: Point, to: Point): Walk {
  const all = evenPoints(walkOf(line, false), PLACES, false);
  const nearest = ({ x, y }: Point, after: number): number => {
    let [best, min] = [after, Infinity];
    for (let i = after; i < all.length; i++) {
      const far = (all[i]!.x - x) ** 2 + (all[i]!.y - y) ** 2;
      if (far < min) [best, min] = [i, far];
    }
    return best;
  };
  const begins = nearest(from, 0);
  return walkOf(all.slice(begins, Math.max(begins, nearest(to, begins)) + 1), false);
}
