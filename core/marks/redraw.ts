/** Redrawing a part of a stroke: what is drawn over it takes the place of the stretch it follows. */
import type { Samples } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import { samplesAt, reversedSamples, strung } from './change.ts';

function nearest({ x, y }: Samples, to: Point): { index: number; far: number } {
  let [index, far] = [0, Infinity];
  for (let i = 0; i < x.length; i++) {
    const d = Math.hypot(x[i]! - to.x, y[i]! - to.y);
    if (d < far) [index, far] = [i, d];
  }
  return { index, far };
}

/**
 * A stroke with a part drawn anew, or null if the new line does not begin and end on it.
 * @param over what the pen drew. @param reach how near its ends must be, px.
 */
export function redrawn(samples: Samples, over: Samples, reach: number): Samples | null {
  const end = over.x.length - 1;
  const from = nearest(samples, { x: over.x[0]!, y: over.y[0]! });
  const to = nearest(samples, { x: over.x[end]!, y: over.y[end]! });
  if (from.far > reach || to.far > reach || from.index === to.index) return null;
  const [a, b] = [Math.min(from.index, to.index), Math.max(from.index, to.index)];
  const part = from.index < to.index ? over : reversedSamples(over);
  const range = (first: number, last: number) => Array.from({ length: Math.max(0, last - first) }, (_, i) => first + i);
  return strung([samplesAt(samples, range(0, a)), part, samplesAt(samples, range(b + 1, samples.x.length))]);
}
