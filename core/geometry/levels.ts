/** Fields of numbers on a grid, and the clean rings they are cut to at a level. */
import { contours } from 'd3-contour';
import type { Box } from './box.ts';
import type { Pair } from './fit.ts';
import { doubleAreaOf } from './polygons.ts';
import { fitRing } from './rings.ts';

const { abs, ceil, max, sqrt } = Math;

/** A grid of samples over a box. */
export interface Grid {
  readonly left: number;
  readonly top: number;
  readonly columns: number;
  readonly rows: number;
  /** px between samples. */
  readonly cell: number;
}

/** px a ring may leave the contour it is fitted to. */
const TOLERANCE = 0.45;
/** Mean thickness under which an area is a sliver, px. */
const SLIVER = 2;
/** A grid over a box with some air round it. @param finest px between samples at least. @param cells samples along its longer side. */
export function gridOver({ left, top, right, bottom }: Box, finest: number, cells = 260): Grid {
  const cell = max(finest, (right - left) / cells, (bottom - top) / cells);
  const air = 3 * cell;
  return {
    left: left - air,
    top: top - air,
    cell,
    columns: ceil((right - left + 2 * air) / cell) + 1,
    rows: ceil((bottom - top + 2 * air) / cell) + 1,
  };
}

/**
 * Parts of a px by which contours are distinguished. What differs by less, the last bits of a sum taken the other way round,
 * must not decide where a curve gets its nodes: a cycle's last turn would open where its first closed.
 */
const FINE = 1024;
const snapped = (value: number): number => Math.round(value * FINE) / FINE;

/** Closed polylines, last point not repeated, around everything at or above a level; outer rings and holes alike. */
export function levelLines(values: Float64Array, { left, top, columns, rows, cell }: Grid, level: number): Pair[][] {
  const cut = contours()
    .size([columns, rows])
    .smooth(true)
    .contour(values as unknown as number[], level);
  return cut.coordinates.flatMap((polygon) =>
    polygon.map((line) =>
      line.slice(0, -1).map(([x, y]): Pair => [snapped(left + (x! - 0.5) * cell), snapped(top + (y! - 0.5) * cell)]),
    ),
  );
}

const areaOf = (line: readonly Pair[]): number => doubleAreaOf(line.map(([x, y]) => ({ x, y })));

function perimeter(line: readonly Pair[]): number {
  let sum = 0;
  for (let i = 0; i < line.length; i++) {
    const [x, y] = line[i]!;
    const [nx, ny] = line[(i + 1) % line.length]!;
    sum += sqrt((nx - x) ** 2 + (ny - y) ** 2);
  }
  return sum;
}

/** Whether an outline is worth drawing: large enough, and no sliver. */
const isDrawn = (line: readonly Pair[], smallest: number): boolean => {
  const area = abs(areaOf(line)) / 2;
  return area >= smallest && (2 * area) / perimeter(line) >= SLIVER;
};

/**
 * Cuts a field at a level and fits clean rings, corners kept. Slivers and what is smaller than `smallest` px²
 * are left out, holes too.
 */
export function ringsAt(values: Float64Array, grid: Grid, level: number, smallest: number): Float32Array[] {
  return levelLines(values, grid, level)
    .filter((line) => line.length >= 6 && isDrawn(line, smallest))
    .map((line) => fitRing(line, TOLERANCE));
}
