/**
 * Regions bounded by lines, with gaps up to a size closed. Where a ball as wide as the gap fits is the core
 * of a region; what no ball fits into goes to the region that reaches it over the widest way (a watershed
 * of the distance from the lines, flooded from the widest places down). So two regions meet in the narrowest
 * place of a gap, and a thin tip belongs to its own region up to the line.
 */
import { labelComponents } from './connected-components.ts';
import { FARTHEST, LINE, distanceTransform, type DistanceField } from './distance-transform.ts';
import { BOUNDS_FROM, type Barrier, type Lattice } from './raster.ts';
import { besides, WidestFirst } from './widest-first.ts';

/** The region outside everything: always this one. */
export const OUTSIDE = 1;

export interface Regions extends Lattice {
  /** The region of each pixel; 0 under lines. Regions count from 1. */
  readonly labels: Int32Array;
  /** How many labels there are, the outside among them. */
  readonly count: number;
  /** Where lines are (`LINE`); other numbers are free. */
  readonly bits: Uint8Array;
}

/** Pixels a gap can be wide at most, over which it is closed. */
export const WIDEST_GAP = 200;

/** Where lines are, and where not (0). */
export function linesOf({ cover }: Barrier): Uint8Array {
  const bits = new Uint8Array(cover.length);
  for (let i = 0; i < bits.length; i++) if (cover[i]! >= BOUNDS_FROM) bits[i] = LINE;
  return bits;
}

/** Free pixels where a ball as wide as the gap fits, those where none does, and those of them that a region has. */
const [CORE, SHELL, TAKEN] = [0, 2, 3] as const;

/** The regions of a barrier. @param gap px of element space; gaps up to it are closed. */
export function regionsOf(barrier: Barrier, gap: number): Regions {
  const { width, height, left, top, scale } = barrier;
  const bits = linesOf(barrier);
  // A gap of n free pixels has its middle n/2 + 1/2 from the middles of the pixels beside it.
  const reach = gap > 0 ? Math.min(WIDEST_GAP, gap * scale) / 2 + 0.5 : 0;
  const near = distanceTransform(bits, width, height, 'lines', reach);
  for (const pixel of near.order) bits[pixel] = SHELL;
  const labels = new Int32Array(width * height);
  // The margin is free, so what its first pixel belongs to is met first: the outside.
  let count = labelComponents(bits, CORE, width, height, labels, OUTSIDE);
  widestFirst(labels, near, width);
  // What is narrower than the gap everywhere and has no way to a core is a region of its own.
  let pockets = 0;
  for (const pixel of near.order)
    if (labels[pixel] !== 0) bits[pixel] = TAKEN;
    else pockets += 1;
  if (pockets > 0) count = labelComponents(bits, SHELL, width, height, labels, count + 1);
  return { width, height, left, top, scale, labels, count, bits };
}

/** Gives pixels near lines to the regions that reach them over the widest way. */
function widestFirst(labels: Int32Array, near: DistanceField, width: number): void {
  const queue = new WidestFirst(near);
  const count = labels.length;
  const { squares, order } = near;
  /** The region of the first neighbour that has one, of those to the left, right, above and below; 0 where none has. */
  const ownerOf = (pixel: number): number => {
    const column = pixel % width;
    return (
      (column > 0 && labels[pixel - 1]) ||
      (column < width - 1 && labels[pixel + 1]) ||
      (pixel >= width && labels[pixel - width]) ||
      (pixel < count - width && labels[pixel + width]) ||
      0
    );
  };
  const offer = (pixel: number): void => {
    if (labels[pixel] === 0 && squares[pixel] !== FARTHEST) queue.push(pixel);
  };
  for (const pixel of order) if (ownerOf(pixel) !== 0) offer(pixel);
  for (let pixel = queue.pop(); pixel !== undefined; pixel = queue.pop()) {
    if (labels[pixel] !== 0) continue;
    labels[pixel] = ownerOf(pixel);
    besides(pixel, width, count, offer);
  }
}
