/** Pulling at points of marks: what is near follows, softly or to a spike. */
import type { Id, Mark, Samples } from '../document/index.ts';
import { keptPoints, type Point, gently } from '../geometry/index.ts';
import { withColumns } from './change.ts';

/** A point of a mark: a sample of a stroke, or a node of one of a shape's rings. */
export interface ControlPoint extends Point {
  readonly markId: Id;
  readonly ring: number;
  readonly index: number;
}

/** Soft falls off round, a spike ends in a point. */
export type Fall = 'soft' | 'spike';

export interface Reach {
  /** px around each point. */
  readonly radius: number;
  readonly fall: Fall;
  /** Whether only the same line follows, by the way along it; else whatever is near. */
  readonly alongOnly: boolean;
}

/** How much of a pull reaches a place: 1 where it is taken, 0 at the radius and beyond, never rising between. */
export function fallOff(distance: number, radius: number, fall: Fall): number {
  if (radius <= 0) return distance === 0 ? 1 : 0;
  const left = Math.max(0, 1 - distance / radius);
  if (fall === 'spike') return left * left * left;
  return gently(left);
}

/** Every sample or node of a mark. */
export const everyControlPoint = (mark: Mark): ControlPoint[] =>
  linesOf(mark).flatMap(({ ring, points }) => points.map((p, index) => ({ markId: mark.id, ring, index, ...p })));

/** The samples or nodes of a mark that matter: its lines thinned within a tolerance, px. */
export function controlPointsOf(mark: Mark, tolerance: number): ControlPoint[] {
  return linesOf(mark).flatMap(({ ring, points, closed }) => {
    const round = mark.kind === 'shape' && closed ? [...points, points[0]!] : points;
    const kept = keptPoints(
      round.map((p) => p.x),
      round.map((p) => p.y),
      tolerance,
    );
    return kept
      .filter((index) => index < points.length)
      .map((index) => ({ markId: mark.id, ring, index, ...points[index]! }));
  });
}

/** How far each point of a line is from one of them along it, px; round a closed one the shorter way. */
function waysAlong(points: readonly Point[], from: number, closed: boolean): Float64Array {
  const steps = points.map((p, i) => {
    const q = points[(i + 1) % points.length]!;
    return Math.hypot(q.x - p.x, q.y - p.y);
  });
  const ways = new Float64Array(points.length);
  for (let i = from + 1; i < points.length; i++) ways[i] = ways[i - 1]! + steps[i - 1]!;
  for (let i = from - 1; i >= 0; i--) ways[i] = ways[i + 1]! + steps[i]!;
  if (!closed) return ways;
  const round = steps.reduce((sum, step) => sum + step, 0);
  return ways.map((way) => Math.min(way, round - way));
}

interface Line {
  readonly ring: number;
  readonly points: readonly Point[];
  readonly closed: boolean;
}

const linesOf = (mark: Mark): Line[] =>
  mark.kind === 'shape'
    ? mark.rings.map((ring, r) => ({
        ring: r,
        points: Array.from({ length: ring.length / 6 }, (_, i) => ({ x: ring[i * 6]!, y: ring[i * 6 + 1]! })),
        closed: true,
      }))
    : [
        {
          ring: 0,
          points: Array.from(mark.samples.x, (x, i) => ({ x, y: mark.samples.y[i]! })),
          closed:
            mark.samples.x.length > 2 &&
            mark.samples.x[0] === mark.samples.x.at(-1) &&
            mark.samples.y[0] === mark.samples.y.at(-1),
        },
      ];

/** How much each point of a mark's lines follows when some points of some marks are taken. */
export function weightsOf(
  mark: Mark,
  controlPoints: readonly ControlPoint[],
  { radius, fall, alongOnly }: Reach,
): Float64Array[] {
  return linesOf(mark).map(({ ring, points, closed }) => {
    const weights = new Float64Array(points.length);
    const raise = (i: number, weight: number) => {
      if (weight > weights[i]!) weights[i] = weight;
    };
    for (const controlPoint of controlPoints) {
      const own = controlPoint.markId === mark.id && controlPoint.ring === ring;
      if (alongOnly && !own) continue;
      const ways = alongOnly ? waysAlong(points, controlPoint.index, closed) : null;
      points.forEach((p, i) => {
        raise(i, fallOff(ways ? ways[i]! : Math.hypot(p.x - controlPoint.x, p.y - controlPoint.y), radius, fall));
      });
      if (own) raise(controlPoint.index, 1);
    }
    // A line that ends where it began stays closed.
    if (closed && mark.kind !== 'shape')
      weights[0] = weights[points.length - 1] = Math.max(weights[0]!, weights.at(-1)!);
    return weights;
  });
}

/** A mark whose points are moved by their weights. @param by px of element space. */
export function pulled(mark: Mark, weights: readonly Float64Array[], by: Point): Mark {
  if (weights.every((each) => each.every((w) => w === 0))) return mark;
  if (mark.kind === 'shape') {
    const rings = mark.rings.map((ring, r) => {
      const next = ring.slice();
      for (let i = 0; i < ring.length; i++)
        next[i] = ring[i]! + weights[r]![Math.floor(i / 6)]! * (i % 2 === 0 ? by.x : by.y);
      return next;
    });
    return { ...mark, rings };
  }
  const w = weights[0]!;
  const x = mark.samples.x.map((v, i) => v + w[i]! * by.x);
  const y = mark.samples.y.map((v, i) => v + w[i]! * by.y);
  return { ...mark, samples: withColumns(mark.samples, { x, y }) };
}

/** A stroke evened out where it has weight: each point goes towards the middle of its neighbours. */
export function smoothed(mark: Mark, weights: readonly Float64Array[]): Mark {
  if (mark.kind === 'shape') return mark;
  const { x, y } = mark.samples;
  const even = (column: Float32Array): Float32Array =>
    column.map((v, i) =>
      i === 0 || i === column.length - 1 ? v : v + 0.5 * weights[0]![i]! * ((column[i - 1]! + column[i + 1]!) / 2 - v),
    );
  return { ...mark, samples: withColumns(mark.samples, { x: even(x), y: even(y) }) };
}

/** A stroke pressed harder or lighter where it has weight. @param factor above 1 widens, below 1 thins. */
export function widened(mark: Mark, weights: readonly Float64Array[], factor: number): Mark {
  if (mark.kind === 'shape') return mark;
  const pressure = mark.samples.pressure.map((p, i) =>
    Math.min(1, Math.max(0, p * (1 + (factor - 1) * weights[0]![i]!))),
  );
  // A line of one width can only be widened in part by its pressure.
  return { ...mark, brush: { ...mark.brush, pressure: true }, samples: withColumns(mark.samples, { pressure }) };
}

/** Weights that are 1 all over, for doing something to whole marks. */
export const allOf = (mark: Mark): Float64Array[] =>
  linesOf(mark).map(({ points }) => new Float64Array(points.length).fill(1));

/** Samples of a stroke without one that matters: the stretch round it goes straight to its neighbours that matter. */
export function withoutControlPoint(samples: Samples, index: number, tolerance: number): number[] {
  const kept = keptPoints(samples.x, samples.y, tolerance);
  const at = kept.indexOf(index);
  const [from, to] = [kept[at - 1] ?? index - 1, kept[at + 1] ?? index + 1];
  return Array.from(samples.x.keys()).filter((i) => i <= from || i >= to);
}
