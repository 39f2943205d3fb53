/** Bending marks by a grid of points over their box. */
import type { Mark } from '../document/index.ts';
import type { Box, Point } from '../geometry/index.ts';
import { mapped } from './change.ts';

/** Rows of points, from the top left; two by two are four corners. */
export type PointGrid = readonly (readonly Point[])[];

/** The grid that changes nothing. @param cells across and down. */
export const flatGrid = ({ left, top, right, bottom }: Box, cells: number): PointGrid =>
  Array.from({ length: cells + 1 }, (_, row) =>
    Array.from({ length: cells + 1 }, (_, column) => ({
      x: left + ((right - left) * column) / cells,
      y: top + ((bottom - top) * row) / cells,
    })),
  );

/** Weights of a Catmull-Rom curve at t between the second and third of four. */
const weights = (t: number): readonly [number, number, number, number] => [
  ((-t + 2) * t - 1) * t * 0.5,
  ((3 * t - 5) * t * t + 2) * 0.5,
  ((-3 * t + 4) * t + 1) * t * 0.5,
  (t - 1) * t * t * 0.5,
];

const lerp = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

/** The point of a row before its first or after its last goes on straight. */
function reached(row: readonly Point[], i: number): Point {
  if (i < 0) return lerp(row[0]!, row[1]!, -1);
  if (i >= row.length) return lerp(row.at(-1)!, row.at(-2)!, -1);
  return row[i]!;
}

function alongRow(row: readonly Point[], at: number): Point {
  const i = Math.min(row.length - 2, Math.max(0, Math.floor(at)));
  if (row.length === 2) return lerp(row[0]!, row[1]!, at);
  // Beyond the grid its edge goes on straight.
  if (at < 0 || at > row.length - 1) return lerp(row[i]!, row[i + 1]!, at - i);
  const w = weights(at - i);
  const four = [-1, 0, 1, 2].map((k) => reached(row, i + k));
  return {
    x: four.reduce((sum, p, k) => sum + p.x * w[k]!, 0),
    y: four.reduce((sum, p, k) => sum + p.y * w[k]!, 0),
  };
}

/**
 * A mark bent with a grid laid over a box: smooth from cell to cell, and the corners go where the grid's corners are.
 * @param box what the flat grid covers, element space.
 */
export function bent(mark: Mark, box: Box, grid: PointGrid): Mark {
  const cells = grid.length - 1;
  const [width, height] = [Math.max(1e-6, box.right - box.left), Math.max(1e-6, box.bottom - box.top)];
  return mapped(mark, ({ x, y }) => {
    const [u, v] = [((x - box.left) / width) * cells, ((y - box.top) / height) * cells];
    return alongRow(
      grid.map((row) => alongRow(row, u)),
      v,
    );
  });
}
