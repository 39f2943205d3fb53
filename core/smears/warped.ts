/** Marks bent by a warp that may stretch them many times: cut fine enough for their edges to follow it to a fraction of a px. */
import type { Mark, Ring, Samples } from '../document/index.ts';
import { mix, type Point } from '../geometry/index.ts';

/** How points go. */
export interface Bending {
  readonly map: (point: Point) => Point;
}

/** px from one place of a warped outline to the next, about, and from one sample of a line to the next. */
const [FINE, SAMPLED] = [60, 16] as const;
/** Pieces one piece is cut into at most, and samples of a stroke at most. */
const [MOST_PARTS, MOST_SAMPLES] = [24, 2400] as const;
/** A piece that turns by more than this between its handles is cut, cosine. */
const TURNED = 0.5;
/** px by which the direction of a handle is felt. */
const FELT = 0.05;

/** What a direction becomes at a place: the warp's own derivative along it. */
function felt(map: Bending['map'], at: Point, placed: Point, dx: number, dy: number): Point {
  const size = Math.sqrt(dx * dx + dy * dy);
  if (size < 1e-9) return { x: 0, y: 0 };
  const tiny = FELT / size;
  const there = map({ x: at.x + dx * tiny, y: at.y + dy * tiny });
  return { x: (there.x - placed.x) / tiny, y: (there.y - placed.y) / tiny };
}

/** Math.hypot takes several times as long. */
const apart = (a: Point, b: Point): number => Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2);

/** How many parts a piece is cut into: by how long it becomes, and by how far it turns. */
function partsOf(xs: Four, ys: Four, start: Point, end: Point, middle: Point): number {
  const long = apart(start, middle) + apart(middle, end);
  const [ax, ay, bx, by] = [xs[1] - xs[0], ys[1] - ys[0], xs[3] - xs[2], ys[3] - ys[2]];
  const sizes = Math.sqrt((ax * ax + ay * ay) * (bx * bx + by * by));
  const turns = sizes > 0 && (ax * bx + ay * by) / sizes < TURNED;
  return Math.min(MOST_PARTS, Math.max(turns ? 2 : 1, Math.ceil(long / FINE)));
}

/** A ring, warped: each piece cut finer (de Casteljau), its ends placed and its handles directed. */
export function warpedRing(ring: Ring, { map }: Bending): Ring {
  const count = ring.length / 6;
  if (count === 0) return ring;
  const numbers: number[] = [];
  const first = map({ x: ring[0]!, y: ring[1]! });
  let start = first;
  let into: Point | null = null;
  for (let i = 0; i < count; i++) {
    const [a, b] = [i * 6, ((i + 1) % count) * 6];
    const xs = [ring[a]!, ring[a + 4]!, ring[b + 2]!, ring[b]!] as const;
    const ys = [ring[a + 1]!, ring[a + 5]!, ring[b + 3]!, ring[b + 1]!] as const;
    const last = i + 1 === count ? first : map({ x: xs[3], y: ys[3] });
    const parts = partsOf(xs, ys, start, last, map(pointAt(xs, ys, 0.5)));
    const third = 1 / (3 * parts);
    let slope = slopeAt(xs, ys, 0);
    let way = felt(map, { x: xs[0], y: ys[0] }, start, slope.x, slope.y);
    for (let k = 0; k < parts; k++) {
      const u = (k + 1) / parts;
      const to = pointAt(xs, ys, u);
      const end: Point = k + 1 === parts ? last : map(to);
      slope = slopeAt(xs, ys, u);
      // Where a piece is cut both handles lie on one line: it is felt once.
      const next = felt(map, to, end, slope.x, slope.y);
      numbers.push(
        start.x,
        start.y,
        into?.x ?? start.x,
        into?.y ?? start.y,
        start.x + way.x * third,
        start.y + way.y * third,
      );
      into = { x: end.x - next.x * third, y: end.y - next.y * third };
      [start, way] = [end, next];
    }
  }
  [numbers[2], numbers[3]] = [into!.x, into!.y];
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
export function warpedSamples(samples: Samples, { map }: Bending): Samples {
  const { x, y, pressure, altitude, azimuth } = samples;
  const count = x.length;
  const finest = Math.max(1, Math.floor(MOST_SAMPLES / Math.max(1, count)));
  const curve = (of: Float32Array, i: number, t: number) => {
    const [p, q, r, s] = [of[Math.max(0, i - 1)]!, of[i]!, of[i + 1]!, of[Math.min(count - 1, i + 2)]!];
    return 0.5 * (2 * q + (r - p) * t + (2 * p - 5 * q + 4 * r - s) * t * t + (3 * q - p - 3 * r + s) * t * t * t);
  };
  const placed = Array.from(x, (v, i) => map({ x: v, y: y[i]! }));
  const partsTo = (i: number): number =>
    Math.min(finest, Math.max(1, Math.ceil(apart(placed[i]!, placed[i + 1]!) / SAMPLED)));
  let more = 0;
  for (let i = 0; i + 1 < count; i++) more += partsTo(i) - 1;
  if (more === 0)
    return { ...samples, x: Float32Array.from(placed, (p) => p.x), y: Float32Array.from(placed, (p) => p.y) };
  const [xs, ys, every]: [number[], number[], number[]] = [[], [], []];
  placed.forEach((here, i) => {
    xs.push(here.x);
    ys.push(here.y);
    every.push(i);
    const parts = i + 1 < count ? partsTo(i) : 1;
    for (let k = 1; k < parts; k++) {
      const between = map({ x: curve(x, i, k / parts), y: curve(y, i, k / parts) });
      xs.push(between.x);
      ys.push(between.y);
      every.push(i + k / parts);
    }
  });
  const column = (of: Float32Array) =>
    Float32Array.from(every, (at) => {
      const i = Math.floor(at);
      return i === at ? of[i]! : mix(of[i]!, of[i + 1]!, at - i);
    });
  return {
    x: Float32Array.from(xs),
    y: Float32Array.from(ys),
    pressure: column(pressure),
    altitude: column(altitude),
    azimuth: column(azimuth),
  };
}

/** A mark, warped. @param thin what its line's width becomes, of what it is. */
export function warpedMark(mark: Mark, bending: Bending, thin = 1): Mark {
  if (mark.kind === 'shape') return { ...mark, rings: mark.rings.map((ring) => warpedRing(ring, bending)) };
  const brush = thin === 1 ? mark.brush : { ...mark.brush, width: mark.brush.width * thin };
  return { ...mark, brush, samples: warpedSamples(mark.samples, bending) };
}
