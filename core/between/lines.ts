/** Strokes on the way from one to another: walked by arc length from matched starts. */
import type { BrushSettings, RubOut, Samples, Stroke } from '../document/index.ts';
import { mix, type Point, evenPoints, type Walk, walkOf, seek } from '../geometry/index.ts';
import { isClosed } from '../marks/index.ts';
import { crestsAlong } from './crests.ts';
import { strokePoints } from './outline.ts';

export type LineMark = Stroke | RubOut;

/** Where points are on the way: takes those of the first and of the second and gives those between. */
export type Going = (from: readonly Point[], to: readonly Point[]) => Point[];

const MUCH_BETTER = 0.5;
/** Points compared to find matching starts. */
const COMPARED = { round: 24, open: 6 };

const centred = (points: readonly Point[]): Point[] => {
  const x = points.reduce((sum, p) => sum + p.x, 0) / points.length;
  const y = points.reduce((sum, p) => sum + p.y, 0) / points.length;
  return points.map((p) => ({ x: p.x - x, y: p.y - y }));
};

const offBy = (a: readonly Point[], b: readonly Point[]): number =>
  a.reduce((sum, p, i) => sum + (p.x - b[i]!.x) ** 2 + (p.y - b[i]!.y) ** 2, 0);

/** How the second of two lines is walked so that it goes with the first. */
export interface Start {
  /** Share of its length at which a closed one begins. */
  readonly from: number;
  readonly backwards: boolean;
}

/** The start and direction in which a line goes best with another, both about their own middles. */
export function matchingStart(a: Walk, b: Walk, closed: boolean, mayTurn: boolean): Start {
  const count = closed ? COMPARED.round : COMPARED.open;
  const own = centred(evenPoints(a, count, closed));
  const scale = b.length > 0 ? a.length / b.length : 1;
  const tries = closed ? Array.from({ length: count }, (_, i) => i / count) : [0];
  let best: Start = { from: 0, backwards: false };
  let min = Infinity;
  // A line drawn the other way round is rare: it must fit far better before it is taken for one.
  for (const backwards of mayTurn ? [false, true] : [false])
    for (const from of tries) {
      const other = centred(evenPoints(b, count, closed, from, backwards));
      const fit = offBy(
        own,
        other.map((p) => ({ x: p.x * scale, y: p.y * scale })),
      );
      const off = backwards ? fit / MUCH_BETTER : fit;
      if (off < min) [best, min] = [{ from, backwards }, off];
    }
  return best;
}

/** The shortest way from one angle to another, radians. */
const turned = (from: number, to: number, share: number): number => {
  if (from === to) return from;
  const way = Math.atan2(Math.sin(to - from), Math.cos(to - from));
  const angle = from + way * share;
  return angle < 0 ? angle + 2 * Math.PI : angle % (2 * Math.PI);
};

/** The brush on the way from one to another. */
function betweenBrushes(a: BrushSettings, b: BrushSettings, share: number): BrushSettings {
  const near = share < 0.5 ? a : b;
  const flow = mix(a.flow ?? 1, b.flow ?? 1, share);
  const [ta, tb] = [a.taper ?? [0, 0], b.taper ?? [0, 0]];
  const tilt = mix(a.tilt ?? 0, b.tilt ?? 0, share);
  return {
    kind: near.kind,
    pressure: near.pressure,
    width: mix(a.width, b.width, share),
    opacity: mix(a.opacity, b.opacity, share),
    ...(flow < 1 ? { flow } : {}),
    ...(a.taper || b.taper ? { taper: [mix(ta[0], tb[0], share), mix(ta[1], tb[1], share)] as const } : {}),
    ...(tilt > 0 ? { tilt } : {}),
  };
}

/** A turn sharper than this (as the cosine) is a corner that must not be passed over. */
const CORNER = 0.93;

