/**
 * The height field of a flat shape: as high as it is far from its outline, round near it and level farther in. It solves
 * the screened Poisson equation `∇²h − h/λ² = −1/λ²` inside with `h = 0` on the outline (successive over-relaxation), so it
 * changes as little as the outline does: from drawing to drawing nothing jumps.
 */
import { ringPoints, type Grid, type Point } from '../geometry/index.ts';

/** Points walked on each piece of a ring. */
const STEPS = 8;
const ROUNDS = 140;
/** Over-relaxation; near its best for the grids and lengths used here. */
const OMEGA = 1.88;

/** Which samples of a grid lie inside rings (even-odd), 1 or 0. */
export function insideOf(rings: readonly Float32Array[], { left, top, columns, rows, cell }: Grid): Uint8Array {
  const inside = new Uint8Array(columns * rows);
  const lines = rings.map((ring) => ringPoints(ring, STEPS));
  for (let row = 0; row < rows; row++) {
    const y = top + row * cell;
    const crossings: number[] = [];
    for (const line of lines)
      for (let i = 0; i < line.length; i++) {
        const [a, b] = [line[i]!, line[(i + 1) % line.length]!];
        if (a.y > y !== b.y > y) crossings.push(a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x));
      }
    crossings.sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const from = Math.max(0, Math.ceil((crossings[i]! - left) / cell));
      const to = Math.min(columns - 1, Math.floor((crossings[i + 1]! - left) / cell));
      if (to >= from) inside.fill(1, row * columns + from, row * columns + to + 1);
    }
  }
  return inside;
}

/** Takes samples near lines out: there the relief has a crease. */
export function creased(inside: Uint8Array, lines: readonly (readonly Point[])[], grid: Grid): void {
  const { left, top, columns, rows, cell } = grid;
  for (const line of lines)
    for (let i = 0; i + 1 < line.length; i++) {
      const [a, b] = [line[i]!, line[i + 1]!];
      const steps = Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / (cell * 0.7)));
      for (let k = 0; k <= steps; k++) {
        const x = Math.round((a.x + ((b.x - a.x) * k) / steps - left) / cell);
        const y = Math.round((a.y + ((b.y - a.y) * k) / steps - top) / cell);
        if (x >= 0 && y >= 0 && x < columns && y < rows) inside[y * columns + x] = 0;
      }
    }
}

/** Heights of a relief, 0 on and beyond its outline, towards 1 deep inside. @param reach how far in it is round, px. */
export function heightField(inside: Uint8Array, { columns, rows, cell }: Grid, reach: number): Float64Array {
  const h = new Float64Array(columns * rows);
  const screen = (cell / Math.max(cell, reach)) ** 2;
  const divisor = 1 / (4 + screen);
  for (let round = 0; round < ROUNDS; round++)
    for (let colour = 0; colour < 2; colour++)
      for (let y = 1; y < rows - 1; y++)
        for (let x = 1 + ((y + colour) & 1); x < columns - 1; x += 2) {
          const i = y * columns + x;
          if (inside[i] === 0) continue;
          const wanted = (h[i - 1]! + h[i + 1]! + h[i - columns]! + h[i + columns]! + screen) * divisor;
          h[i] = h[i]! + OMEGA * (wanted - h[i]!);
        }
  return h;
}

/** Slopes from which on the direction counts for more than how steep it is. */
const GENTLE = 0.35;

/**
 * How far a relief is turned towards a direction, -1 to 1: where it is steep nearly by its direction alone, where it is
 * gentle also by how steep it is, so that small pieces are turned as much as large ones. Softened a little.
 * @param toward unit vector. @param reach px over which the relief goes from nothing to its height.
 */
export function turnOf(h: Float64Array, { columns, rows, cell }: Grid, toward: Point, reach: number): Float64Array {
  const slope = new Float64Array(h.length);
  const factor = Math.max(cell, reach) / (2 * cell);
  for (let y = 1; y < rows - 1; y++)
    for (let x = 1; x < columns - 1; x++) {
      const i = y * columns + x;
      const [dx, dy] = [factor * (h[i + 1]! - h[i - 1]!), factor * (h[i + columns]! - h[i - columns]!)];
      const steep = Math.sqrt(dx * dx + dy * dy);
      slope[i] = ((1 + GENTLE) * (dx * toward.x + dy * toward.y)) / (GENTLE + steep);
    }
  const soft = new Float64Array(h.length);
  for (let y = 2; y < rows - 2; y++)
    for (let x = 2; x < columns - 2; x++) {
      const i = y * columns + x;
      soft[i] =
        (4 * slope[i]! +
          2 * (slope[i - 1]! + slope[i + 1]! + slope[i - columns]! + slope[i + columns]!) +
          slope[i - columns - 1]! +
          slope[i - columns + 1]! +
          slope[i + columns - 1]! +
          slope[i + columns + 1]!) /
        16;
    }
  return soft;
}
