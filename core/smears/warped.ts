/** Marks bent by a warp that may stretch them many times: cut fine enough for their edges to follow it to a fraction of a px. */
import type { Mark, Ring, Samples } from '../document/index.ts';
import { mix, type Point } from '../geometry/index.ts';

/** How points go, and how many times longer what lies along may become. */
export interface Bending {
  readonly map: (point: Point) => Point;
  readonly longer: number;
}

/** px from one place of a warped outline to the next, about, before it is drawn out. */
const FINE = 14;
/** Pieces one piece is cut into at most, and samples of a stroke at most. */
const [MOST_PARTS, MOST_SAMPLES] = [24, 2400] as const;
/** px by which the direction of a handle is felt. */
const FELT = 0.05;

/** Where a handle goes: the warp's own direction there. */
function directed(map: Bending['map'], at: Point, placed: Point, dx: number, dy: number): Point {
  const size = Math.hypot(dx, dy);
  if (size < 1e-9) return placed;
  const tiny = Math.min(FELT, size) / size;
  const felt = map({ x: at.x + dx * tiny, y: at.y + dy * tiny });
  return { x: placed.x + (felt.x - placed.x) / tiny, y: placed.y + (felt.y - placed.y) / tiny };
}

/** A ring, warped: each piece cut finer (de Casteljau), its ends placed and its handles directed. */
export function warpedRing(ring: Ring, { map, longer }: Bending): Ring {
  const count = ring.length / 6;
  const numbers: number[] = [];
  let into: Point | null = null;
  let firstAt = -1;
  for (let i = 0; i < count; i++) {
    const [a, b] = [i * 6, ((i + 1) % count) * 6];
    const xs = [ring[a]!, ring[a + 4]!, ring[b + 2]!, ring[b]!] as const;
    const ys = [ring[a + 1]!, ring[a + 5]!, ring[b + 3]!, ring[b + 1]!] as const;
    const rough =
      Math.hypot(xs[1] - xs[0], ys[1] - ys[0]) +
      Math.hypot(xs[2] - xs[1], ys[2] - ys[1]) +
      Math.hypot(xs[3] - xs[2], ys[3] - ys[2]);
    const parts = Math.min(MOST_PARTS, Math.max(1, Math.ceil((rough * Math.sqrt(longer)) / FINE)));
    let end: Point | null = null;
    for (let k = 0; k < parts; k++) {
      const [t, u] = [k / parts, (k + 1) / parts];
      const [from, to] = [pointAt(xs, ys, t), pointAt(xs, ys, u)];
      const [out, back] = [slopeAt(xs, ys, t), slopeAt(xs, ys, u)];
      const start: Point = end ?? map(from);
      end = map(to);
      const leaving = directed(map, from, start, out.x / parts / 3, out.y / parts / 3);
      const coming = directed(map, to, end, -back.x / parts / 3, -back.y / parts / 3);
      if (firstAt < 0) firstAt = numbers.length;
      numbers.push(start.x, start.y, into?.x ?? start.x, into?.y ?? start.y, leaving.x, leaving.y);
      into = coming;
    }
  }
  if (into && firstAt >= 0) [numbers[firstAt + 2], numbers[firstAt + 3]] = [into.x, into.y];
  return Float32Array.from(numbers);
}

type Four = readonly [number, number, number, number];

function pointAt(xs: Four, ys: Four, t: number): Point {
  const s = 1 - t;
  const [a, b, c, d] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return { x: a * xs[0] + b * xs[1] + c * xs[2] + d * xs[3], y: a * ys[0] + b * ys[1] + c * ys[2] + d * ys[3] };
}

function slopeAt(xs: Four, ys: Four, t: number): Point {
  const s = 1 - t;
  const [a, b, c] = [3 * s * s, 6 * s * t, 3 * t * t];
  return {
    x: a * (xs[1] - xs[0]) + b * (xs[2] - xs[1]) + c * (xs[3] - xs[2]),
    y: a * (ys[1] - ys[0]) + b * (ys[2] - ys[1]) + c * (ys[3] - ys[2]),
  };
}

/** Samples, warped; where they are drawn apart others come between, on the curve through them (Catmull-Rom). */
export function warpedSamples(samples: Samples, { map, longer }: Bending): Samples {
  const { x, y, pressure, altitude, azimuth } = samples;
  const count = x.length;
  const every: number[] = [];
  const finest = Math.max(1, Math.floor(MOST_SAMPLES / Math.max(1, count)));
  for (let i = 0; i < count; i++) {
    every.push(i);
    if (i + 1 === count) break;
    const gap = Math.hypot(x[i + 1]! - x[i]!, y[i + 1]! - y[i]!) * longer;
    const parts = Math.min(finest, Math.max(1, Math.ceil(gap / FINE)));
    for (let k = 1; k < parts; k++) every.push(i + k / parts);
  }
  const column = (of: Float32Array) => (at: number) => {
    const i = Math.floor(at);
    return i === at ? of[i]! : mix(of[i]!, of[i + 1]!, at - i);
  };
  const curve = (of: Float32Array) => (at: number) => {
    const i = Math.floor(at);
    if (i === at) return of[i]!;
    const t = at - i;
    const [p, q, r, s] = [of[Math.max(0, i - 1)]!, of[i]!, of[i + 1]!, of[Math.min(count - 1, i + 2)]!];
    return 0.5 * (2 * q + (r - p) * t + (2 * p - 5 * q + 4 * r - s) * t * t + (3 * q - p - 3 * r + s) * t * t * t);
  };
  const [atX, atY] = [curve(x), curve(y)];
  const placed = every.map((at) => map({ x: atX(at), y: atY(at) }));
  return {
    x: Float32Array.from(placed, (p) => p.x),
    y: Float32Array.from(placed, (p) => p.y),
    pressure: Float32Array.from(every, column(pressure)),
    altitude: Float32Array.from(every, column(altitude)),
    azimuth: Float32Array.from(every, column(azimuth)),
  };
}

/** A mark, warped. @param thin what its line's width becomes, of what it is. */
export function warpedMark(mark: Mark, bending: Bending, thin = 1): Mark {
  if (mark.kind === 'shape') return { ...mark, rings: mark.rings.map((ring) => warpedRing(ring, bending)) };
  const brush = thin === 1 ? mark.brush : { ...mark.brush, width: mark.brush.width * thin };
  return { ...mark, brush, samples: warpedSamples(mark.samples, bending) };
}
