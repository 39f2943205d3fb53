/** Draws sheets of what each brush lays, by the engine itself: at three pressures, across and over itself, at two sizes, on dark and on light. */
import { createCanvas } from '@napi-rs/canvas';
import { newestVersion } from '@tallow/core/brush';
import type { BrushKind, BrushSettings, Samples } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import { drawStroke, Scratch } from '@tallow/core/render';
import { makeSurface } from './render/canvas.ts';

/** How each is set, and how much smaller where it crosses itself, so that the crossing is seen. */
const DEFAULT: Readonly<
  Record<BrushKind, { brush: Omit<BrushSettings, 'kind' | 'opacity' | 'pressure'>; knot: number }>
> = {
  ink: { brush: { width: 14 }, knot: 1 },
  pencil: { brush: { width: 7, tilt: 1 }, knot: 1 },
  grain: { brush: { width: 48, tilt: 0.3 }, knot: 0.6 },
  haze: { brush: { width: 90, flow: 0.4 }, knot: 0.6 },
};
/** Pressures shown, the last of them with the pen lying over. */
const TOUCHES = [
  { pressure: 0.2, altitude: Math.PI / 2 },
  { pressure: 0.55, altitude: Math.PI / 2 },
  { pressure: 1, altitude: Math.PI / 2 },
  { pressure: 0.45, altitude: 0.35 },
] as const;
const GROUNDS = [
  { ground: '#17130f', line: '#f0b35a' },
  { ground: '#f6f1e7', line: '#2b2622' },
] as const;
/** One field: a wave, a knot that crosses itself, and a patch drawn to and fro over itself. */
const FIELD = { width: 430, height: 118 } as const;
/** The part of a field shown at four times its size. */
const CLOSE = { left: 150, top: 10, width: 107, height: 98 } as const;

function samplesOf(points: readonly (readonly [number, number])[], pressure: number, altitude: number): Samples {
  return {
    x: Float32Array.from(points, ([x]) => x),
    y: Float32Array.from(points, ([, y]) => y),
    pressure: new Float32Array(points.length).fill(pressure),
    altitude: new Float32Array(points.length).fill(altitude),
    azimuth: new Float32Array(points.length),
  };
}

const along = (count: number, at: (t: number) => [number, number]) =>
  Array.from({ length: count }, (_, i) => at(i / (count - 1)));

const WAVE = along(36, (t) => [24 + 110 * t, 58 - 14 * Math.sin(t * 6.3)]);
const KNOT = along(70, (t) => [204 + 46 * Math.sin(t * 6.6 + 0.6), 58 + 34 * Math.sin(t * 13.2)]);
const PATCH = along(120, (t) => [350 + 44 * Math.cos(t * 44), 22 + 74 * t]);

function field(
  kind: BrushKind,
  version: number,
  touch: (typeof TOUCHES)[number],
  line: string,
  view: Matrix,
  width: number,
  height: number,
) {
  const surface = makeSurface(width, height);
  const scratch = new Scratch(makeSurface);
  const { brush: own, knot } = DEFAULT[kind];
  const brush: BrushSettings = {
    kind,
    ...(version > 1 ? { version } : {}),
    opacity: 1,
    pressure: true,
    ...own,
  };
  const small = { ...brush, width: brush.width * knot };
  [WAVE, KNOT, PATCH].forEach((points, i) => {
    const samples = samplesOf(points, touch.pressure, touch.altitude);
    drawStroke(
      surface,
      scratch,
      { samples, brush: i === 0 ? brush : small, seed: 7 + i },
      { opacity: 1, operation: 'source-over' },
      line,
      view,
    );
  });
  return surface;
}

/** A sheet of one brush: touches downwards; on dark and on light, whole and four times as large, to the right. */
export function brushSheet(kind: BrushKind, version = newestVersion(kind)): Buffer {
  const column = FIELD.width + CLOSE.width * 4;
  const row = Math.max(FIELD.height, CLOSE.height * 4);
  const canvas = createCanvas(column * GROUNDS.length, row * TOUCHES.length);
  const context = canvas.getContext('2d');
  GROUNDS.forEach(({ ground, line }, i) => {
    context.fillStyle = ground;
    context.fillRect(i * column, 0, column, canvas.height);
    TOUCHES.forEach((touch, k) => {
      const whole = field(kind, version, touch, line, [1, 0, 0, 1, 0, 0], FIELD.width, FIELD.height);
      context.drawImage(whole.picture as never, i * column, k * row + (row - FIELD.height) / 2);
      const near = field(
        kind,
        version,
        touch,
        line,
        [4, 0, 0, 4, -4 * CLOSE.left, -4 * CLOSE.top],
        CLOSE.width * 4,
        CLOSE.height * 4,
      );
      context.drawImage(near.picture as never, i * column + FIELD.width, k * row);
    });
  });
  return canvas.toBuffer('image/png');
}
