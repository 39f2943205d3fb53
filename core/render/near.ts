/**
 * Pictures for while something is moved: a drawing is drawn at the nearest of few scales, all of it, and that picture is laid where
 * it is seen. A camera that zooms or shakes then shows the same picture frame after frame, a little softer than it will be.
 */
import type { Drawing } from '../document/index.ts';
import { invert, isEmpty, multiply, scaleOf, translation, type Matrix } from '../geometry/index.ts';
import type { PictureOf, Size } from './render-context.ts';
import { roomFor } from './room.ts';

/** Scales in each doubling. */
const SCALES = 2;
/** A drawing that takes up more than so many times the picture's area is drawn as it is seen. */
const LARGEST = 4;

/** Where a drawing is drawn, and how that is laid on the picture: `rest` after `at` is the map it is seen by. */
export interface Near {
  readonly at: Matrix;
  readonly rest: Matrix;
}

/**
 * The scale nearest to the one a drawing is seen at.
 * @param matrix from element space to device px.
 * @returns null where all of it at that scale is too large, or where nothing of it is seen.
 */
export function nearBy(drawing: Drawing, matrix: Matrix, { width, height }: Size): Near | null {
  const seen = scaleOf(matrix);
  if (seen <= 0) return null;
  const scale = 2 ** (Math.round(Math.log2(seen) * SCALES) / SCALES);
  const at: Matrix = [scale, 0, 0, scale, 0, 0];
  const room = roomFor(drawing, at);
  if (isEmpty(room)) return null;
  const area = (room.right - room.left) * (room.bottom - room.top);
  return area <= LARGEST * width * height ? { at, rest: multiply(matrix, invert(at)) } : null;
}

/** Plain pictures of drawings in the same way. @param exact draws them as they are seen, and keeps what it draws. */
export const nearly =
  (exact: PictureOf): PictureOf =>
  (item, matrix, width, height) => {
    const near = nearBy(item.drawing, matrix, { width, height });
    if (!near) return exact(item, matrix, width, height);
    const { left, top, right, bottom } = roomFor(item.drawing, near.at);
    const whole = exact(item, multiply(translation(-left, -top), near.at), right - left, bottom - top);
    return { ...whole, rest: multiply(near.rest, translation(left, top)) };
  };
