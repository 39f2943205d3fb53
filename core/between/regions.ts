/** Areas that flow together or part: put together as fields, with a neck where they touch. */
import type { Ring } from '../document/index.ts';
import {
  EMPTY_BOX,
  gridOver,
  grown,
  ringBox,
  ringsAt,
  union,
  type Grid,
  type Point,
  nearestFraction,
} from '../geometry/index.ts';
import { ringWalk } from './outline.ts';

/** px between samples of a field at least, and samples along its longer side at most. */
const FINEST = 1.5;
const MAX = 150;
/** Areas smaller than this are not worth a mark, px². */
const SMALLEST = 6;

/** How deep each sample of a grid lies within an area, px; below 0 outside. Counted as far as `reach` only. */
function depths(rings: readonly Ring[], grid: Grid, reach: number): Float64Array {
  const values = new Float64Array(grid.columns * grid.rows).fill(reach * reach);
  const inside = new Uint8Array(values.length);
  const { left, top, cell, columns, rows } = grid;
  for (const ring of rings) {
    const { points } = ringWalk(ring);
    for (let i = 1; i < points.length; i++) nearSegment(values, grid, points[i - 1]!, points[i]!, reach);
    // Each crossing of a row turns what lies to its right from outside to inside, and back.
    for (let row = 0; row < rows; row++) {
      const y = top + row * cell;
      for (let i = 1; i < points.length; i++) {
        const [a, b] = [points[i - 1]!, points[i]!];
        if (a.y > y === b.y > y) continue;
        const x = a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x);
        for (let column = Math.max(0, Math.ceil((x - left) / cell)); column < columns; column++)
          inside[row * columns + column]! ^= 1;
      }
    }
  }
  return values.map((squared, i) => (inside[i] ? Math.sqrt(squared) : -Math.sqrt(squared)));
}

function nearSegment(
  values: Float64Array,
  { left, top, cell, columns, rows }: Grid,
  a: Point,
  b: Point,
  reach: number,
): void {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const first = (v: number, from: number) => Math.max(0, Math.floor((v - reach - from) / cell));
  const last = (v: number, from: number, max: number) => Math.min(max - 1, Math.ceil((v + reach - from) / cell));
  const [c0, c1] = [first(Math.min(a.x, b.x), left), last(Math.max(a.x, b.x), left, columns)];
  const [r0, r1] = [first(Math.min(a.y, b.y), top), last(Math.max(a.y, b.y), top, rows)];
  for (let row = r0; row <= r1; row++) {
    const py = top + row * cell - a.y;
    for (let column = c0; column <= c1; column++) {
      const px = left + column * cell - a.x;
      const t = nearestFraction(px, py, dx, dy);
      const [ox, oy] = [px - dx * t, py - dy * t];
      const off = ox * ox + oy * oy;
      const at = row * columns + column;
      if (off < values[at]!) values[at] = off;
    }
  }
}

/** The greater of two depths, rounded off over `blend` px. */
function softMax(a: number, b: number, blend: number): number {
  const off = blend - Math.abs(a - b);
  return Math.max(a, b) + (off <= 0 ? 0 : (off * off) / (4 * blend));
}

/** Areas as one, with a neck where they come near. @param blend px over which they flow together. */
export function flownTogether(areas: readonly (readonly Ring[])[], blend: number): Ring[] {
  const box = areas.flat().map(ringBox).reduce(union, EMPTY_BOX);
  const grid = gridOver(grown(box, blend), FINEST, MAX);
  const reach = 2 * blend + 4 * grid.cell;
  const fields = areas.map((rings) => depths(rings, grid, reach));
  const all = fields[0]!.map((value, i) =>
    fields.slice(1).reduce((sum, field) => softMax(sum, field[i]!, blend), value),
  );
  return ringsAt(all, grid, 0, SMALLEST);
}
