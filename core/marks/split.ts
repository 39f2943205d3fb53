/** Cutting strokes, and joining them. */
import { along, arcPoints, pieceAt } from '../brush/index.ts';
import type { RubOut, Samples, Stroke } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import { samplesAt, reversedSamples, strung } from './change.ts';
import { isInside } from '../geometry/index.ts';

type Line = Stroke | RubOut;

/** A sample on the stroke's curve between two others. @param at index of a sample and a share of the way to the next. */
function sampleAt(samples: Samples, at: number): Samples {
  const i = Math.min(samples.x.length - 2, Math.floor(at));
  const t = at - i;
  const piece = pieceAt(samples, i);
  const between = (column: Float32Array) => Float32Array.of((1 - t) * column[i]! + t * column[i + 1]!);
  return {
    x: Float32Array.of(along(piece.x, t)),
    y: Float32Array.of(along(piece.y, t)),
    pressure: between(samples.pressure),
    altitude: between(samples.altitude),
    azimuth: between(samples.azimuth),
  };
}

/** The stretch of a stroke's samples between two places on it. */
function stretch(samples: Samples, from: number, to: number): Samples {
  const inner: number[] = [];
  for (let i = Math.floor(from) + 1; i < to; i++) inner.push(i);
  return strung([sampleAt(samples, from), samplesAt(samples, inner), sampleAt(samples, to)]);
}

/**
 * The parts of a stroke's samples between cuts, in order; together they hold every sample.
 * @param cuts places as an index of a sample and a share of the way to the next, rising.
 */
export function splitSamples(samples: Samples, cuts: readonly number[]): Samples[] {
  const last = samples.x.length - 1;
  const ends = [0, ...cuts.filter((at) => at > 0 && at < last), last];
  return ends.length === 2 ? [samples] : ends.slice(1).map((to, k) => stretch(samples, ends[k]!, to));
}

/** Where a stroke crosses a closed polyline, as cuts. */
function crossings({ x, y }: Samples, polygon: readonly Point[]): number[] {
  const cuts: number[] = [];
  for (let i = 0; i + 1 < x.length; i++) {
    const here: number[] = [];
    const [ax, ay, dx, dy] = [x[i]!, y[i]!, x[i + 1]! - x[i]!, y[i + 1]! - y[i]!];
    polygon.forEach((p, k) => {
      const q = polygon[(k + 1) % polygon.length]!;
      const [ex, ey] = [q.x - p.x, q.y - p.y];
      const cross = dx * ey - dy * ex;
      if (cross === 0) return;
      const t = ((p.x - ax) * ey - (p.y - ay) * ex) / cross;
      const u = ((p.x - ax) * dy - (p.y - ay) * dx) / cross;
      if (t >= 0 && t < 1 && u >= 0 && u < 1) here.push(i + t);
    });
    cuts.push(...here.sort((a, b) => a - b));
  }
  return cuts;
}

/** A stroke cut where a closed polyline crosses it: the parts within and those without. */
export function splitByPolygon(samples: Samples, polygon: readonly Point[]): { within: Samples[]; without: Samples[] } {
  const parts = splitSamples(samples, crossings(samples, polygon));
  const middle = (part: Samples): Point => {
    const { x, y } = sampleAt(part, (part.x.length - 1) / 2);
    return { x: x[0]!, y: y[0]! };
  };
  const within = parts.filter((part) =>
    part.x.length > 1 ? isInside(polygon, middle(part)) : isInside(polygon, { x: part.x[0]!, y: part.y[0]! }),
  );
  return { within, without: parts.filter((part) => !within.includes(part)) };
}

const endOf = ({ x, y }: Samples, last: boolean): Point => {
  const i = last ? x.length - 1 : 0;
  return { x: x[i]!, y: y[i]! };
};
const gap = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

/** How open ends are led together. */
export type Joining = 'straight' | 'arc';

/** How far an arc that joins ends bulges beside the straight way, as a share of it. */
const BULGE = 0.28;

/** Samples between the end of one stroke and the start of the next. */
function bridge(from: Samples, to: Samples, how: Joining): Samples {
  const [a, c] = [endOf(from, true), endOf(to, false)];
  const last = from.x.length - 1;
  const held = (t: number, name: 'pressure' | 'altitude' | 'azimuth') => (1 - t) * from[name][last]! + t * to[name][0]!;
  const points = how === 'straight' ? [a, a, c, c] : bulging(from, a, c);
  // The ends are there already; a straight way has them twice, which keeps their corners.
  const inner = how === 'straight' ? points.slice(1, 3) : points.slice(1, -1);
  const share = (i: number) => (i + 1) / (inner.length + 1);
  return {
    x: Float32Array.from(inner, (p) => p.x),
    y: Float32Array.from(inner, (p) => p.y),
    pressure: Float32Array.from(inner, (_, i) => held(share(i), 'pressure')),
    altitude: Float32Array.from(inner, (_, i) => held(share(i), 'altitude')),
    azimuth: Float32Array.from(inner, (_, i) => held(share(i), 'azimuth')),
  };
}

/** An arc between two ends, to the side the first stroke was going. */
function bulging(from: Samples, a: Point, c: Point): Point[] {
  const back = Math.max(0, from.x.length - 4);
  const [hx, hy] = [a.x - from.x[back]!, a.y - from.y[back]!];
  const [dx, dy] = [c.x - a.x, c.y - a.y];
  const side = dx * hy - dy * hx >= 0 ? 1 : -1;
  const middle = { x: (a.x + c.x) / 2 - side * dy * BULGE, y: (a.y + c.y) / 2 + side * dx * BULGE };
  return arcPoints(a, middle, c);
}

/** Two strokes as one, led together at their nearest ends; it keeps the first one's brush, seed and swatch. */
export function joined<L extends Line>(a: L, b: Line, how: Joining): L {
  const ways = [false, true].flatMap((turnA) => [false, true].map((turnB) => ({ turnA, turnB })));
  const meet = ({ turnA, turnB }: { turnA: boolean; turnB: boolean }) =>
    gap(endOf(a.samples, !turnA), endOf(b.samples, turnB));
  const { turnA, turnB } = ways.reduce((best, way) => (meet(way) < meet(best) ? way : best));
  const first = turnA ? reversedSamples(a.samples) : a.samples;
  const second = turnB ? reversedSamples(b.samples) : b.samples;
  return { ...a, samples: strung([first, bridge(first, second, how), second]) };
}

/** A stroke whose ends are led together. */
export function closedUp<L extends Line>(stroke: L, how: Joining): L {
  const { samples } = stroke;
  if (isClosed(samples) || samples.x.length < 3) return stroke;
  return { ...stroke, samples: strung([samples, bridge(samples, samples, how), samplesAt(samples, [0])]) };
}

/** Whether a stroke ends on the very place where it began. */
export const isClosed = ({ x, y }: Samples): boolean =>
  x.length > 2 && x[0] === x[x.length - 1] && y[0] === y[y.length - 1];

/** A closed stroke opened at its seam: its last piece is gone. */
export function openedUp<L extends Line>(stroke: L): L {
  const { x, y } = stroke.samples;
  if (!isClosed(stroke.samples)) return stroke;
  let count = x.length;
  while (count > 2 && x[count - 1] === x[0] && y[count - 1] === y[0]) count -= 1;
  return { ...stroke, samples: samplesAt(stroke.samples, [...Array(count).keys()]) };
}
