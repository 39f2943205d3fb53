/** How far the picture goes from one drawing to the next: a jump stands out. */

/** A step this many times the usual one is large. */
export const LARGE_STEP = 1.6;

/**
 * The size of each step as a share of the usual one (the median), from each drawing to the next; the last
 * leads across the seam when the drawings close.
 * @param masks how much of each cell a drawing covers, 0 to 255, all of one length.
 */
export function stepSizes(masks: readonly Uint8Array[], closed: boolean): number[] {
  const count = closed ? masks.length : masks.length - 1;
  const steps = Array.from({ length: Math.max(0, count) }, (_, i) =>
    difference(masks[i]!, masks[(i + 1) % masks.length]!),
  );
  const usual = median(steps.filter((step) => step > 0));
  return usual > 0 ? steps.map((step) => step / usual) : steps.map(() => 0);
}

/** What two coverages differ by, as a share of what they cover together. */
function difference(a: Uint8Array, b: Uint8Array): number {
  let [apart, together] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    apart += Math.abs(a[i]! - b[i]!);
    together += Math.max(a[i]!, b[i]!);
  }
  return together > 0 ? apart / together : 0;
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  if (sorted.length === 0) return 0;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

/** The seam's step against the mean of the others, or null where there is nothing to compare. */
export function seamRatio(steps: readonly number[]): number | null {
  const others = steps.slice(0, -1);
  const mean = others.reduce((sum, step) => sum + step, 0) / others.length;
  return steps.length > 2 && mean > 0 ? steps.at(-1)! / mean : null;
}
