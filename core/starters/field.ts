/** The blob-field kernel: soft balls whose fields add up, sampled on a grid and cut at levels. */
import { contours } from 'd3-contour';

/** A soft ball in element space. Its field is `weight` at its middle and 0 beyond its edge. */
export interface Ball {
  readonly x: number;
  readonly y: number;
  /** Half its width, px. */
  readonly radius: number;
  /** How far it reaches upwards, in radii; the reach narrows to a point. 1 is round. */
  readonly pull: number;
  readonly weight: number;
}

/** A grid of samples over a box of element space. */
export interface Grid {
  readonly left: number;
  readonly top: number;
  readonly columns: number;
  readonly rows: number;
  /** px between samples. */
  readonly cell: number;
}

const soft = (d2: number): number => (d2 >= 1 ? 0 : (1 - d2) * (1 - d2));

/**
 * The field of one ball at a point: a smooth dome, stretched upwards into a tip that narrows with height.
 */
export function ballField({ x, y, radius, pull, weight }: Ball, px: number, py: number): number {
  const dx = (px - x) / radius;
  const dy = (py - y) / radius;
  if (dy >= 0) return weight * soft(dx * dx + dy * dy * 1.35);
  const up = -dy / pull;
  if (up >= 1) return 0;
  const width = 1 - up * (0.35 + 0.65 * up);
  const across = dx / width;
  return weight * soft(across * across) * (1 - up * up) * (1 - 0.35 * up);
}

/** The summed field on a grid, row by row. Only samples within a ball's reach are visited. */
export function sampleField(balls: readonly Ball[], { left, top, columns, rows, cell }: Grid): Float64Array {
  const values = new Float64Array(columns * rows);
  for (const ball of balls) {
    const firstColumn = Math.max(0, Math.floor((ball.x - ball.radius - left) / cell));
    const lastColumn = Math.min(columns - 1, Math.ceil((ball.x + ball.radius - left) / cell));
    const firstRow = Math.max(0, Math.floor((ball.y - ball.radius * ball.pull - top) / cell));
    const lastRow = Math.min(rows - 1, Math.ceil((ball.y + ball.radius - top) / cell));
    for (let row = firstRow; row <= lastRow; row++) {
      for (let column = firstColumn; column <= lastColumn; column++) {
        values[row * columns + column]! += ballField(ball, left + column * cell, top + row * cell);
      }
    }
  }
  return values;
}

/** Closed polylines, last point not repeated, around everything at or above a level; outer rings and holes alike. */
export function levelLines(
  values: Float64Array,
  { left, top, columns, rows, cell }: Grid,
  level: number,
): [number, number][][] {
  const cut = contours().size([columns, rows]).smooth(true).contour(Array.from(values), level);
  return cut.coordinates.flatMap((polygon) =>
    polygon.map((line) =>
      line.slice(0, -1).map(([x, y]): [number, number] => [left + (x! - 0.5) * cell, top + (y! - 0.5) * cell]),
    ),
  );
}

/** Twice the signed area of a closed polyline, px². */
export function doubleArea(line: readonly [number, number][]): number {
  return line.reduce((sum, [x, y], i) => {
    const [nx, ny] = line[(i + 1) % line.length]!;
    return sum + x * ny - nx * y;
  }, 0);
}
