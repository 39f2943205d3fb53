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
const [MAX_PARTS, MAX_SAMPLES] = [24, 2400] as const;
/** A piece that turns by more than this between its handles is cut, cosine. */
const TURNED = 0.5;
/** px by which the direction of a handle is felt. */
const FELT = 0.05;

/** What a direction becomes at a place: the warp's own derivative along it. */
function felt(map: Bending['map'], at: Point, placed: Point, { x, y, size }: Slope): Point {
  if (size < 1e-9) return { x: 0, y: 0 };
  const tiny = FELT / size;
  const there = map({ x: at.x + x * tiny, y: at.y + y * tiny });
  return { x: (there.x - placed.x) / tiny, y: (there.y - placed.y) / tiny };
}

/** Math.hypot takes several times as long. */
const apart = (a: Point, b: Point): number => Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2);

/** Whether a piece turns so much between its handles that its ends say little of it. */
function isTurning(xs: Four, ys: Four): boolean {
  const ax = xs[1] - xs[0];
  const ay = ys[1] - ys[0];
  const bx = xs[3] - xs[2];
  const by = ys[3] - ys[2];
  const sizes = Math.sqrt((ax * ax + ay * ay) * (bx * bx + by * by));
  return sizes > 0 && (ax * bx + ay * by) / sizes < TURNED;
}

/** How many parts a piece is cut into: by how long it becomes, and by how far it turns. What begins and ends near by and does not turn is short. */
function partsOf(xs: Four, ys: Four, start: Point, end: Point, map: Bending['map']): number {
  const turns = isTurning(xs, ys);
  if (!turns && apart(start, end) < FINE / 2) return 1;
  const middle = map(pointAt(xs, ys, 0.5));
  const long = apart(start, middle) + apart(middle, end);
  return Math.min(MAX_PARTS, Math.max(turns ? 2 : 1, Math.ceil(long / FINE)));
}

/** A ring, warped: each piece cut finer (de Casteljau), its ends placed and its handles directed. */
export function warpedRing(ring: Ring, { map }: Bending): Ring {
  const count = ring.length / 6;
  if (count === 0) return ring;
  const numbers: number[] = [];
  const first = map({ x: ring[0]!, y: ring[1]! });
  let start = first;
  let into: Point | null = null;
  let ended: Ended | null = null;
  for (let i = 0; i < count; i++) {
    const a = i * 6;
    const b = i + 1 === count ? 0 : a + 6;
    const xs = [ring[a]!, ring[a + 4]!, ring[b + 2]!, ring[b]!] as const;
    const ys = [ring[a + 1]!, ring[a + 5]!, ring[b + 3]!, ring[b + 1]!] as const;
    const last = i + 1 === count ? first : map({ x: xs[3], y: ys[3] });
    const parts = partsOf(xs, ys, start, last, map);
    const third = 1 / (3 * parts);
    let slope = slopeAt(xs, ys, 0);
    // Where pieces meet smoothly what was felt at the end of the one before is felt again, as fast as this one goes.
    const smooth: Ended | null = ended && isSameWay(ended.slope, slope) ? ended : null;
    const faster = smooth ? slope.size / smooth.slope.size : 1;
    let way: Point = smooth
      ? { x: smooth.way.x * faster, y: smooth.way.y * faster }
      : felt(map, { x: xs[0], y: ys[0] }, start, slope);
    for (let k = 0; k < parts; k++) {
      const u = (k + 1) / parts;
      const to = pointAt(xs, ys, u);
      const end: Point = k + 1 === parts ? last : map(to);
      slope = slopeAt(xs, ys, u);
      // Where a piece is cut both handles lie on one line: it is felt once.
      const next = felt(map, to, end, slope);
      numbers.push(
        start.x,
        start.y,
        into?.x ?? start.x,
        into?.y ?? start.y,
        start.x + way.x * third,
        start.y + way.y * third,
      );
      into = { x: end.x - next.x * third, y: end.y - next.y * third };
      start = end;
      way = next;
    }
    ended = { slope, way };
  }
  [numbers[2], numbers[3]] = [into!.x, into!.y];
  return new Float32Array(numbers);
}

/** What was felt at the end of a piece. */
interface Ended {
  readonly slope: Slope;
  readonly way: Point;
}

type Four = readonly [number, number, number, number];

