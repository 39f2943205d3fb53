/** How marks of the plan are drawn over the picture: their colour, and the maps there and back. */
import { apply, type Matrix, type Point } from '@tallow/core/geometry';

export const ROSE = '#e79bb8';

/** The map that marks are drawn with, and the way back. */
export interface Sight {
  /** Element space to CSS px of the picture's area. */
  readonly matrix: Matrix;
  /** Shot px to the same. */
  readonly shot: Matrix;
  /** Element space to shot px. */
  readonly home: Matrix;
  readonly placeOf: (event: { clientX: number; clientY: number }) => Point;
  /** Whether marks can be taken. */
  readonly live: boolean;
}

export const pointsText = (points: readonly Point[], matrix: Matrix): string =>
  points
    .map((p) => apply(matrix, p))
    .map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`)
    .join(' ');
