/**
 * The way a subject goes from one drawing to the next, as coordinates that go with it: how far along the way a place lies, and
 * how far beside it. Moving a form along is adding to the first; squeezing it is scaling the second. Straight ways and arcs are
 * exact (a form moved along an arc is the form turned), drawn ways are followed with their own bends.
 */
import { partBetween, seek, walkOf, type Point, type Walk } from '../geometry/index.ts';

/** A place by the way: shares of the whole way past the middle where it arrives (-1 where it left), and px beside it. */
export interface BesideWay {
  readonly along: number;
  readonly across: number;
}

export interface Flow {
  /** px that the middle goes. */
  readonly length: number;
  /** Radians the way turns in all, clockwise. */
  readonly turn: number;
  readonly to: (point: Point) => BesideWay;
  readonly from: (along: number, across: number) => Point;
  /** What it turns about, for arcs. */
  readonly about: Point | null;
}

/** How much larger or smaller it is at a place on the way. */
const grownAt = (grows: number, along: number): number => (grows === 1 ? 1 : Math.pow(grows, along));

/** px below which nothing goes any way. */
const STILL = 1e-6;
/** Turns below this are straight ways, radians; no arc turns farther than the other. */
const [STRAIGHT, FARTHEST] = [0.02, 2.9] as const;

/**
 * The way between two places.
 * @param turn radians, clockwise, that what goes it turns by: 0 for straight.
 * @param grows how much larger it arrives than it left.
 */
export function flowBetween(left: Point, arrived: Point, turn = 0, grows = 1): Flow {
  const [dx, dy] = [arrived.x - left.x, arrived.y - left.y];
  const chord = Math.hypot(dx, dy);
  const angle = Math.min(FARTHEST, Math.max(-FARTHEST, turn));
  if (chord < STILL) return { ...straightFlow(arrived, STILL, 0, STILL, 1), length: 0 };
  if (Math.abs(angle) < STRAIGHT) return straightFlow(arrived, dx, dy, chord, grows);
  // The centre sees the chord under the angle; it lies on the side the way bends to.
  const off = 1 / (2 * Math.tan(angle / 2));
  const about = { x: (left.x + arrived.x) / 2 - dy * off, y: (left.y + arrived.y) / 2 + dx * off };
  return arcFlow(about, arrived, angle, grows);
}

function straightFlow(arrived: Point, dx: number, dy: number, chord: number, grows: number): Flow {
  const length = chord;
  const [ux, uy] = [dx / length, dy / length];
  return {
    length,
    turn: 0,
    about: null,
    to: ({ x, y }) => {
      const [px, py] = [x - arrived.x, y - arrived.y];
      const along = (px * ux + py * uy) / length;
      return { along, across: (py * ux - px * uy) / grownAt(grows, along) };
    },
    from: (along, across) => {
      const [run, side] = [along * length, across * grownAt(grows, along)];
      return { x: arrived.x + ux * run - uy * side, y: arrived.y + uy * run + ux * side };
    },
  };
}

function arcFlow(about: Point, arrived: Point, angle: number, grows: number): Flow {
  const radius = Math.hypot(arrived.x - about.x, arrived.y - about.y);
  const start = Math.atan2(arrived.y - about.y, arrived.x - about.x);
  // Beside the way to the right of it, as on straight ones: outwards where it turns to the left.
  const side = angle > 0 ? -1 : 1;
  return {
    length: radius * Math.abs(angle),
    turn: angle,
    about,
    to: ({ x, y }) => {
      const [px, py] = [x - about.x, y - about.y];
      let off = Math.atan2(py, px) - start;
      if (off > Math.PI) off -= 2 * Math.PI;
      if (off < -Math.PI) off += 2 * Math.PI;
      const along = off / angle;
      return { along, across: side * (Math.sqrt(px * px + py * py) / grownAt(grows, along) - radius) };
    },
    from: (along, across) => {
      const reach = (radius + side * across) * grownAt(grows, along);
      const at = start + along * angle;
      return { x: about.x + reach * Math.cos(at), y: about.y + reach * Math.sin(at) };
    },
  };
}

/** px from one point of a drawn way to the next. */
const STEP = 4;
/** Rounds in which the place beside a drawn way is found. */
const ROUNDS = 8;

