/** Regions carried on under the lines: to their middle, where two meet, or so many px. */
import { distanceTransform } from './distance-transform.ts';
import type { Regions } from './regions.ts';

/** px under a line that regions are carried on at most. */
const DEEPEST = 160;

/**
 * The region of every pixel, those under lines given to the nearest region.
 * @param under px of element space, or null for the middle of the line.
 */
export function carriedUnder({ labels, bits, width, height, scale }: Regions, under: number | null): Int32Array {
  const reach = Math.min(DEEPEST, under === null ? DEEPEST : under * scale + 0.5);
  const near = distanceTransform(bits, width, height, 'free', reach);
  const carried = labels.slice();
  for (const pixel of near.order) carried[pixel] = labels[near.nearest[pixel]!]!;
  return carried;
}
