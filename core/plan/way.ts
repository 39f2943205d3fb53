/** Paths as ways: walked by arc length, smoothed from what was drawn, joined and taken apart. */
import type { Path } from '../document/index.ts';
import { fitLine, nearestFraction, ringPoints, seek, walkOf, type Point } from '../geometry/index.ts';

/** A place on a way, with the direction it goes there as a unit vector. */
export interface Spot extends Point {
  readonly dx: number;
  readonly dy: number;
}

/** A way that can be walked by arc length. */
export interface MeasuredPath {
  /** px. */
  readonly length: number;
  /** The place after a share of the length, 0 to 1; on a closed way it wraps. */
  readonly at: (share: number) => Spot;
  /** The share of the length nearest to a point. */
  readonly nearest: (point: Point) => number;
  /** Points along it, dense enough to draw it. */
  readonly points: readonly Point[];
}

/** Straight pieces per curve piece when a way is walked. */
const PIECES = 24;

/** The way of some nodes (as in a ring, open unless `closed`). */
export function wayOf({ nodes, closed }: Pick<Path, 'nodes' | 'closed'>): MeasuredPath {
  const round = ringPoints(nodes, PIECES);
  const count = nodes.length / 6;
  // A ring's last piece leads back to its start; an open way ends at its last node.
  const points = closed ? [...round, round[0]!] : round.slice(0, (count - 1) * PIECES + 1);
  const walk = walkOf(points, false);
  const { passed, length } = walk;
  const at = (share: number): Spot => {
    const inside = closed && (share < 0 || share > 1) ? share - Math.floor(share) : Math.min(1, Math.max(0, share));
    const { at: low, share: t } = seek(walk, inside * length);
    const [a, b] = [points[low]!, points[low + 1] ?? points[low]!];
    const step = (passed[low + 1] ?? 0) - passed[low]!;
    const [dx, dy] = step > 0 ? [(b.x - a.x) / step, (b.y - a.y) / step] : [1, 0];
    return { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t, dx, dy };
  };
  const nearest = (point: Point): number => {
    let [best, found] = [Infinity, 0];
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const t = nearestFraction(point.x - a.x, point.y - a.y, dx, dy);
      const [ox, oy] = [point.x - a.x - dx * t, point.y - a.y - dy * t];
      const off = ox * ox + oy * oy;
      if (off < best) [best, found] = [off, passed[i - 1]! + (passed[i]! - passed[i - 1]!) * t];
    }
    return length === 0 ? 0 : found / length;
  };
  return { length, at, nearest, points };
}

/** px by which a smoothed way may leave what was drawn. */
const SMOOTHING = 6;
/** Ends of a drawn way that meet within this many px close it. */
const MEET = 14;

const dropRepeats = (points: readonly Point[]): Point[] =>
  points.filter((p, i) => i === 0 || p.x !== points[i - 1]!.x || p.y !== points[i - 1]!.y);

/**
 * A smooth way through what was drawn by hand.
 * @param tolerance px it may leave it by; larger is simpler.
 * @returns null for less than two different points.
 */
export function smoothedWay(
  drawn: readonly Point[],
  tolerance: number = SMOOTHING,
): Pick<Path, 'nodes' | 'closed'> | null {
  const points = dropRepeats(drawn);
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 2) return null;
  const gap = Math.sqrt((first.x - last.x) ** 2 + (first.y - last.y) ** 2);
  const long = points.reduce(
    (sum, p, i) => (i === 0 ? 0 : sum + Math.sqrt((p.x - points[i - 1]!.x) ** 2 + (p.y - points[i - 1]!.y) ** 2)),
    0,
  );
  const closed = points.length > 4 && gap < MEET && long > 6 * MEET;
  const pairs = (closed ? [...points.slice(0, -1), first] : points).map((p): [number, number] => [p.x, p.y]);
  const line = fitLine(pairs, tolerance);
  if (!closed) return { nodes: line, closed };
  // The last node repeats the first: its handle in belongs to the first.
  const nodes = line.slice(0, -6);
  nodes[2] = line[line.length - 4]!;
  nodes[3] = line[line.length - 3]!;
  return { nodes, closed };
}

/** A smooth way through points set one by one: each handle runs along its neighbours (Catmull-Rom). */
export function wayThrough(points: readonly Point[], closed: boolean): Float32Array {
  const count = points.length;
  const nodes = new Float32Array(count * 6);
  points.forEach((p, i) => {
    const before = points[i - 1] ?? (closed ? points[count - 1]! : p);
    const after = points[i + 1] ?? (closed ? points[0]! : p);
    const [tx, ty] = [(after.x - before.x) / 6, (after.y - before.y) / 6];
    nodes.set([p.x, p.y, p.x - tx, p.y - ty, p.x + tx, p.y + ty], i * 6);
  });
  return nodes;
}

