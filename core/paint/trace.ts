/** The outline of a region as clean rings. */
import { doubleAreaOf, fitRing } from '../geometry/index.ts';
import type { Lattice } from './raster.ts';

/** A part of a lattice: columns and rows from the first to one past the last. */
export interface Extent {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Where each label lies, and how many pixels it has, by label. */
export function extentsOf(labels: Int32Array, width: number, count: number): { extents: Extent[]; areas: Int32Array } {
  const [left, top] = [new Int32Array(count + 1).fill(width), new Int32Array(count + 1).fill(0x7fffffff)];
  const [right, bottom] = [new Int32Array(count + 1), new Int32Array(count + 1)];
  const areas = new Int32Array(count + 1);
  const height = labels.length / width;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    // Stretches of one label at a time.
    for (let x = 0; x < width;) {
      const label = labels[row + x]!;
      const from = x;
      x += 1;
      while (x < width && labels[row + x] === label) x += 1;
      areas[label]! += x - from;
      if (from < left[label]!) left[label] = from;
      if (x > right[label]!) right[label] = x;
      if (y < top[label]!) top[label] = y;
      bottom[label] = y + 1;
    }
  }
  const extents = Array.from(left, (_, i) => ({ left: left[i]!, top: top[i]!, right: right[i]!, bottom: bottom[i]! }));
  return { extents, areas };
}

/** px a ring may leave the traced edge. */
const TOLERANCE = 0.4;
/** Areas reach a little over their edge, so that two that touch leave no seam between them. */
const OVER = 0.2;
/** How often the steps of pixels are evened out along an edge. */
const ROUNDS = 2;

/** Ways along the edges of pixels, the inside on the right: right, down, left, up. */
const DX = [1, 0, -1, 0] as const;
const DY = [0, 1, 0, -1] as const;

/**
 * Walks along the edges of pixels round what is inside.
 * @param bits 1 inside, with a margin of zeros all round. @returns loops of middles of edges, x y x y, outer ones
 * clockwise (y down).
 */
function loopsOf(bits: Uint8Array, columns: number, rows: number): number[][] {
  const walked = new Uint8Array(bits.length);
  const loops: number[][] = [];
  for (let y = 1; y < rows; y++)
    for (let x = 1; x < columns; x++) {
      const pixel = y * columns + x;
      if (bits[pixel] !== 1 || bits[pixel - columns] !== 0 || walked[pixel] === 1) continue;
      const loop: number[] = [];
      // Along the upper edge of this pixel, to the right.
      let [cx, cy, way] = [x, y, 0];
      do {
        if (way === 0) walked[cy * columns + cx] = 1;
        loop.push(cx + DX[way]! / 2, cy + DY[way]! / 2);
        cx += DX[way]!;
        cy += DY[way]!;
        // The four pixels round this corner: those ahead, to the left and to the right of the way.
        const at = (dx: number, dy: number) => bits[(cy + dy) * columns + cx + dx]!;
        const [ahead, beside] =
          way === 0
            ? [at(0, -1), at(0, 0)]
            : way === 1
              ? [at(0, 0), at(-1, 0)]
              : way === 2
                ? [at(-1, 0), at(-1, -1)]
                : [at(-1, -1), at(0, -1)];
        if (beside === 0) way = (way + 1) % 4;
        else if (ahead === 1) way = (way + 3) % 4;
      } while (cx !== x || cy !== y || way !== 0);
      loops.push(loop);
    }
  return loops;
}

/** The middles of edges with their steps evened out, each a little outwards. */
function evened(loop: readonly number[]): [number, number][] {
  const count = loop.length / 2;
  let points = Array.from({ length: count }, (_, i): [number, number] => [loop[i * 2]!, loop[i * 2 + 1]!]);
  for (let round = 0; round < ROUNDS && count > 6; round++) {
    const from = points;
    const at = (i: number) => from[(i + count) % count]!;
    points = from.map(([x, y], i) => {
      const [a, b, c, d] = [at(i - 2), at(i - 1), at(i + 1), at(i + 2)];
      return [(6 * x + 4 * (b[0] + c[0]) + a[0] + d[0]) / 16, (6 * y + 4 * (b[1] + c[1]) + a[1] + d[1]) / 16];
    });
  }
  const at = (i: number) => points[(i + count) % count]!;
  return points.map(([x, y], i) => {
    const [a, b] = [at(i - 2), at(i + 2)];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const far = Math.sqrt(dx * dx + dy * dy) || 1;
    // The inside is on the right of the way, so outwards is to its left.
    return [x + (OVER * dy) / far, y - (OVER * dx) / far];
  });
}

/**
 * Rings round everything that belongs, corners kept, holes as holes (even-odd).
 * @param inside whether a pixel belongs. @param smallest px² of element space; smaller pieces and holes are left out.
 */
export function traced(
  { width, left, top, scale }: Lattice,
  extent: Extent,
  inside: (pixel: number) => boolean,
  smallest = 3,
): Float32Array[] {
  const columns = extent.right - extent.left + 2;
  const rows = extent.bottom - extent.top + 2;
  const bits = new Uint8Array(columns * rows);
  for (let y = extent.top; y < extent.bottom; y++) {
    const row = (y - extent.top + 1) * columns + 1 - extent.left;
    for (let x = extent.left; x < extent.right; x++) if (inside(y * width + x)) bits[row + x] = 1;
  }
  const [ox, oy] = [left + (extent.left - 1) / scale, top + (extent.top - 1) / scale];
  return loopsOf(bits, columns, rows).flatMap((loop) => {
    const points = evened(loop).map(([x, y]): [number, number] => [ox + x / scale, oy + y / scale]);
    return points.length >= 8 && Math.abs(doubleAreaOf(points.map(([x, y]) => ({ x, y })))) / 2 >= smallest
      ? [fitRing(points, TOLERANCE)]
      : [];
  });
}
