/** The outline of a region as clean rings. */
import { fitRing } from '../geometry/index.ts';
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

/** Every so many points of an edge are fitted: they stand half a pixel apart at most, far closer than the tolerance tells. */
const EVERY = 2;

/** Ways along the edges of pixels, the inside on the right: right, down, left, up. */
const DX = [1, 0, -1, 0] as const;
const DY = [0, 1, 0, -1] as const;

/** The first pixel inside, in a row from a pixel on, with the outside above it; -1 where there is none. Searched natively: most pixels are none. */
function upperEdge(bits: Uint8Array, columns: number, from: number): number {
  const end = from - (from % columns) + columns;
  for (let pixel = from; pixel < end;) {
    const inside = bits.indexOf(1, pixel);
    if (inside < 0 || inside >= end) return -1;
    pixel = bits.indexOf(0, inside - columns) + columns;
    if (pixel < end && bits[pixel] === 1) return pixel;
  }
  return -1;
}

/**
 * Walks along the edges of pixels round what is inside.
 * @param bits 1 inside, with a margin of zeros all round. @returns loops of middles of edges, x y x y, outer ones
 * clockwise (y down).
 */
function loopsOf(bits: Uint8Array, columns: number, rows: number): Float64Array[] {
  const walked = new Uint8Array(bits.length);
  const loops: Float64Array[] = [];
  let walk = new Float64Array(4096);
  // The pixels ahead on the inner and on the outer side of each way, told from the pixel right below a corner.
  const inner = [0, -1, -columns - 1, -columns];
  const outer = [-columns, 0, -1, -columns - 1];
  for (let y = 1; y < rows; y++)
    for (let pixel = upperEdge(bits, columns, y * columns); pixel >= 0; pixel = upperEdge(bits, columns, pixel + 1)) {
      if (walked[pixel] === 1) continue;
      const x = pixel - y * columns;
      let count = 0;
      // Along the upper edge of this pixel, to the right.
      let cx = x;
      let cy = y;
      let way = 0;
      do {
        if (way === 0) walked[cy * columns + cx] = 1;
        if (count + 2 > walk.length) {
          const longer = new Float64Array(walk.length * 2);
          longer.set(walk);
          walk = longer;
        }
        const dx = DX[way]!;
        const dy = DY[way]!;
        walk[count] = cx + dx / 2;
        walk[count + 1] = cy + dy / 2;
        count += 2;
        cx += dx;
        cy += dy;
        const corner = cy * columns + cx;
        if (bits[corner + inner[way]!] === 0) way = (way + 1) & 3;
        else if (bits[corner + outer[way]!] === 1) way = (way + 3) & 3;
      } while (cx !== x || cy !== y || way !== 0);
      loops.push(walk.slice(0, count));
    }
  return loops;
}

/** A loop with its steps evened out, x y x y. */
function smoothed(loop: Float64Array): Float64Array {
  const size = loop.length;
  const out = new Float64Array(size);
  for (let i = 0; i < size; i += 2) {
    const a = i >= 4 ? i - 4 : i - 4 + size;
    const b = i >= 2 ? i - 2 : i - 2 + size;
    const c = i + 2 < size ? i + 2 : i + 2 - size;
    const d = i + 4 < size ? i + 4 : i + 4 - size;
    out[i] = (6 * loop[i]! + 4 * (loop[b]! + loop[c]!) + loop[a]! + loop[d]!) / 16;
    out[i + 1] = (6 * loop[i + 1]! + 4 * (loop[b + 1]! + loop[c + 1]!) + loop[a + 1]! + loop[d + 1]!) / 16;
  }
  return out;
}

/** The middles of edges with their steps evened out, each a little outwards; of long edges every second. */
function evened(loop: Float64Array): [number, number][] {
  const size = loop.length;
  let points = loop;
  for (let round = 0; round < ROUNDS && size > 12; round++) points = smoothed(points);
  const every = size > 64 ? EVERY : 1;
  const list: [number, number][] = [];
  for (let i = 0; i < size; i += 2 * every) {
    const a = i >= 4 ? i - 4 : i - 4 + size;
    const b = i + 4 < size ? i + 4 : i + 4 - size;
    const dx = points[b]! - points[a]!;
    const dy = points[b + 1]! - points[a + 1]!;
    const far = Math.sqrt(dx * dx + dy * dy) || 1;
    // The inside is on the right of the way, so outwards is to its left.
    list.push([points[i]! + (OVER * dy) / far, points[i + 1]! - (OVER * dx) / far]);
  }
  return list;
}

/** What belongs to an area: pixels with one label, or with one of several. */
interface Belonging {
  readonly labels: Int32Array;
  /** The label, or for each label 1 where it belongs. */
  readonly wanted: number | Uint8Array;
}

/**
 * Rings round everything that belongs, corners kept, holes as holes (even-odd).
 * @param smallest px² of element space; smaller pieces and holes are left out.
 */
export function contoursOf(
  { width, left, top, scale }: Lattice,
  extent: Extent,
  { labels, wanted }: Belonging,
  smallest = 3,
): Float32Array[] {
  const columns = extent.right - extent.left + 2;
  const rows = extent.bottom - extent.top + 2;
  const bits = new Uint8Array(columns * rows);
  for (let y = extent.top; y < extent.bottom; y++) {
    let to = (y - extent.top + 1) * columns + 1;
    const [first, last] = [y * width + extent.left, y * width + extent.right];
    if (typeof wanted === 'number') {
      to -= first;
      for (let at = labels.indexOf(wanted, first); at >= 0 && at < last; at = labels.indexOf(wanted, at)) {
        const from = at;
        while (at < last && labels[at] === wanted) at += 1;
        bits.fill(1, from + to, at + to);
      }
    } else for (let at = first; at < last; at++, to++) bits[to] = wanted[labels[at]!]!;
  }
  const [ox, oy] = [left + (extent.left - 1) / scale, top + (extent.top - 1) / scale];
  return loopsOf(bits, columns, rows).flatMap((loop) => {
    if (loop.length < 16) return [];
    const points = evened(loop);
    let doubleArea = 0;
    for (const point of points) {
      point[0] = ox + point[0] / scale;
      point[1] = oy + point[1] / scale;
    }
    for (let i = 0, j = points.length - 1; i < points.length; j = i++)
      doubleArea += points[j]![0] * points[i]![1] - points[i]![0] * points[j]![1];
    return Math.abs(doubleArea) / 2 >= smallest ? [fitRing(points, TOLERANCE)] : [];
  });
}
