/** A line beside a line. */
import { distanceToSegment } from '../geometry/index.ts';
import type { Samples } from '../document/index.ts';
import { samplesAt, withColumns } from './change.ts';

/**
 * Samples that run beside a stroke's at one distance. Where the inside of a bend has no room for it, it is left out.
 * @param distance px to the right of the way the stroke goes (y down), below 0 to the left.
 */
export function parallelSamples(samples: Samples, distance: number): Samples {
  const { x, y } = samples;
  const last = x.length - 1;
  if (last < 1 || distance === 0) return samples;
  const [px, py] = [new Float32Array(last + 1), new Float32Array(last + 1)];
  for (let i = 0; i <= last; i++) {
    // Across points that repeat, the way goes from the nearest that differ.
    let [a, b] = [Math.max(0, i - 1), Math.min(last, i + 1)];
    while (a > 0 && x[a] === x[b] && y[a] === y[b]) a -= 1;
    while (b < last && x[a] === x[b] && y[a] === y[b]) b += 1;
    const [dx, dy] = [x[b]! - x[a]!, y[b]! - y[a]!];
    const length = Math.hypot(dx, dy) || 1;
    px[i] = x[i]! - (dy / length) * distance;
    py[i] = y[i]! + (dx / length) * distance;
  }
  const room = Math.abs(distance) * 0.98 - 1e-3;
  const keeps = Array.from(px.keys()).filter((i) => {
    const at = { x: px[i]!, y: py[i]! };
    for (let k = 0; k < last; k++)
      if (distanceToSegment(at, { x: x[k]!, y: y[k]! }, { x: x[k + 1]!, y: y[k + 1]! }) < room) return false;
    return true;
  });
  const beside = withColumns(samples, { x: px, y: py });
  return keeps.length < 2 ? beside : samplesAt(beside, keeps);
}