/** Evenly spaced points of a way, smoothed: a normal that jumped would fold what lies beside it. */
function smoothWay(points: readonly Point[], left: Point, arrived: Point): Walk {
  const own = walkOf(points, false);
  const count = Math.max(8, Math.ceil(own.length / STEP));
  const [a, b] = [points[0]!, points.at(-1)!];
  let way = Array.from({ length: count + 1 }, (_, i) => {
    const { at, share } = seek(own, (own.length * i) / count);
    const [p, q] = [own.points[at]!, own.points[at + 1] ?? own.points[at]!];
    // It is taken to where the subject left and arrived, wherever it was drawn.
    const back = 1 - i / count;
    return {
      x: p.x + (q.x - p.x) * share + (left.x - a.x) * back + ((arrived.x - b.x) * i) / count,
      y: p.y + (q.y - p.y) * share + (left.y - a.y) * back + ((arrived.y - b.y) * i) / count,
    };
  });
  for (let round = 0; round < 6; round++)
    way = way.map((p, i) => {
      const [before, after] = [way[i - 1], way[i + 1]];
      return before && after ? { x: (before.x + 2 * p.x + after.x) / 4, y: (before.y + 2 * p.y + after.y) / 4 } : p;
    });
  return walkOf(way, false);
}

/** How close a line has to be to both ends of a way for the part between to be meant, shares of how far they are apart. */
const NEAR = 0.5;

/** What of a line is the way: a path often begins long before and goes on after; one drawn elsewhere is meant whole. */
function meantOf(points: readonly Point[], left: Point, arrived: Point): readonly Point[] {
  const part = partBetween(points, left, arrived).points;
  const near = NEAR * Math.hypot(arrived.x - left.x, arrived.y - left.y);
  const [a, b] = [part[0]!, part.at(-1)!];
  const fits = Math.hypot(a.x - left.x, a.y - left.y) < near && Math.hypot(b.x - arrived.x, b.y - arrived.y) < near;
  return fits && part.length > 1 ? part : points;
}

/**
 * A way that was drawn, or is a path's, fitted to both ends.
 * @param points element space, px, the way it runs; where it passes by both ends, only what lies between counts.
 */
export function flowAlong(points: readonly Point[], left: Point, arrived: Point, grows = 1): Flow {
  if (points.length < 2 || Math.hypot(arrived.x - left.x, arrived.y - left.y) < STILL)
    return flowBetween(left, arrived, 0, grows);
  const way = smoothWay(meantOf(points, left, arrived), left, arrived);
  const { length } = way;
  const count = way.points.length;
  const tangent = (i: number): Point => {
    const [p, q] = [way.points[Math.max(0, i - 1)]!, way.points[Math.min(count - 1, i + 1)]!];
    const size = Math.hypot(q.x - p.x, q.y - p.y) || 1;
    return { x: (q.x - p.x) / size, y: (q.y - p.y) / size };
  };
  const frame = (along: number): { at: Point; ux: number; uy: number } => {
    const run = (1 + along) * length;
    // Beyond its ends it goes on straight.
    if (run <= 0 || run >= length) {
      const end = run <= 0 ? 0 : count - 1;
      const u = tangent(end);
      const over = run <= 0 ? run : run - length;
      const p = way.points[end]!;
      return { at: { x: p.x + u.x * over, y: p.y + u.y * over }, ux: u.x, uy: u.y };
    }
    const { at, share } = seek(way, run);
    const [p, q] = [way.points[at]!, way.points[at + 1]!];
    const [u, v] = [tangent(at), tangent(at + 1)];
    const [tx, ty] = [u.x + (v.x - u.x) * share, u.y + (v.y - u.y) * share];
    const size = Math.hypot(tx, ty) || 1;
    return { at: { x: p.x + (q.x - p.x) * share, y: p.y + (q.y - p.y) * share }, ux: tx / size, uy: ty / size };
  };
  const from = (along: number, across: number): Point => {
    const { at, ux, uy } = frame(along);
    const side = across * grownAt(grows, along);
    return { x: at.x - uy * side, y: at.y + ux * side };
  };
  const to = ({ x, y }: Point): BesideWay => {
    let along = 0;
    let min = Infinity;
    for (let i = 0; i <= count + 1; i++) {
      // Places before and past the way are looked for from its ends.
      const run = i === count ? -0.5 : i === count + 1 ? 1.5 : way.passed[i]! / length;
      const p = from(run - 1, 0);
      const far = Math.hypot(x - p.x, y - p.y);
      if (far < min) [min, along] = [far, run - 1];
    }
    for (let round = 0; round < ROUNDS; round++) {
      const { at, ux, uy } = frame(along);
      along += ((x - at.x) * ux + (y - at.y) * uy) / length;
    }
    const { at, ux, uy } = frame(along);
    return { along, across: ((y - at.y) * ux - (x - at.x) * uy) / grownAt(grows, along) };
  };
  const [first, last] = [tangent(0), tangent(count - 1)];
  const turn = Math.atan2(first.x * last.y - first.y * last.x, first.x * last.x + first.y * last.y);
  return { length, turn, about: null, to, from };
}
