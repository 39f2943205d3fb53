/** The tongues of a fire: where they stand on a frame, how they roll as they rise, and the field each adds. */
import {
  clamp,
  cosineTurn,
  mix,
  seededRandom,
  sineTurn,
  smoothStep,
  type Point,
  type Grid,
} from '../geometry/index.ts';
import type { Settings } from '../controls/index.ts';
import { softMax } from './field.ts';
import type { Scene } from './starter.ts';

const { abs, ceil, floor, max, min, sqrt } = Math;

/** How places are displaced before the tongues are looked up: small rolls that rise with the flame. */
export interface Curl {
  readonly dx: Float64Array;
  readonly dy: Float64Array;
  readonly max: number;
}

/** The rolls on a frame. @param phase of the cycle, 0 to 1. */
export function curlOn(grid: Grid, settings: Settings, phase: number, seed: number): Curl {
  const { height, width } = settings as Record<string, number>;
  const rises = Math.round(settings['rises']!);
  const unit = min(height! * 0.5, (width! * 0.97) / sqrt(settings['tongues']!));
  const strength = (settings['curl']! / 100) * unit * 0.1;
  const random = seededRandom(seed ^ 0x51ed27);
  const [a, b] = [random(), random()];
  const dx = new Float64Array(grid.columns * grid.rows);
  const dy = new Float64Array(grid.columns * grid.rows);
  const long = unit * 0.95;
  for (let row = 0; row < grid.rows; row++) {
    const y = grid.top + row * grid.cell;
    const up = smoothStep(0.05, 0.6, -y / height!);
    // What is free is not rolled down again.
    const lift = up * (1 - smoothStep(0.5, 0.85, -y / height!));
    const swing = strength * up * sineTurn(y / long + phase * rises + a);
    for (let column = 0; column < grid.columns; column++) {
      const x = grid.left + column * grid.cell;
      const at = row * grid.columns + column;
      dx[at] = swing * cosineTurn((0.5 * x) / long + b);
      dy[at] = strength * 0.8 * lift * sineTurn(x / long + 0.25 * sineTurn(y / long + phase * rises + b) + a);
    }
  }
  return { dx, dy, max: strength };
}

/** A tongue on one moment. */
export interface Tongue {
  /** Its foot. */
  readonly x: number;
  readonly y: number;
  /** px to its usual tip; what breaks off goes on to `TOP` times as far. */
  readonly height: number;
  readonly half: number;
  /** How it narrows: below 1 round, above 1 pointed. */
  readonly taper: number;
  /** Share of the half width that is filled at a height: an inner flame is as broad as the body at its foot. */
  readonly fill: (h: number) => number;
  readonly middle: (h: number) => number;
  /** Factor of the half width at a height, negative in a gap. */
  readonly bulge: (h: number) => number;
}

export const TOP = 1.32;

const BELLY = 0.2;

/** Half width of a flame at a height, 1 at its belly, 0 at foot and `TOP`. */
export function profile(h: number, taper: number): number {
  if (h <= 0 || h >= TOP) return 0;
  if (h < BELLY) {
    const under = (BELLY - h) / BELLY;
    return sqrt(1 - under * under * 0.94);
  }
  const left = (TOP - h) / (TOP - BELLY);
  // Between a straight taper and a bowed one: square roots alone, no powers.
  return taper >= 1 ? mix(left, left * left, taper - 1) : mix(sqrt(left), left, taper);
}

