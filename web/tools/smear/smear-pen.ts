/** The pen of smears: pulls from where the thing was to where it is. */
import { apply, scaleOf, type Matrix, type Point } from '@tallow/core/geometry';
import { create } from 'zustand';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { laySmearHere, relay, smearNow } from '../../smears/smear.ts';

/** CSS px below which a pull is a slip. */
const SLIP = 14;

/** The line as it is pulled, in the active layer's space. */
export const usePull = create<{ line: readonly Point[] }>(() => ({ line: [] }));

const asLine = (points: readonly Point[]): Float32Array => Float32Array.from(points.flatMap(({ x, y }) => [x, y]));

/** A line of at most so many points. */
const thinned = (points: readonly Point[], max: number): Point[] => {
  const every = Math.max(1, Math.ceil(points.length / max));
  return points.filter((_, i) => i % every === 0 || i === points.length - 1);
};

/** Begins where the pen lands. @param inward CSS px of the canvas to the active layer's space. */
export function beginPull(inward: Matrix, first: PenSample): PenDoing {
  const slip = SLIP * scaleOf(inward);
  const points: Point[] = [apply(inward, first)];
  return {
    move: (samples) => {
      points.push(...samples.map((sample) => apply(inward, sample)));
      usePull.setState({ line: [...points] });
    },
    up: () => {
      usePull.setState({ line: [] });
      const [from, to] = [points[0]!, points.at(-1)!];
      if (Math.hypot(to.x - from.x, to.y - from.y) < slip) return true;
      const line = asLine(thinned(points, 200));
      const [laid] = smearNow().laid;
      if (laid) relay(laid.id, { way: 'line', line, bend: 0 }, 'way of the smear');
      else void laySmearHere({ line });
      return true;
    },
    drop: () => {
      usePull.setState({ line: [] });
    },
  };
}
