/** How much room a drawing takes up on a surface. */
import type { Drawing } from '../document/index.ts';
import { grown, intersection, mapBox, type Box, type Matrix } from '../geometry/index.ts';
import { drawingRoom } from './marks.ts';
import type { Size } from './render-context.ts';

/** Pictures are as large as what is drawn, in steps, so that surfaces can be used again and blurs hang on no single pixel. */
const STEP = 64;

/** All that a drawing takes up, in whole steps. @param reach px more to all sides. */
export const roomFor = (drawing: Drawing, matrix: Matrix, reach = 1): Box =>
  inSteps(grown(mapBox(matrix, drawingRoom(drawing)), reach));

/** The part of a surface that a drawing takes up, in whole steps; empty where it lies beside it. @param reach px more to all sides. */
export function roomOn(drawing: Drawing, matrix: Matrix, { width, height }: Size, reach = 1): Box {
  return intersection(roomFor(drawing, matrix, reach), { left: 0, top: 0, right: width, bottom: height });
}

/** The box in whole steps round a box. */
export const inSteps = ({ left, top, right, bottom }: Box): Box => ({
  left: STEP * Math.floor(left / STEP),
  top: STEP * Math.floor(top / STEP),
  right: STEP * Math.ceil(right / STEP),
  bottom: STEP * Math.ceil(bottom / STEP),
});
