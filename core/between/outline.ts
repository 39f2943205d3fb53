/** Marks seen as evenly spaced points, for comparing them and for walking both alike. */
import type { Mark, Ring } from '../document/index.ts';
import { doubleAreaOf, ringPoints, walkOf, type Point, type Walk, evenPoints } from '../geometry/index.ts';

/** Straight pieces per piece of a ring. */
const PIECES = 8;

export const ringWalk = (ring: Ring): Walk => walkOf(ringPoints(ring, PIECES), true);

/** The line of a stroke. */
export const strokePoints = ({ samples }: Exclude<Mark, { kind: 'shape' }>): Point[] =>
  Array.from(samples.x, (x, i) => ({ x, y: samples.y[i]! }));

/** The mean of points. */
export function middleOf(points: readonly Point[]): Point {
  let [x, y] = [0, 0];
  for (const p of points) {
    x += p.x;
    y += p.y;
  }
  const count = Math.max(1, points.length);
  return { x: x / count, y: y / count };
}

/** The middle of the area within points; of those that enclose next to nothing, their mean. */
function centreOf(points: readonly Point[]): Point {
  let [x, y, area] = [0, 0, 0];
  const from = points[0] ?? { x: 0, y: 0 };
  for (let i = 1; i + 1 < points.length; i++) {
    const [p, q] = [points[i]!, points[i + 1]!];
    const [ax, ay, bx, by] = [p.x - from.x, p.y - from.y, q.x - from.x, q.y - from.y];
    const twice = ax * by - bx * ay;
    area += twice;
    x += (twice * (ax + bx)) / 3;
    y += (twice * (ay + by)) / 3;
  }
  return Math.abs(area) < 1 ? middleOf(points) : { x: from.x + x / area, y: from.y + y / area };
}

/** Where a mark is and how large: its middle, its reach (mean way from the middle, px) and its length or girth, px. */
export interface MarkExtent {
  readonly middle: Point;
  readonly reach: number;
  readonly length: number;
  /** px²; 0 for strokes. */
  readonly area: number;
}

const bodies = new WeakMap<Mark, MarkExtent>();

/** Points looked at of each line. */
const LOOKED = 24;

/** The body of a mark. Marks never change, so it is worked out once. */
export function bodyOf(mark: Mark): MarkExtent {
  const kept = bodies.get(mark);
  if (kept) return kept;
  const isShape = mark.kind === 'shape';
  const walks = isShape ? mark.rings.map(ringWalk) : [walkOf(strokePoints(mark), false)];
  const outer = walks.reduce((max, walk) => (walk.length > max.length ? walk : max));
  const even = evenPoints(outer, LOOKED, isShape);
  // Of areas the middle of what they cover: that of their outline would follow every ruffle of it.
  const middle = isShape ? centreOf(outer.points) : middleOf(even);
  const reach = even.reduce((sum, p) => sum + Math.hypot(p.x - middle.x, p.y - middle.y), 0) / even.length;
  const area = isShape ? Math.abs(walks.reduce((sum, walk) => sum + doubleAreaOf(walk.points), 0)) / 2 : 0;
  const body = { middle, reach: Math.max(reach, 0.5), length: Math.max(outer.length, 1), area };
  bodies.set(mark, body);
  return body;
}