/** Shares of a walk's length at its points; at its corners only, if so wanted. */
function sharesOf({ points, passed, length }: Walk, corners: boolean): number[] {
  const shares = Array.from(passed, (each) => (length > 0 ? each / length : 0));
  if (!corners) return shares;
  return shares.filter((_, i) => {
    const [p, q, r] = [points[i - 1], points[i]!, points[i + 1]];
    if (!p || !r) return true;
    const [ax, ay, bx, by] = [q.x - p.x, q.y - p.y, r.x - q.x, r.y - q.y];
    const long = Math.sqrt((ax * ax + ay * ay) * (bx * bx + by * by));
    return long > 0 && (ax * bx + ay * by) / long < CORNER;
  });
}

/** Where both lines are walked: at the samples of the one that has more, and at the corners of the other. */
function walkedShares(a: Walk, b: Walk, onA: (share: number) => number): number[] {
  const denser = a.points.length >= b.points.length;
  const [base, more] = denser
    ? [sharesOf(a, false), sharesOf(b, true).map(onA)]
    : [sharesOf(b, false).map(onA), sharesOf(a, true)];
  const all = [0, ...base, ...more, 1].sort((p, q) => p - q).filter((each, i, sorted) => each !== sorted[i - 1]);
  return a.points.length === 1 && b.points.length === 1 ? [0] : all;
}

/**
 * The line on the way from one to another, 0 to 1. Pressure, tilt, width and opacity go along.
 * @param runs whether crests run along an open line; else places at equal shares of the length belong together.
 */
export function betweenLines<L extends LineMark>(a: L, b: L, share: number, going: Going, runs = false): L {
  const closed = Math.min(a.samples.x.length, b.samples.x.length) > 8 && isClosed(a.samples) && isClosed(b.samples);
  const [wa, wb] = [walkOf(strokePoints(a), false), walkOf(strokePoints(b), false)];
  const start = matchingStart(wa, wb, closed, true);
  const onOther = (each: number): number => {
    if (!closed) return start.backwards ? 1 - each : each;
    const along = start.backwards ? start.from - each : start.from + each;
    // A closed line ends where it begins: its last sample is its first again.
    return along - Math.floor(along);
  };
  const onOwn = (each: number): number => {
    if (!closed) return start.backwards ? 1 - each : each;
    const along = start.backwards ? start.from - each : each - start.from;
    return along - Math.floor(along);
  };
  const alongCrests = runs && !closed && wa.points.length > 2 && wb.points.length > 2;
  const crests = alongCrests ? crestsAlong(wa, wb, start.backwards) : (each: number) => each;
  const shares = walkedShares(wa, wb, onOwn);
  const others = shares.map((each) => onOther(crests(each)));
  const [sa, sb] = [shares.map((each) => seek(wa, each * wa.length)), others.map((each) => seek(wb, each * wb.length))];
  const pointsAt = ({ points }: Walk, spots: typeof sa): Point[] =>
    spots.map(({ at, share: into }) => {
      const [p, q] = [points[at]!, points[at + 1] ?? points[at]!];
      return { x: p.x + (q.x - p.x) * into, y: p.y + (q.y - p.y) * into };
    });
  const points = going(pointsAt(wa, sa), pointsAt(wb, sb));
  const valueAt = (column: Float32Array, { at, share: into }: (typeof sa)[number], how: typeof mix): number =>
    how(column[at]!, column[Math.min(at + 1, column.length - 1)]!, into);
  const column = (name: 'pressure' | 'altitude' | 'azimuth', how: typeof mix): Float32Array => {
    const [one, other] = [a.samples[name], b.samples[name]];
    return Float32Array.from(sa, (spot, k) => how(valueAt(one, spot, how), valueAt(other, sb[k]!, how), share));
  };
  const samples: Samples = {
    x: Float32Array.from(points, (p) => p.x),
    y: Float32Array.from(points, (p) => p.y),
    pressure: column('pressure', mix),
    altitude: column('altitude', mix),
    azimuth: column('azimuth', turned),
  };
  return { ...(share < 0.5 ? a : b), seed: a.seed, samples, brush: betweenBrushes(a.brush, b.brush, share) };
}