/** The tongues at a phase of the cycle, for a body (`share` 1) or a smaller flame within it. */
export function tonguesAt(
  { settings, seed, line }: Pick<Scene, 'settings' | 'seed' | 'line'>,
  phase: number,
  share: number,
): Tongue[] {
  const { height, width, sway, pointed, breaks, wind, gust } = settings as Record<string, number>;
  const [count, rises] = [Math.round(settings['tongues']!), Math.round(settings['rises']!)];
  const anger = settings['anger']! / 100;
  const random = seededRandom(seed);
  const gusts = wind! * (1 + (gust! / 100) * sineTurn(phase + 0.5 * sineTurn(phase)));
  return Array.from({ length: count }, (_, i): Tongue => {
    const spread = count === 1 ? 0 : (i / (count - 1)) * 2 - 1;
    const [r1, r2, r3, r4, r5] = [random(), random(), random(), random(), random()];
    const middleness = 1 - abs(spread);
    const foot = footOf(line, width!, count === 1 ? 0.5 : (clamp(spread * 0.62 + (r1 - 0.5) * 0.18, -1, 1) + 1) / 2);
    // Tips beat by parting earlier or later: what has parted only rises.
    const parts = 0.5 + (0.05 + 0.09 * anger) * sineTurn(phase * (r5 > 0.6 ? 2 : 1) + r2);
    const tall = height! * mix(mix(0.42, 0.62, r3), 1, middleness);
    const half =
      (width! / 2) * (count === 1 ? 0.86 : mix(0.5, 0.72, middleness) * (1.35 / sqrt(count)) * mix(0.85, 1.15, r4));
    const amplitude = min(sway!, 0.13 * tall) * mix(0.75, 1.2, r2) * (0.55 + 0.6 * anger);
    const bulges = mix(1.35, 2.1, r3) + 0.4 * anger;
    const strength = mix(0.1, 0.24, anger);
    const breaking = (breaks! / 100) * mix(0.7, 1.25, r1);
    // Tips alternate: now pointed, now round, neighbours out of step.
    const taper = clamp(pointed! / 100 + 0.55 + 0.3 * cosineTurn(phase * rises + 0.5 * i + r4), 0.35, 2);
    const lean = spread * half * -0.35;
    const gap = share === 1 ? breaking : breaking * share * 0.5;
    return {
      x: foot.x,
      y: foot.y,
      height: tall * mix(0.4, 1, share),
      half,
      taper: mix(1.5, taper, share),
      fill: (h) => mix(share, 1, (1 - smoothStep(0, 0.42, h)) * 0.9),
      middle: (h) =>
        lean * h +
        amplitude *
          smoothStep(0, 1.1, h) *
          1.3 *
          (sineTurn(0.72 * h - phase * rises + r2) +
            (0.22 + 0.2 * anger) * sineTurn(1.5 * h - 2 * phase * rises + r5)) +
        gusts * h * (0.35 + 0.65 * h),
      bulge: (h) => {
        const crest = cosineTurn(bulges * h - phase * rises + r1);
        return (
          1 +
          crest * (strength * smoothStep(0.05, 0.5, h) + gap * smoothStep(parts, parts + 0.48, h)) -
          0.1 * gap * smoothStep(0.7, 1.1, h)
        );
      },
    };
  });
}

/** A place on the base: straight, or on the drawn line. */
function footOf(line: readonly Point[] | null, width: number, share: number): Point {
  if (!line || line.length < 2) return { x: (share - 0.5) * width, y: 0 };
  const at = share * (line.length - 1);
  const i = min(line.length - 2, floor(at));
  const t = at - i;
  return { x: mix(line[i]!.x, line[i + 1]!.x, t), y: mix(line[i]!.y, line[i + 1]!.y, t) };
}

/** Rows a tongue is worked out on, from its foot to its top. */
export const ROWS = 96;

/** Adds a tongue to a field: how far inside each sample lies, across. */
export function addTongue(
  values: Float64Array,
  { left, top, columns, rows, cell }: Grid,
  tongue: Tongue,
  curl: Curl,
  blend: number,
): void {
  const middles = new Float64Array(ROWS + 1);
  const halves = new Float64Array(ROWS + 1);
  let [leftmost, rightmost] = [Infinity, -Infinity];
  for (let k = 0; k <= ROWS; k++) {
    const h = (k / ROWS) * TOP;
    middles[k] = tongue.x + tongue.middle(h);
    halves[k] = tongue.half * profile(h, tongue.taper) * tongue.fill(h) * max(-0.4, tongue.bulge(h));
    leftmost = min(leftmost, middles[k]! - max(0, halves[k]!));
    rightmost = max(rightmost, middles[k]! + max(0, halves[k]!));
  }
  const air = curl.max + blend + 2 * cell;
  const firstColumn = max(0, floor((leftmost - air - left) / cell));
  const lastColumn = min(columns - 1, ceil((rightmost + air - left) / cell));
  const scale = ROWS / (TOP * tongue.height);
  for (let row = 0; row < rows; row++) {
    const y = top + row * cell;
    for (let column = firstColumn; column <= lastColumn; column++) {
      const x = left + column * cell;
      const at = row * columns + column;
      const k = (tongue.y - (y + curl.dy[at]!)) * scale;
      if (k <= 0 || k >= ROWS) continue;
      const low = floor(k);
      const t = k - low;
      const half = halves[low]! + (halves[low + 1]! - halves[low]!) * t;
      if (half < -blend) continue;
      const across = x + curl.dx[at]! - middles[low]! - (middles[low + 1]! - middles[low]!) * t;
      values[at] = softMax(values[at]!, half - abs(across), blend);
    }
  }
}