function pointAt(xs: Four, ys: Four, t: number): Point {
  const s = 1 - t;
  const a = s * s * s;
  const b = 3 * s * s * t;
  const c = 3 * s * t * t;
  const d = t * t * t;
  return { x: a * xs[0] + b * xs[1] + c * xs[2] + d * xs[3], y: a * ys[0] + b * ys[1] + c * ys[2] + d * ys[3] };
}

/** The derivative of a piece, px for the whole of it. */
interface Slope extends Point {
  readonly size: number;
}

function slopeAt(xs: Four, ys: Four, t: number): Slope {
  const s = 1 - t;
  const a = 3 * s * s;
  const b = 6 * s * t;
  const c = 3 * t * t;
  const x = a * (xs[1] - xs[0]) + b * (xs[2] - xs[1]) + c * (xs[3] - xs[2]);
  const y = a * (ys[1] - ys[0]) + b * (ys[2] - ys[1]) + c * (ys[3] - ys[2]);
  return { x, y, size: Math.sqrt(x * x + y * y) };
}

/** Whether two slopes lead the same way, to the last bit of a 32-bit float. */
const isSameWay = (a: Slope, b: Slope): boolean =>
  a.size > 1e-9 && b.size > 1e-9 && a.x * b.x + a.y * b.y >= a.size * b.size * (1 - 1e-10);

/** Samples, warped; where they are drawn apart others come between, on the curve through them (Catmull-Rom). Plain loops: `from` with a function takes several times as long. */
function warpedSamples(samples: Samples, { map }: Bending): Samples {
  const { x, y, pressure, altitude, azimuth } = samples;
  const count = x.length;
  const finest = Math.max(1, Math.floor(MAX_SAMPLES / Math.max(1, count)));
  const [xs, ys] = [new Float32Array(count), new Float32Array(count)];
  /** Into how many parts the way from each sample to the next is cut. */
  const parts = new Uint16Array(count);
  let total = 0;
  let before: Point | null = null;
  for (let i = 0; i < count; i++) {
    const at = map({ x: x[i]!, y: y[i]! });
    xs[i] = at.x;
    ys[i] = at.y;
    if (before) parts[i - 1] = Math.min(finest, Math.max(1, Math.ceil(apart(before, at) / SAMPLED)));
    before = at;
  }
  if (count > 0) parts[count - 1] = 1;
  for (const each of parts) total += each;
  if (total === count) return { ...samples, x: xs, y: ys };
  const column = () => new Float32Array(total);
  const into = { x: column(), y: column(), pressure: column(), altitude: column(), azimuth: column() };
  const curve = (of: Float32Array, i: number, t: number) => {
    const p = of[i > 0 ? i - 1 : 0]!;
    const q = of[i]!;
    const r = of[i + 1]!;
    const s = of[i + 2 < count ? i + 2 : count - 1]!;
    return 0.5 * (2 * q + (r - p) * t + (2 * p - 5 * q + 4 * r - s) * t * t + (3 * q - p - 3 * r + s) * t * t * t);
  };
  let k = 0;
  for (let i = 0; i < count; i++) {
    const cut = parts[i]!;
    for (let j = 0; j < cut; j++, k++) {
      const t = j / cut;
      const at = t === 0 ? null : map({ x: curve(x, i, t), y: curve(y, i, t) });
      into.x[k] = at ? at.x : xs[i]!;
      into.y[k] = at ? at.y : ys[i]!;
      into.pressure[k] = at ? mix(pressure[i]!, pressure[i + 1]!, t) : pressure[i]!;
      into.altitude[k] = at ? mix(altitude[i]!, altitude[i + 1]!, t) : altitude[i]!;
      into.azimuth[k] = at ? mix(azimuth[i]!, azimuth[i + 1]!, t) : azimuth[i]!;
    }
  }
  return into;
}

/** A mark, warped. @param thin what its line's width becomes, of what it is. */
export function warpedMark(mark: Mark, bending: Bending, thin = 1): Mark {
  if (mark.kind === 'shape') return { ...mark, rings: mark.rings.map((ring) => warpedRing(ring, bending)) };
  const brush = thin === 1 ? mark.brush : { ...mark.brush, width: mark.brush.width * thin };
  return { ...mark, brush, samples: warpedSamples(mark.samples, bending) };
}
