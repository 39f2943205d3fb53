/** Closed curves on the way from one to another: both get nodes at the same shares of their length. */
import type { Ring } from '../document/index.ts';
import { ringBox, type Point, type Walk, doubleAreaOf, seek } from '../geometry/index.ts';
import { matchingStart, type Going } from './lines.ts';
import { middleOf, ringWalk } from './outline.ts';

/** Straight pieces per curve piece of a walked ring, as `ringWalk` makes them. */
const piecesOf = (ring: Ring, walk: Walk): number => (walk.points.length - 1) / (ring.length / 6);

/** A ring run the other way round. */
function reversedRing(ring: Ring): Ring {
  const nodes = Array.from({ length: ring.length / 6 }, (_, i) => {
    const [x, y, inX, inY, outX, outY] = ring.subarray(i * 6, i * 6 + 6);
    return [x!, y!, outX!, outY!, inX!, inY!];
  });
  return Float32Array.from(nodes.reverse().flat());
}

/** Shares of a ring's length at which its nodes lie, from a share on, rising from 0. */
function nodeShares(ring: Ring, walk: Walk, from: number): number[] {
  const pieces = piecesOf(ring, walk);
  return Array.from({ length: ring.length / 6 }, (_, i) => {
    const share = walk.passed[i * pieces]! / walk.length - from;
    return share - Math.floor(share);
  }).sort((a, b) => a - b);
}

/** A cubic's part between two of its parameters, by blossoming. */
function part(p: readonly number[], from: number, to: number): number[] {
  const blossom = (r: number, s: number, t: number, axis: 0 | 1): number => {
    const mixed = (a: number, b: number, u: number) => a + (b - a) * u;
    const [p0, p1, p2, p3] = [p[axis]!, p[2 + axis]!, p[4 + axis]!, p[6 + axis]!];
    const [a, b, c] = [mixed(p0, p1, r), mixed(p1, p2, r), mixed(p2, p3, r)];
    return mixed(mixed(a, b, s), mixed(b, c, s), t);
  };
  return [
    [from, from, from],
    [from, from, to],
    [from, to, to],
    [to, to, to],
  ].flatMap(([r, s, t]) => [blossom(r!, s!, t!, 0), blossom(r!, s!, t!, 1)]);
}

/** Nearer than this to a piece's end, in its parameter, a cut is that end. */
const END = 1e-3;

/** A ring with nodes at shares of its length from a share on; the curve stays what it is. */
function withNodesAt(ring: Ring, walk: Walk, from: number, shares: readonly number[]): Ring {
  const count = ring.length / 6;
  const pieces = piecesOf(ring, walk);
  const spots = shares.map((share) => {
    const along = from + share;
    const { at, share: into } = seek(walk, (along - Math.floor(along)) * walk.length);
    const place = (at + into) / pieces;
    const near = Math.round(place);
    return Math.abs(place - near) < END ? near % count : place % count;
  });
  const made = new Float32Array(shares.length * 6);
  spots.forEach((spot, i) => {
    const next = (i + 1) % spots.length;
    const piece = Math.floor(spot);
    const to = spots[next]! > piece && spots[next]! <= piece + 1 ? spots[next]! - piece : 1;
    const [a, b] = [piece * 6, ((piece + 1) % count) * 6];
    const curve = [
      ring[a]!,
      ring[a + 1]!,
      ring[a + 4]!,
      ring[a + 5]!,
      ring[b + 2]!,
      ring[b + 3]!,
      ring[b]!,
      ring[b + 1]!,
    ];
    const [x, y, outX, outY, inX, inY] = part(curve, spot - piece, to);
    made.set([x!, y!], i * 6);
    made.set([outX!, outY!], i * 6 + 4);
    made.set([inX!, inY!], next * 6 + 2);
  });
  return made;
}

/** Nodes of two rings that lie nearer than this on the way round are one. */
const TOGETHER = 0.012;

/**
 * The ring on the way from one to another. Both are walked by length from matched starts, and get a node
 * where either has one.
 */
export function betweenRings(a: Ring, b: Ring, going: Going): Ring {
  const wa = ringWalk(a);
  const turned = doubleAreaOf(wa.points) * doubleAreaOf(ringWalk(b).points) < 0 ? reversedRing(b) : b;
  const wb = ringWalk(turned);
  const { from } = matchingStart(wa, wb, true, false);
  const own = nodeShares(a, wa, 0);
  const other = nodeShares(turned, wb, from);
  const left = new Set(other);
  const pairs = own.map((share): [number, number] => {
    const near = other.find((each) => left.has(each) && Math.abs(each - share) < TOGETHER);
    if (near !== undefined) left.delete(near);
    return [share, near ?? share];
  });
  for (const share of left) pairs.push([share, share]);
  pairs.sort((p, q) => p[0] - q[0] || p[1] - q[1]);
  const one = withNodesAt(
    a,
    wa,
    0,
    pairs.map(([share]) => share),
  );
  const two = withNodesAt(
    turned,
    wb,
    from,
    pairs.map(([, share]) => share),
  );
  const points = going(pointsOf(one), pointsOf(two));
  return Float32Array.from(points.flatMap(({ x, y }) => [x, y]));
}

/** Nodes and handles of a ring as points. */
const pointsOf = (ring: Ring): Point[] =>
  Array.from({ length: ring.length / 2 }, (_, i) => ({ x: ring[i * 2]!, y: ring[i * 2 + 1]! }));

/** A ring scaled about its own middle. */
export function scaledRing(ring: Ring, by: number, about: Point = middleOf(ringWalk(ring).points)): Ring {
  return ring.map((value, i) => {
    const centre = i % 2 === 0 ? about.x : about.y;
    return centre + (value - centre) * by;
  });
}

/** Rings of two shapes in pairs: the largest with the largest, holes with the nearest hole; null for one left over. */
export function ringPairs(a: readonly Ring[], b: readonly Ring[]): [Ring | null, Ring | null][] {
  const size = (ring: Ring) => Math.abs(doubleAreaOf(ringWalk(ring).points));
  const bySize = (rings: readonly Ring[]) => [...rings].sort((p, q) => size(q) - size(p));
  const [one, other] = [bySize(a), bySize(b)];
  const pairs: [Ring | null, Ring | null][] = [[one.shift() ?? null, other.shift() ?? null]];
  const middle = (ring: Ring): Point => {
    const box = ringBox(ring);
    return { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 };
  };
  for (const ring of one) {
    const at = middle(ring);
    const way = (each: Ring) => Math.hypot(middle(each).x - at.x, middle(each).y - at.y);
    const near = other.reduce<Ring | null>((best, each) => (!best || way(each) < way(best) ? each : best), null);
    if (near) other.splice(other.indexOf(near), 1);
    pairs.push([ring, near]);
  }
  return [...pairs, ...other.map((ring): [null, Ring] => [null, ring])];
}
