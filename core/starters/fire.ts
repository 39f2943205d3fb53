/**
 * Fire: soft balls rise from a base line, shrinking and narrowing, each with its own phase on the
 * cycle; contours of their summed field give outline, body and core. Every ball makes whole turns
 * per cycle and every sway is a sine of whole turns, so the cycle closes by construction.
 */
import { fitRing, seededRandom } from '../geometry/index.ts';
import { doubleArea, levelLines, sampleField, type Ball, type Grid } from './field.ts';

export interface FireSettings {
  /** Any 32-bit whole number. */
  readonly seed: number;
  /** Height of the flame, px, from the base line at y = 0 upwards. */
  readonly height: number;
  /** Width of the base, px. */
  readonly width: number;
  /** Rising balls, 6 to 60. */
  readonly balls: number;
  /** Sideways sway of the tips, px. */
  readonly sway: number;
  /** Smallest piece kept, px². */
  readonly smallest: number;
}

export const USUAL_FIRE: FireSettings = { seed: 7, height: 620, width: 300, balls: 22, sway: 46, smallest: 260 };

/** The flame at one phase: rings in element space, base on y = 0. */
export interface FireShapes {
  readonly outline: Float32Array[];
  readonly body: Float32Array[];
  readonly core: Float32Array[];
}

interface Riser {
  readonly phase: number;
  readonly turns: number;
  readonly side: number;
  readonly size: number;
  readonly reach: number;
  readonly swayPhase: number;
}

const LEVELS = { outline: 0.3, body: 0.78, core: 1.85 } as const;
const TOLERANCE = 0.45;

function risersOf({ seed, balls }: FireSettings): Riser[] {
  const random = seededRandom(seed);
  return Array.from({ length: balls }, (_, i) => ({
    phase: (i + 0.7 * random()) / balls,
    turns: random() < 0.22 ? 2 : 1,
    side: 2 * random() - 1,
    size: 0.75 + 0.5 * random(),
    reach: 0.62 + 0.5 * random(),
    swayPhase: random(),
  }));
}

const wave = (phase: number): number => Math.sin(2 * Math.PI * phase);

/** The balls of the flame at a phase in [0, 1). */
export function fireBalls(settings: FireSettings, phase: number): Ball[] {
  const { height, width, sway } = settings;
  const half = width / 2;
  const foot: Ball[] = [-0.62, -0.22, 0.2, 0.6].map((side, i) => ({
    x: side * half * 0.86 + 0.025 * width * wave(phase + i * 0.29),
    y: -0.16 * width,
    radius: half * (0.56 + 0.05 * wave(phase * 2 + i * 0.37)),
    pull: 2.1 + 0.5 * wave(phase + i * 0.23),
    weight: 0.92,
  }));
  const rising = risersOf(settings).map(({ phase: own, turns, side, size, reach, swayPhase }): Ball => {
    const age = (phase * turns + own) % 1;
    const rise = age * (0.72 + 0.28 * age);
    const y = -0.12 * width - rise * height * reach * 0.92;
    const narrowing = 1 - 0.86 * rise * Math.min(1, reach);
    const drift = sway * rise * (wave(swayPhase + phase + 0.35 * age) + 0.5 * wave(2 * phase + 0.8 * rise));
    const grown = Math.min(1, age / 0.16);
    const shrink = 1 - age;
    const radius = half * 0.6 * size * (0.3 + 0.7 * grown) * (0.14 + 0.86 * shrink * (0.55 + 0.45 * shrink));
    return {
      x: side * half * 0.72 * narrowing + drift,
      y,
      radius,
      pull: 1.9 + 1.7 * age,
      weight: grown * (0.42 + 0.58 * Math.min(1, shrink * 2.2)),
    };
  });
  return [...foot, ...rising];
}

/** Cuts the field of some balls at a level and fits clean rings to it. */
export function ringsAt(values: Float64Array, grid: Grid, level: number, smallest: number): Float32Array[] {
  return levelLines(values, grid, level)
    .filter((line) => Math.abs(doubleArea(line)) / 2 >= smallest)
    .map((line) => fitRing(line, TOLERANCE));
}

/** The grid that a flame of these settings fits on. */
export function fireGrid({ height, width, sway }: FireSettings): Grid {
  const cell = Math.max(1.5, width / 110);
  const left = -width * 0.8 - sway * 2;
  const top = -height * 1.45;
  return { left, top, cell, columns: Math.ceil((-2 * left) / cell), rows: Math.ceil((width * 0.4 - top) / cell) };
}

/**
 * Lays the flame at one phase. The same settings and phase give the same rings.
 * @param phase in [0, 1), one cycle being 1.
 */
export function fireAt(settings: FireSettings, phase: number): FireShapes {
  const grid = fireGrid(settings);
  const values = sampleField(fireBalls(settings, phase), grid);
  return {
    outline: ringsAt(values, grid, LEVELS.outline, settings.smallest),
    body: ringsAt(values, grid, LEVELS.body, settings.smallest * 0.6),
    core: ringsAt(values, grid, LEVELS.core, settings.smallest * 0.6),
  };
}

/**
 * One lick that breaks off and rises away: a narrowing drop on its own, once.
 * @param life from 0 (just free) to 1 (gone).
 */
export function lickAt(settings: FireSettings, life: number): Float32Array[] {
  const { height, width, sway } = settings;
  const size = width * 0.13 * (1 - 0.75 * life);
  const grid = fireGrid({ ...settings, height: height * 1.4 });
  const x = width * 0.1 + sway * 0.9 * wave(0.1 + life * 0.6);
  const y = -height * (0.74 + 0.36 * life);
  const balls: Ball[] = [
    { x, y, radius: size, pull: 3.2 - life, weight: 1 },
    { x: x + size * 0.5, y: y + size * 0.7, radius: size * 0.62, pull: 2.2, weight: 0.7 },
  ];
  return ringsAt(sampleField(balls, grid), grid, LEVELS.outline, 12);
}
