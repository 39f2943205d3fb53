/** The outline of a region as clean rings. */
import { ringsAt, type Grid } from '../geometry/index.ts';
import type { Lattice } from './raster.ts';

/** A part of a lattice: columns and rows from the first to one past the last. */
export interface Extent {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Where each label lies, by label. */
export function extentsOf(labels: Int32Array, width: number, count: number): Extent[] {
  const [left, top] = [new Int32Array(count + 1).fill(width), new Int32Array(count + 1).fill(0x7fffffff)];
  const [right, bottom] = [new Int32Array(count + 1), new Int32Array(count + 1)];
  const height = labels.length / width;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const label = labels[i]!;
      if (x < left[label]!) left[label] = x;
      if (x >= right[label]!) right[label] = x + 1;
      if (y < top[label]!) top[label] = y;
      bottom[label] = y + 1;
    }
  return Array.from(left, (_, i) => ({ left: left[i]!, top: top[i]!, right: right[i]!, bottom: bottom[i]! }));
}

/** Weights that take the steps out of a traced edge and move it by less than a fifth of a pixel. */
const SOFT = [1, 4, 6, 4, 1] as const;
/** Areas reach a little over their edge, so that two that touch leave no seam between them. */
const LEVEL = 0.42;

/**
 * Rings round everything that belongs, corners kept, holes as holes (even-odd).
 * @param inside whether a pixel belongs. @param smallest px² of element space; smaller pieces and holes are left out.
 */
export function traced(
  { width, left, top, scale }: Lattice,
  extent: Extent,
  inside: (pixel: number) => boolean,
  smallest = 3,
): Float32Array[] {
  const air = 3;
  const columns = extent.right - extent.left + 2 * air;
  const rows = extent.bottom - extent.top + 2 * air;
  const raw = new Float64Array(columns * rows);
  for (let y = extent.top; y < extent.bottom; y++)
    for (let x = extent.left; x < extent.right; x++)
      if (inside(y * width + x)) raw[(y - extent.top + air) * columns + x - extent.left + air] = 1;
  const across = new Float64Array(raw.length);
  const values = new Float64Array(raw.length);
  const blend = (from: Float64Array, to: Float64Array, step: number): void => {
    for (let y = 2; y < rows - 2; y++)
      for (let x = 2; x < columns - 2; x++) {
        const i = y * columns + x;
        to[i] =
          (SOFT[0] * (from[i - 2 * step]! + from[i + 2 * step]!) +
            SOFT[1] * (from[i - step]! + from[i + step]!) +
            SOFT[2] * from[i]!) /
          16;
      }
  };
  blend(raw, across, 1);
  blend(across, values, columns);
  const grid: Grid = {
    left: left + (extent.left - air + 0.5) / scale,
    top: top + (extent.top - air + 0.5) / scale,
    columns,
    rows,
    cell: 1 / scale,
  };
  return ringsAt(values, grid, LEVEL, smallest, 0);
}
