/** Where a whole layer is put on a frame of its element. */
import { valueAt, type Shift } from '../document/index.ts';
import { IDENTITY, multiply, translation, type Matrix, type Point } from '../geometry/index.ts';
import type { TimedLayer } from './element.ts';

/** Scaled and turned about the anchor, then moved. */
function shifted(shift: Shift, anchor: Point, frame: number, turn: number | null): Matrix {
  const [x, y, scale, angle] = [shift.x, shift.y, shift.scale, shift.angle].map((v) => valueAt(v, frame, turn)) as [
    number,
    number,
    number,
    number,
  ];
  if (x === 0 && y === 0 && scale === 1 && angle === 0) return IDENTITY;
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  return multiply([cos, sin, -sin, cos, anchor.x + x, anchor.y + y], translation(-anchor.x, -anchor.y));
}

/**
 * Element space as drawn to element space as shown: as the layer is put, then as its folder is.
 * @param turn frames of a cycle, or null where time ends.
 */
export function shiftAt(
  { layer, folder }: Pick<TimedLayer, 'layer' | 'folder'>,
  anchor: Point,
  frame: number,
  turn: number | null,
): Matrix {
  const own = shifted(layer.shift, anchor, frame, turn);
  const around = folder ? shifted(folder.shift, anchor, frame, turn) : IDENTITY;
  if (around === IDENTITY) return own;
  return own === IDENTITY ? around : multiply(around, own);
}
