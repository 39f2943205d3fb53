/** Which points of a polyline matter. */
import { nearestFraction } from './polygons.ts';

/** What thinning keeps whatever it costs, and how many points it keeps at most. */
interface Keeping {
  /** Indices that stay, rising: the first and the last are among them. */
  readonly always?: readonly number[];
  readonly limit?: number;
}

/**
 * Indices of the points that stay when a polyline is thinned within a tolerance: first and last always. Where only so
 * many may stay, those farthest from the line that is left go in first.
 * Method: D. Douglas and T. Peucker, "Algorithms for the reduction of the number of points", 1973.
 * @param tolerance px any dropped point may lie from the line that is left.
 */
export function keptPoints(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  tolerance: number,
  { always = [0, x.length - 1], limit = Infinity }: Keeping = {},
): number[] {
  const last = x.length - 1;
  if (last < 1) return last === 0 ? [0] : [];
  const worst = (from: number, to: number) => {
    const [ax, ay] = [x[from]!, y[from]!];
    const [dx, dy] = [x[to]! - ax, y[to]! - ay];
    let [off, at] = [0, -1];
    for (let i = from + 1; i < to; i++) {
      const [px, py] = [x[i]! - ax, y[i]! - ay];
      const t = nearestFraction(px, py, dx, dy);
      const [ox, oy] = [px - t * dx, py - t * dy];
      if (ox * ox + oy * oy > off) [off, at] = [ox * ox + oy * oy, i];
    }
    return { from, to, off, at };
  };
  const kept = new Set(always);
  const spans = always.slice(1).map((to, i) => worst(always[i]!, to));
  while (kept.size < limit) {
    // Without a limit all that is too far off goes in, in whatever order.
    if (limit < Infinity) spans.sort((a, b) => a.off - b.off);
    const span = spans.pop();
    if (!span) break;
    if (span.at < 0 || span.off <= tolerance * tolerance) continue;
    kept.add(span.at);
    spans.push(worst(span.from, span.at), worst(span.at, span.to));
  }
  return [...kept].sort((a, b) => a - b);
}
