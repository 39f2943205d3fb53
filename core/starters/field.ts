/**
 * The field kernel: what lies within some discs, smoothly or sharply united, sampled on a grid. Values are px: how deep a place lies inside, negative outside.
 */
import type { Box, Grid } from '../geometry/index.ts';

const { abs, ceil, floor, max, min, sqrt } = Math;

export interface Ball {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** A place that nothing reaches. */
export const FIELD_OUTSIDE = -1000;

/** The box around some discs. */
export function discsBox(discs: readonly Ball[]): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y, r } of discs) {
    left = min(left, x - r);
    right = max(right, x + r);
    top = min(top, y - r);
    bottom = max(bottom, y + r);
  }
  return { left, top, right, bottom };
}

/** The greater of two depths, rounded off over `blend` px where they are near one another. */
export function softMax(a: number, b: number, blend: number): number {
  const off = blend - abs(a - b);
  const more = max(a, b);
  return off <= 0 ? more : more + (off * off) / (4 * blend);
}

/**
 * How deep each sample lies in the union of some discs. A disc is looked at only where it reaches, so the
 * cost grows with the area and what lies near, not with area times discs.
 * @param blend px over which neighbours flow together; 0 leaves sharp creases between them.
 */
export function unionField(
  discs: readonly Ball[],
  { left, top, columns, rows, cell }: Grid,
  blend: number,
): Float64Array {
  const values = new Float64Array(columns * rows).fill(FIELD_OUTSIDE);
  for (const { x, y, r } of discs) {
    if (r <= 0) continue;
    const reach = r + blend + 2 * cell;
    const firstColumn = max(0, floor((x - reach - left) / cell));
    const lastColumn = min(columns - 1, ceil((x + reach - left) / cell));
    const firstRow = max(0, floor((y - reach - top) / cell));
    const lastRow = min(rows - 1, ceil((y + reach - top) / cell));
    for (let row = firstRow; row <= lastRow; row++) {
      const dy = top + row * cell - y;
      for (let column = firstColumn; column <= lastColumn; column++) {
        const dx = left + column * cell - x;
        const depth = r - sqrt(dx * dx + dy * dy);
        const at = row * columns + column;
        values[at] = blend > 0 ? softMax(values[at]!, depth, blend) : max(values[at]!, depth);
      }
    }
  }
  return values;
}

/** The part of a grid that some discs reach, on the same samples, and where it begins in it. */
export function partOf(grid: Grid, discs: readonly Ball[], air: number): { grid: Grid; column: number; row: number } {
  const { left, top, right, bottom } = discsBox(discs);
  const column = max(0, floor((left - air - grid.left) / grid.cell));
  const row = max(0, floor((top - air - grid.top) / grid.cell));
  const lastColumn = min(grid.columns - 1, ceil((right + air - grid.left) / grid.cell));
  const lastRow = min(grid.rows - 1, ceil((bottom + air - grid.top) / grid.cell));
  return {
    grid: {
      left: grid.left + column * grid.cell,
      top: grid.top + row * grid.cell,
      cell: grid.cell,
      columns: max(1, lastColumn - column + 1),
      rows: max(1, lastRow - row + 1),
    },
    column,
    row,
  };
}

/** A field made of two, sample by sample. */
function combined(a: Float64Array, b: Float64Array, how: (a: number, b: number) => number): Float64Array {
  return a.map((value, i) => how(value, b[i]!));
}

/** What lies in both. */
export const withinBall = (a: Float64Array, b: Float64Array): Float64Array => combined(a, b, min);
/** What lies in the first and not in the second. */
export const without = (a: Float64Array, b: Float64Array): Float64Array =>
  combined(a, b, (inside, hole) => min(inside, -hole));
