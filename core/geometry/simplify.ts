/** Which points of a polyline matter. */

/**
 * Indices of the points that stay when a polyline is thinned within a tolerance: first and last always.
 * Method: D. Douglas and T. Peucker, "Algorithms for the reduction of the number of points", 1973.
 * @param tolerance px any dropped point may lie from the line that is left.
 */
export function keptPoints(x: ArrayLike<number>, y: ArrayLike<number>, tolerance: number): number[] {
  const last = x.length - 1;
  if (last < 1) return last === 0 ? [0] : [];
  const keeps = new Uint8Array(last + 1);
  keeps[0] = keeps[last] = 1;
  const spans: [number, number][] = [[0, last]];
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [from, to] = span;
    const [ax, ay] = [x[from]!, y[from]!];
    const [dx, dy] = [x[to]! - ax, y[to]! - ay];
    const squared = dx * dx + dy * dy;
    let [worst, at] = [tolerance * tolerance, -1];
    for (let i = from + 1; i < to; i++) {
      const [px, py] = [x[i]! - ax, y[i]! - ay];
      const t = squared === 0 ? 0 : Math.min(1, Math.max(0, (px * dx + py * dy) / squared));
      const [ox, oy] = [px - t * dx, py - t * dy];
      if (ox * ox + oy * oy > worst) [worst, at] = [ox * ox + oy * oy, i];
    }
    if (at < 0) continue;
    keeps[at] = 1;
    spans.push([from, at], [at, to]);
  }
  return Array.from(keeps.keys()).filter((i) => keeps[i] === 1);
}
