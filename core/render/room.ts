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