/** The nodes' own places. */
export const nodePoints = (nodes: Float32Array): Point[] =>
  Array.from({ length: nodes.length / 6 }, (_, i) => ({ x: nodes[i * 6]!, y: nodes[i * 6 + 1]! }));

/** The way with one node moved, its handles going with it. */
export function moveNode(nodes: Float32Array, index: number, to: Point): Float32Array {
  const moved = nodes.slice();
  const [dx, dy] = [to.x - nodes[index * 6]!, to.y - nodes[index * 6 + 1]!];
  for (let k = 0; k < 6; k += 2) {
    moved[index * 6 + k] = nodes[index * 6 + k]! + dx;
    moved[index * 6 + k + 1] = nodes[index * 6 + k + 1]! + dy;
  }
  return moved;
}

/** The whole way moved, px. */
export const moveWay = (nodes: Float32Array, dx: number, dy: number): Float32Array =>
  nodes.map((v, i) => v + (i % 2 === 0 ? dx : dy));

const turned = (nodes: Float32Array): Float32Array => {
  const count = nodes.length / 6;
  const back = new Float32Array(nodes.length);
  for (let i = 0; i < count; i++) {
    const from = (count - 1 - i) * 6;
    back.set(
      [nodes[from]!, nodes[from + 1]!, nodes[from + 4]!, nodes[from + 5]!, nodes[from + 2]!, nodes[from + 3]!],
      i * 6,
    );
  }
  return back;
};

/** Two open ways as one, joined at their nearest ends, the first keeping its direction. */
export function joinWays(first: Float32Array, second: Float32Array): Float32Array {
  const ends = (nodes: Float32Array) => {
    const points = nodePoints(nodes);
    return [points[0]!, points.at(-1)!] as const;
  };
  const [a0, a1] = ends(first);
  const [b0, b1] = ends(second);
  const off = (p: Point, q: Point) => (p.x - q.x) ** 2 + (p.y - q.y) ** 2;
  const after = Math.min(off(a1, b0), off(a1, b1)) <= Math.min(off(a0, b0), off(a0, b1));
  const meeting = after ? a1 : a0;
  const startsThere = off(meeting, b0) <= off(meeting, b1);
  const other = startsThere === after ? second : turned(second);
  const [lead, rest] = after ? [first, other] : [other, first];
  const joined = new Float32Array(lead.length + rest.length - 6);
  joined.set(lead);
  // The node they meet in keeps the place of the leading way and the way out of the other.
  const at = lead.length - 6;
  const [dx, dy] = [lead[at]! - rest[0]!, lead[at + 1]! - rest[1]!];
  joined[at + 4] = rest[4]! + dx;
  joined[at + 5] = rest[5]! + dy;
  joined.set(rest.subarray(6), lead.length);
  return joined;
}

/** A way cut at the node nearest to a share of its length: an open one in two, a closed one opened there. */
export function cutWay({ nodes, closed }: Pick<Path, 'nodes' | 'closed'>, index: number): Float32Array[] {
  const count = nodes.length / 6;
  if (closed) {
    const opened = new Float32Array(nodes.length + 6);
    opened.set(nodes.subarray(index * 6));
    opened.set(nodes.subarray(0, index * 6), (count - index) * 6);
    opened.set(nodes.subarray(index * 6, index * 6 + 6), nodes.length);
    return [opened];
  }
  return [nodes.slice(0, (index + 1) * 6), nodes.slice(index * 6)].filter((part) => part.length >= 12);
}

/** The way without one node, if two are left. */
export function dropNode(nodes: Float32Array, index: number): Float32Array {
  if (nodes.length <= 12) return nodes;
  const fewer = new Float32Array(nodes.length - 6);
  fewer.set(nodes.subarray(0, index * 6));
  fewer.set(nodes.subarray(index * 6 + 6), index * 6);
  return fewer;
}

/** The same way with fewer nodes: fitted anew within a tolerance, px. */
export function simplified(path: Pick<Path, 'nodes' | 'closed'>, tolerance: number): Pick<Path, 'nodes' | 'closed'> {
  const way = wayOf(path);
  const steps = Math.max(16, Math.min(400, Math.round(way.length / 6)));
  const walked = Array.from({ length: steps + 1 }, (_, i) => way.at(i / steps));
  const fitted = smoothedWay(walked, tolerance);
  if (fitted?.closed !== path.closed || fitted.nodes.length >= path.nodes.length) return path;
  return fitted;
}
