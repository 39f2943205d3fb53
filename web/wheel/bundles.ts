/** Which layers are shown one by one on the wheel, and which lie in one bundle. */

/** Rings beside the active one on the disc, rows beside it on the band. */
export const APART = { disc: 4, band: 8 } as const;

/**
 * Indices of layers that share a ring or row, from the outside in or from the top down. The active layer
 * has its own, its nearest neighbours theirs; what lies beyond them is bundled.
 */
export function bundled(count: number, active: number, apart: number): number[][] {
  const all = Array.from({ length: count }, (_, i) => i);
  if (count <= apart + 1) return all.map((i) => [i]);
  const first = Math.min(Math.max(0, active - apart / 2), count - apart - 1);
  const own = all.slice(first, first + apart + 1);
  return [all.slice(0, first), ...own.map((i) => [i]), all.slice(first + apart + 1)].filter((g) => g.length > 0);
}
