/** How far the picture goes from one drawing to the next: a jump stands out. */

/** A step this many times the usual one is large. */
export const LARGE_STEP = 1.6;

/**
 * The size of each step against the usual one (the median), from each drawing to the next; the last
 * leads across the seam when the drawings close.
 * @param all what the drawings cover, in order.
 */
export function stepSizes(all: readonly Cover[], closed: boolean): number[] {
  const count = closed ? all.length : all.length - 1;
  const steps = Array.from({ length: Math.max(0, count) }, (_, i) => wayBetween(all[i]!, all[(i + 1) % all.length]!));
  const usual = median(steps.filter((step) => step > 0));
  return usual > 0 ? steps.map((step) => step / usual) : steps.map(() => 0);
}

/** Cells covered at least this much count as drawn, 0 to 255. */
export const DRAWN = 96;

/** From every cell the way to the nearest drawn one, in cells: two passes of the 3-4 chamfer (G. Borgefors, 1986). */
function distancesTo(mask: Uint8Array): Float32Array {
  const side = Math.round(Math.sqrt(mask.length));
  const far = side * 3;
  const way = Float32Array.from(mask, (cover) => (cover >= DRAWN ? 0 : far));
  const pass = (from: number, by: 1 | -1) => {
    for (let n = 0, i = from; n < mask.length; n++, i += by) {
      const x = i % side;
      const relax = (dx: number, dy: number, cost: number) => {
        const j = i + dx + dy * side;
        if (x + dx >= 0 && x + dx < side && j >= 0 && j < mask.length) way[i] = Math.min(way[i]!, way[j]! + cost);
      };
      relax(-by, 0, 3);
      relax(-1, -by, 4);
      relax(0, -by, 3);
      relax(1, -by, 4);
    }
  };
  pass(0, 1);
  pass(mask.length - 1, -1);
  return way.map((d) => d / 3);
}

/** How far, on the mean, what one drawing covers lies from what the other covers, in cells. */
export function wayBetween({ mask: a, reach: reachA }: Cover, { mask: b, reach: reachB }: Cover): number {
  let [way, cover] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    if (a[i]! >= DRAWN) way += reachB[i]!;
    if (b[i]! >= DRAWN) way += reachA[i]!;
    cover += Number(a[i]! >= DRAWN) + Number(b[i]! >= DRAWN);
  }
  return cover > 0 ? way / cover : 0;
}

/** What a drawing covers, and from every cell the way to it, in cells. */
export interface Cover {
  readonly mask: Uint8Array;
  readonly reach: Float32Array;
}

/** @param mask how much of each cell of a square a drawing covers, 0 to 255, row by row. */
export const coverOf = (mask: Uint8Array): Cover => ({ mask, reach: distancesTo(mask) });

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  if (sorted.length === 0) return 0;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

const meanOf = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);

/** Steps on each side of the seam that it is judged against, and the share of the mean of all that counts at least. */
const [BESIDE, MIN] = [2, 0.25];

/**
 * What the step across the seam would be if it went on as the steps beside it: a sway is fast in its middle and slow at its
 * ends, wherever it is cut. @param steps of a closed cycle, the seam's last.
 */
export function usualAtSeam(steps: readonly number[]): number {
  const others = steps.slice(0, -1);
  const beside = others.filter((_, i) => i < BESIDE || i >= others.length - BESIDE);
  return Math.max(meanOf(beside), MIN * meanOf(others));
}

/** The seam's step against those beside it, or null where there is nothing to compare. */
export function seamRatio(steps: readonly number[]): number | null {
  const usual = usualAtSeam(steps);
  return steps.length > 2 && usual > 0 ? steps.at(-1)! / usual : null;
}
