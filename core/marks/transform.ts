/** Moving, scaling, turning, mirroring and skewing marks about a pivot. */
import type { BrushSettings, Mark } from '../document/index.ts';
import { apply, multiply, scaleOf, translation, type Matrix, type Point } from '../geometry/index.ts';
import { mapped } from './change.ts';

/** What is done to marks, in this order: scale, skew, turn, move. Scales below 0 mirror. */
export interface Transform {
  /** px. */
  readonly x: number;
  readonly y: number;
  readonly scaleX: number;
  readonly scaleY: number;
  /** Radians, clockwise. */
  readonly angle: number;
  /** Radians by which upright lines lean to the right. */
  readonly skew: number;
}
export const STILL: Transform = { x: 0, y: 0, scaleX: 1, scaleY: 1, angle: 0, skew: 0 };

/** A transform about a pivot as a matrix, element space to element space. */
export function matrixAbout(pivot: Point, { x, y, scaleX, scaleY, angle, skew }: Transform): Matrix {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [
    [cos, sin, -sin, cos, 0, 0],
    [1, 0, -Math.tan(skew), 1, 0, 0],
    [scaleX, 0, 0, scaleY, 0, 0],
    translation(-pivot.x, -pivot.y),
  ].reduce<Matrix>((all, next) => multiply(all, next as unknown as Matrix), translation(pivot.x + x, pivot.y + y));
}

/** A transform done to a fraction: none of it at 0, all at 1. */
export const fractionOf = ({ x, y, scaleX, scaleY, angle, skew }: Transform, share: number): Transform => ({
  x: x * share,
  y: y * share,
  scaleX: 1 + (scaleX - 1) * share,
  scaleY: 1 + (scaleY - 1) * share,
  angle: angle * share,
  skew: skew * share,
});

/** Widths a brush may have, px. */
const WIDTHS = { min: 0.1, max: 2000 };

/** A brush at another scale: its width and tapers grow with the stroke. */
function scaledBrush(brush: BrushSettings, scale: number): BrushSettings {
  if (scale === 1) return brush;
  const width = Math.min(WIDTHS.max, Math.max(WIDTHS.min, brush.width * scale));
  const { taper } = brush;
  return { ...brush, width, ...(taper ? { taper: [taper[0] * scale, taper[1] * scale] as const } : {}) };
}

/** A mark moved by a matrix; its width grows by how much areas do. */
export function transformed(mark: Mark, matrix: Matrix): Mark {
  const moved = mapped(mark, (point) => apply(matrix, point));
  // Areas that grow by a rounding error only are areas that do not grow.
  const scale = scaleOf(matrix);
  if (moved.kind === 'shape' || Math.abs(scale - 1) < 1e-9) return moved;
  return { ...moved, brush: scaledBrush(moved.brush, scale) };
}

/** How a change is spread over several drawings: the same on all, fading at both ends, or growing from none to all of it. */
export type TransformSpread = 'same' | 'fades' | 'grows';

/** The value of a row of numbers at a share of its length. */
function between(row: readonly number[], share: number): number {
  const at = share * (row.length - 1);
  const low = Math.floor(at);
  const [a, b] = [row[low]!, row[Math.min(row.length - 1, low + 1)]!];
  return a + (b - a) * (at - low);
}

/**
 * How much of a change each of several drawings takes.
 * @param ticks how it grows: places that rise from drawing to drawing, as the ticks of a path do; evenly unless given.
 * @returns fractions of 0 to 1, one per drawing. A change that fades is whole in the middle of the range and none beyond its
 * ends; one that grows is none on the first and whole on the last. Of a single drawing it is all.
 */
export function fractions(count: number, spread: TransformSpread, ticks: readonly number[] = [0, 1]): number[] {
  const [first, last] = [ticks[0] ?? 0, ticks.at(-1) ?? 0];
  const row = last > first ? ticks : [0, 1];
  const [from, to] = [row[0]!, row.at(-1)!];
  return Array.from({ length: count }, (_, i) => {
    if (count < 2 || spread === 'same') return 1;
    if (spread === 'fades') return (1 - Math.cos((2 * Math.PI * (i + 1)) / (count + 1))) / 2;
    return (between(row, i / (count - 1)) - from) / (to - from);
  });
}
