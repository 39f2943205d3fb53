/** How much room a drawing takes up on a surface. */
import type { Drawing } from '../document/index.ts';
import { EMPTY_BOX, grown, intersection, isEmpty, mapBox, union, type Box, type Matrix } from '../geometry/index.ts';
import { drawingBox, drawingRoom, markBox } from './marks.ts';
import type { Size } from './render-context.ts';

/** Pictures are as large as what is drawn, in steps, so that surfaces can be used again and blurs hang on no single pixel. */
const STEP = 64;

/** All of the plane. */
export const ENDLESS: Box = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };

/** All of a surface. */
export const roomOf = ({ width, height }: Size): Box => ({ left: 0, top: 0, right: width, bottom: height });

/** All that a drawing takes up, in whole steps. @param reach px more to all sides. */
export const roomFor = (drawing: Drawing, matrix: Matrix, reach = 1): Box =>
  inSteps(grown(mapBox(matrix, drawingRoom(drawing)), reach));

/** How a drawing is seen: from element space to px of a picture of some size. */
export interface Sight extends Size {
  readonly matrix: Matrix;
}

/** Places within a pixel are distinguished by so much of it. */
const PARTS = 1024;
const HALF_PART = 0.5 / PARTS;

/**
 * How a drawing is drawn that is small enough to be drawn whole, wherever it is seen: pictures of it that differ by whole pixels only
 * are one, laid at several places. Browser and server draw by the same sight: moved by even a whole pixel on its surface, an outline
 * rounds here and there by a level or two.
 * @returns where in the picture it is laid, px; null where the drawing is larger than the picture.
 */
export function wholeSight(
  drawing: Drawing,
  { width, height, matrix }: Sight,
): { sight: Sight; x: number; y: number } | null {
  const [x, y] = [Math.floor(matrix[4] + HALF_PART), Math.floor(matrix[5] + HALF_PART)];
  const part = (v: number): number => Math.max(0, Math.round(v * PARTS) / PARTS);
  const at: Matrix = [matrix[0], matrix[1], matrix[2], matrix[3], part(matrix[4] - x), part(matrix[5] - y)];
  const room = roomFor(drawing, at);
  const [wide, high] = [room.right - room.left, room.bottom - room.top];
  return wide * high <= width * height ? { sight: { width: wide, height: high, matrix: at }, x, y } : null;
}

/** The part of a surface that a drawing takes up, in whole steps; empty where it lies beside it. @param reach px more to all sides. */
export const roomOn = (drawing: Drawing, matrix: Matrix, size: Size, reach = 1): Box =>
  intersection(roomFor(drawing, matrix, reach), roomOf(size));

/**
 * The box around what of a drawing lies within a room, device px; empty where nothing does. Marks are looked at one by one: a frame
 * round the picture has a box that covers all of it, and nothing of it may be seen.
 * @param matrix from element space to device px.
 */
export function boxWithin(drawing: Drawing, matrix: Matrix, room: Box): Box {
  const whole = mapBox(matrix, drawingBox(drawing));
  const seen = intersection(whole, room);
  if (isEmpty(seen)) return EMPTY_BOX;
  const isInside =
    seen.left === whole.left && seen.top === whole.top && seen.right === whole.right && seen.bottom === whole.bottom;
  if (isInside) return whole;
  return Object.values(drawing.marks)
    .map((mark) => intersection(mapBox(matrix, markBox(mark)), room))
    .filter((box) => !isEmpty(box))
    .reduce(union, EMPTY_BOX);
}

/** The box in whole steps round a box. */
export const inSteps = ({ left, top, right, bottom }: Box): Box => ({
  left: STEP * Math.floor(left / STEP),
  top: STEP * Math.floor(top / STEP),
  right: STEP * Math.ceil(right / STEP),
  bottom: STEP * Math.ceil(bottom / STEP),
});
