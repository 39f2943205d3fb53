/** Boil: a drawing whose line breathes, drawn again a few times with small differences. */
import type { Drawing, Mark, NewId } from '../document/index.ts';
import { hashFraction, type Point, gently } from '../geometry/index.ts';
import { mapped } from '../marks/index.ts';

export interface Boil {
  /** How far the line strays, px. */
  readonly amount: number;
  /** px along which it strays one way. */
  readonly scale: number;
  readonly seed: number;
}

/** Smooth noise of -1 to 1 over the plane: hashed values on a grid, blended cubically. */
function noise(seed: number, turn: number, x: number, y: number): number {
  const [cx, cy] = [Math.floor(x), Math.floor(y)];
  const at = (dx: number, dy: number): number =>
    2 * hashFraction(seed, Math.imul(cx + dx, 7919) ^ Math.imul(cy + dy, 104729), turn) - 1;
  const [u, v] = [gently(x - cx), gently(y - cy)];
  const top = at(0, 0) + (at(1, 0) - at(0, 0)) * u;
  const bottom = at(0, 1) + (at(1, 1) - at(0, 1)) * u;
  return top + (bottom - top) * v;
}

/** One breath of a drawing, marks with ids of their own. @param turn which one, from 0; each differs from the others alike. */
export function boiled(
  drawing: Pick<Drawing, 'marks' | 'order'>,
  turn: number,
  boil: Boil,
  newId: NewId,
): Pick<Drawing, 'marks' | 'order'> {
  const { amount, scale, seed } = boil;
  const stray = ({ x, y }: Point): Point => {
    const [u, v] = [x / scale, y / scale];
    return {
      x: x + amount * noise(seed, turn * 2, u, v),
      y: y + amount * noise(seed, turn * 2 + 1, u, v),
    };
  };
  const marks = drawing.order.map((id): Mark => ({ ...mapped(drawing.marks[id]!, stray), id: newId() }));
  return { order: marks.map(({ id }) => id), marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])) };
}
