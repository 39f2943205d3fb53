/** Filling regions: which there are, where a point lies, and the shape of one or of all. */
import type { Point } from '../geometry/index.ts';
import { pixelMiddle, pixelAt, type Barrier } from './raster.ts';
import { OUTSIDE, regionsOf, type Regions } from './regions.ts';
import { extentsOf, contoursOf, type Extent } from './contours.ts';
import { carriedUnder } from './under.ts';

export interface FillRules {
  /** Gaps up to this many px are closed. */
  readonly gap: number;
  /** px that fills reach under the line, or null for its middle. */
  readonly under: number | null;
}

/** The regions of a drawing, ready to be filled. */
export interface Paintable {
  readonly barrier: Barrier;
  readonly rules: FillRules;
  readonly regions: Regions;
  /** The region of every pixel, those under lines too. */
  readonly carried: Int32Array;
  /** Where regions lie, by label, and how many pixels they have; what they have of the lines is counted. */
  readonly extents: readonly Extent[];
  readonly areas: Int32Array;
}

/** What is smaller than this many px² of element space is no region to fill by itself, but what is left between flecks. */
export const SMALLEST = 12;

export function paintableOf(barrier: Barrier, rules: FillRules): Paintable {
  const regions = regionsOf(barrier, rules.gap);
  const carried = carriedUnder(regions, rules.under);
  return { barrier, rules, regions, carried, ...extentsOf(carried, barrier.width, regions.count) };
}

/** The region a point lies in, or the one it is nearest to when it lies on a line; 0 beyond the lattice. */
export function regionAt({ barrier, carried }: Paintable, at: Point): number {
  const pixel = pixelAt(barrier, at);
  return pixel < 0 ? 0 : carried[pixel]!;
}

/** The regions that lines enclose, largest first; specks are left out. */
export function enclosed({ regions, areas, barrier }: Paintable, smallest = SMALLEST): number[] {
  const min = smallest * barrier.scale ** 2;
  return Array.from({ length: regions.count }, (_, i) => i + 1)
    .filter((label) => label !== OUTSIDE && areas[label]! >= min)
    .sort((a, b) => areas[b]! - areas[a]!);
}

/** The rings of some regions as one area. */
export function ringsOf(paintable: Paintable, labels: readonly number[]): Float32Array[] {
  const { barrier, carried, extents } = paintable;
  const [only] = labels;
  if (only === undefined) return [];
  const extent = labels.map((label) => extents[label]!).reduce(around);
  const wanted = labels.length === 1 ? only : marked(extents.length, labels);
  return contoursOf(barrier, extent, { labels: carried, wanted });
}

/** Everything that is not outside, as one area: lines and all they enclose. */
export function silhouetteOf({ barrier, carried, regions, extents }: Paintable): Float32Array[] {
  const others = extents.slice(OUTSIDE + 1).filter(({ right, left }) => right > left);
  if (regions.count <= OUTSIDE || others.length === 0) return [];
  const inside = extents.flatMap((_, label) => (label === OUTSIDE ? [] : [label]));
  return contoursOf(barrier, others.reduce(around), { labels: carried, wanted: marked(extents.length, inside) });
}

/** For each label 1 where it is one of some. */
function marked(count: number, labels: readonly number[]): Uint8Array {
  const wanted = new Uint8Array(count);
  for (const label of labels) wanted[label] = 1;
  return wanted;
}

const around = (a: Extent, b: Extent): Extent => ({
  left: Math.min(a.left, b.left),
  top: Math.min(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
});

/** A point well inside a region: the middle of the longest stretch of one of its rows. */
export function wellInside({ regions, extents, barrier }: Paintable, label: number): Point {
  const { left, top, right, bottom } = extents[label]!;
  const { labels, width } = regions;
  let [best, longest] = [top * width + left, 0];
  for (let y = top; y < bottom; y++) {
    let run = 0;
    for (let x = left; x <= right; x++) {
      if (x < right && labels[y * width + x] === label) run += 1;
      else {
        if (run > longest) [best, longest] = [y * width + x - 1 - (run >> 1), run];
        run = 0;
      }
    }
  }
  return pixelMiddle(barrier, best);
}

/** The colour of the lines round a region, 0 to 255 each, or null where it is not known. */
export function lineColourOf({ barrier, regions, extents }: Paintable, label: number): [number, number, number] | null {
  const { colour, width } = barrier;
  if (!colour) return null;
  const { left, top, right, bottom } = extents[label]!;
  const sum: [number, number, number] = [0, 0, 0];
  let count = 0;
  for (let y = top; y < bottom; y += 2)
    for (let x = left + 1; x < right; x++) {
      const pixel = y * width + x;
      // Where a row goes from the region onto a line.
      if (regions.labels[pixel] !== 0 || regions.labels[pixel - 1] !== label) continue;
      for (let c = 0; c < 3; c++) sum[c]! += colour[(pixel + 1) * 3 + c] ?? 0;
      count += 1;
    }
  return count === 0 ? null : [sum[0] / count, sum[1] / count, sum[2] / count];
}

/** Regions of which most lies within a ring of points. @param share of its pixels that must. */
export function regionsWithin(paintable: Paintable, lasso: readonly Point[], share = 0.5): number[] {
  const { carried, areas, barrier } = paintable;
  const { width, left, top, scale } = barrier;
  const inside = new Map<number, number>();
  const rows = lasso.map((p) => p.y);
  const first = Math.max(0, Math.floor((Math.min(...rows) - top) * scale));
  const last = Math.min(barrier.height - 1, Math.ceil((Math.max(...rows) - top) * scale));
  for (let row = first; row <= last; row++) {
    const y = top + (row + 0.5) / scale;
    const crossings: number[] = [];
    lasso.forEach((a, i) => {
      const b = lasso[(i + 1) % lasso.length]!;
      if (a.y > y !== b.y > y) crossings.push(a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x));
    });
    crossings.sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const from = Math.max(0, Math.ceil((crossings[i]! - left) * scale - 0.5));
      const to = Math.min(width - 1, Math.floor((crossings[i + 1]! - left) * scale - 0.5));
      for (let x = from; x <= to; x++) {
        const label = carried[row * width + x]!;
        if (label > OUTSIDE) inside.set(label, (inside.get(label) ?? 0) + 1);
      }
    }
  }
  return [...inside].flatMap(([label, count]) => (count > share * areas[label]! ? label : []));
}
