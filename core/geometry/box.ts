/** Axis-parallel boxes. An empty box has its least above its most. */
import { apply, type Matrix } from './matrix.ts';

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export const EMPTY_BOX: Box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };

export const isEmpty = (box: Box): boolean => box.right <= box.left || box.bottom <= box.top;

/** The smallest box around two. */
export const union = (a: Box, b: Box): Box => ({
  left: Math.min(a.left, b.left),
  top: Math.min(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
});

/** What two boxes share. */
export const intersection = (a: Box, b: Box): Box => ({
  left: Math.max(a.left, b.left),
  top: Math.max(a.top, b.top),
  right: Math.min(a.right, b.right),
  bottom: Math.min(a.bottom, b.bottom),
});

/** The box grown by a margin on every side. */
export const grown = (box: Box, by: number): Box => ({
  left: box.left - by,
  top: box.top - by,
  right: box.right + by,
  bottom: box.bottom + by,
});

/** The smallest box of whole pixels around a box. */
export const wholePixels = (box: Box): Box => ({
  left: Math.floor(box.left),
  top: Math.floor(box.top),
  right: Math.ceil(box.right),
  bottom: Math.ceil(box.bottom),
});

/** The map that shows a box as large as it fits into a size, in its middle. */
export function fitInto({ left, top, right, bottom }: Box, width: number, height: number): Matrix {
  const scale = Math.min(width / (right - left), height / (bottom - top));
  return [scale, 0, 0, scale, width / 2 - (scale * (left + right)) / 2, height / 2 - (scale * (top + bottom)) / 2];
}

/** The box around the four mapped corners. */
export function mapBox(matrix: Matrix, { left, top, right, bottom }: Box): Box {
  if (!(left <= right)) return EMPTY_BOX;
  const corners = [
    apply(matrix, { x: left, y: top }),
    apply(matrix, { x: right, y: top }),
    apply(matrix, { x: left, y: bottom }),
    apply(matrix, { x: right, y: bottom }),
  ];
  const xs = corners.map((p) => p.x);
  const ys = corners.map((p) => p.y);
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}
