/** A scanned picture as shapes: pencil in steps of darkness, laid over each other. */
import { fitRing, levelLines, type Grid, type Pair, type Point } from '../geometry/index.ts';
import { pencilAt, type Darkness, type Levels } from './paper.ts';

/** A step of darkness: everything that is at least so much pencil, and how opaque it is laid; together they come near the pencil's tone. */
const STEPS = [
  { from: 0.18, opacity: 0.35 },
  { from: 0.45, opacity: 0.5 },
  { from: 0.75, opacity: 0.8 },
] as const;

/** px a ring may leave the contour. */
const TOLERANCE = 0.5;

/** A shape of a scan. */
export interface ScannedShape {
  readonly opacity: number;
  /** Closed cubic curves, px of the picture, holes by the even-odd rule. */
  readonly rings: readonly Float32Array[];
}

/** What is left out of a scan. */
export interface LeftOutOfScan {
  /** Places whose surroundings are no drawing: the marks. */
  readonly around: readonly Point[];
  /** How far around, px. */
  readonly reach: number;
}

/** @param smallest px² under which a speck is dust. */
export function scannedShapes(
  { values, width, height }: Darkness,
  levels: Levels,
  smallest: number,
  { around, reach }: LeftOutOfScan = { around: [], reach: 0 },
): ScannedShape[] {
  const pencil = Float64Array.from(values, (darkness) => pencilAt(darkness, levels));
  for (const { x, y } of around)
    for (let py = Math.max(0, Math.floor(y - reach)); py <= Math.min(height - 1, y + reach); py++)
      for (let px = Math.max(0, Math.floor(x - reach)); px <= Math.min(width - 1, x + reach); px++)
        pencil[py * width + px] = 0;
  // The rim stays open paper, so that outlines close.
  for (let x = 0; x < width; x++) pencil[x] = pencil[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y++) pencil[y * width] = pencil[y * width + width - 1] = 0;
  const { values: part, grid } = cropped(pencil, width, height);
  return STEPS.flatMap(({ from, opacity }) => {
    const rings = levelLines(part, grid, from)
      .filter((line) => line.length >= 3 && areaOf(line) >= smallest)
      .map((line) => fitRing(line, TOLERANCE));
    return rings.length > 0 ? [{ opacity, rings }] : [];
  });
}

/** What of a picture has pencil, with a rim of paper: most of a sheet is bare. */
function cropped(pencil: Float64Array, width: number, height: number): { values: Float64Array; grid: Grid } {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      if (pencil[y * width + x] === 0) continue;
      left = Math.min(left, x - 1);
      right = Math.max(right, x + 2);
      top = Math.min(top, y - 1);
      bottom = y + 2;
    }
  const [columns, rows] = [Math.max(2, right - left), Math.max(2, bottom - top)];
  if (right === 0) [left, top] = [0, 0];
  const values = new Float64Array(columns * rows);
  for (let y = 0; y < rows && right > 0; y++)
    values.set(pencil.subarray((top + y) * width + left, (top + y) * width + left + columns), y * columns);
  return { values, grid: { left: left + 0.5, top: top + 0.5, columns, rows, cell: 1 } };
}

function areaOf(line: readonly Pair[]): number {
  let sum = 0;
  for (let i = 0, j = line.length - 1; i < line.length; j = i++)
    sum += line[j]![0] * line[i]![1] - line[i]![0] * line[j]![1];
  return Math.abs(sum) / 2;
}
