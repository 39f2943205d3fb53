/** A straight edge that strokes follow. */
import type { Point } from './matrix.ts';

/** A line through a place, in the direction of an angle, radians. */
export interface Ruler extends Point {
  readonly angle: number;
}

/** The place on the ruler that is nearest to a place, in the same space. */
export function ontoRuler({ x, y, angle }: Ruler, at: Point): Point {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const along = (at.x - x) * cos + (at.y - y) * sin;
  return { x: x + along * cos, y: y + along * sin };
}
