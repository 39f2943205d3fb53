/**
 * Pictures for while something is moved: a drawing is drawn at the nearest of few scales, all of it, and that picture is laid where
 * it is seen. A camera that zooms or shakes then shows the same picture frame after frame, a little softer than it will be.
 */
import type { MakeSurface, Picture } from '../canvas/index.ts';
import type { Drawing } from '../document/index.ts';
import {
  intersection,
  invert,
  isEmpty,
  mapBox,
  multiply,
  scaleOf,
  translation,
  type Box,
  type Matrix,
} from '../geometry/index.ts';
import type { Placed, PictureOf, Size } from './render-context.ts';
import { inSteps, roomFor, roomOf } from './room.ts';

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

/**
 * A picture laid on one of the given size, cut in whole steps to what of it is seen there: surfaces are used again.
 * @param own where it lies before `rest`, px.
 */
export function laidBy(rest: Matrix, picture: Picture, own: Box, size: Size, make: MakeSurface): Placed {
  const seen = intersection(inSteps(mapBox(rest, own)), roomOf(size));
  const box = isEmpty(seen) ? { left: 0, top: 0, right: 1, bottom: 1 } : seen;
  const on = make(box.right - box.left, box.bottom - box.top);
  on.context.setTransform(...multiply(translation(-box.left, -box.top), rest));
  on.context.drawImage(picture, own.left, own.top);
  on.context.setTransform(1, 0, 0, 1, 0, 0);
  return { picture: on.picture, left: box.left, top: box.top };
}

/** Plain pictures of drawings in the same way. @param exact draws them as they are seen, and keeps what it draws. */
export const nearly =
  (exact: PictureOf, make: MakeSurface): PictureOf =>
  (item, matrix, width, height) => {
    const near = nearBy(item.drawing, matrix, { width, height });
    if (!near) return exact(item, matrix, width, height);
    const room = roomFor(item.drawing, near.at);
    const [wide, high] = [room.right - room.left, room.bottom - room.top];
    const { picture, left, top } = exact(item, multiply(translation(-room.left, -room.top), near.at), wide, high);
    const own = { left: room.left + left, top: room.top + top, right: room.right + left, bottom: room.bottom + top };
    return laidBy(near.rest, picture, own, { width, height }, make);
  };
