/**
 * Projective maps of the plane: what a flat thing looks like on a tilted plane. As a matrix of three rows, row by row; points
 * are (x, y, 1), and what comes of them is divided by its third part.
 */
import type { Box } from './box.ts';
import { type Matrix, type Point } from './matrix.ts';

export type Projection = readonly [
  a: number,
  b: number,
  c: number,
  d: number,
  e: number,
  f: number,
  g: number,
  h: number,
  i: number,
];

/** Four places, from the top left clockwise. */
export type Quad = readonly [Point, Point, Point, Point];

export const projectionFrom = ([a, b, c, d, e, f]: Matrix): Projection => [a, c, e, b, d, f, 0, 0, 1];

/** The map that applies `inner` first and `outer` after it. */
export function composed(outer: Projection, inner: Projection): Projection {
  const at = (row: number, column: number): number =>
    outer[3 * row]! * inner[column]! +
    outer[3 * row + 1]! * inner[3 + column]! +
    outer[3 * row + 2]! * inner[6 + column]!;
  return [at(0, 0), at(0, 1), at(0, 2), at(1, 0), at(1, 1), at(1, 2), at(2, 0), at(2, 1), at(2, 2)];
}

/** A point after the map; far away where it would lie at infinity. */
export function project([a, b, c, d, e, f, g, h, i]: Projection, { x, y }: Point): Point {
  const w = g * x + h * y + i;
  const over = Math.abs(w) < 1e-9 ? 1e9 : 1 / w;
  return { x: (a * x + b * y + c) * over, y: (d * x + e * y + f) * over };
}

/** The inverse map. @throws if the map flattens the plane. */
export function unproject([a, b, c, d, e, f, g, h, i]: Projection): Projection {
  const [A, B, C] = [e * i - f * h, f * g - d * i, d * h - e * g];
  const det = a * A + b * B + c * C;
  if (det === 0) throw new Error('A map that flattens the plane has no inverse');
  return [A, c * h - b * i, b * f - c * e, B, a * i - c * g, c * d - a * f, C, b * g - a * h, a * e - b * d].map(
    (part) => part / det,
  ) as unknown as Projection;
}

/** How the map stretches at a place: px for a px across and down, as the columns of its derivative. */
export function derivativeAt(
  [a, b, c, d, e, f, g, h, i]: Projection,
  { x, y }: Point,
): { readonly xx: number; readonly xy: number; readonly yx: number; readonly yy: number } {
  const w = g * x + h * y + i;
  const [u, v] = [a * x + b * y + c, d * x + e * y + f];
  const square = w * w || 1e-18;
  return {
    xx: (a * w - u * g) / square,
    xy: (b * w - u * h) / square,
    yx: (d * w - v * g) / square,
    yy: (e * w - v * h) / square,
  };
}

/** Whether four places are the corners of a form without a dent: only such can be a rectangle seen in perspective. */
export function isConvex(quad: Quad): boolean {
  const crosses = quad.map((p, i) => {
    const [q, r] = [quad[(i + 1) % 4]!, quad[(i + 2) % 4]!];
    return (q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x);
  });
  return crosses.every((cross) => cross > 1e-6) || crosses.every((cross) => cross < -1e-6);
}

/**
 * The map that takes the corners of a box to four places exactly (P. Heckbert, Fundamentals of Texture Mapping, 1989, 2.2.3).
 * @returns null where they are no rectangle seen in perspective.
 */
export function projectionTo({ left, top, right, bottom }: Box, quad: Quad): Projection | null {
  if (!isConvex(quad) || right <= left || bottom <= top) return null;
  const [p, q, r, s] = quad;
  const [dx1, dy1, dx2, dy2] = [q.x - r.x, q.y - r.y, s.x - r.x, s.y - r.y];
  const [sx, sy] = [p.x - q.x + r.x - s.x, p.y - q.y + r.y - s.y];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  const square: Projection = [
    q.x - p.x + g * q.x,
    s.x - p.x + h * s.x,
    p.x,
    q.y - p.y + g * q.y,
    s.y - p.y + h * s.y,
    p.y,
    g,
    h,
    1,
  ];
  const [width, height] = [right - left, bottom - top];
  return composed(square, [1 / width, 0, -left / width, 0, 1 / height, -top / height, 0, 0, 1]);
}

/** The corners of a box, from the top left clockwise. */
export const cornersOf = ({ left, top, right, bottom }: Box): Quad => [
  { x: left, y: top },
  { x: right, y: top },
  { x: right, y: bottom },
  { x: left, y: bottom },
];
