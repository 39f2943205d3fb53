/**
 * Crests that run along a line: which place of one line is which of another, found by their shapes. A crest that has gone
 * on towards the tip then travels there in between, where places at equal shares of the length would flatten it.
 */
import { evenPoints, type Walk } from '../geometry/index.ts';

/** Places compared along each line. */
const PLACES = 64;
/** How far a place may be from the one at the same share of the length, as a share of it. */
const FARTHEST = 0.5;
/** What a slope counts against a height, and what being far from the same share costs. */
const [SLOPE, STAY] = [6, 0.02];

/** Heights over the way from base to tip, in lengths of it, with the slope at each. */
function profileOf(walk: Walk, backwards: boolean): { height: Float64Array; slope: Float64Array } {
  const points = evenPoints(walk, PLACES, false, 0, backwards);
  const [base, tip] = [points[0]!, points.at(-1)!];
  const [dx, dy] = [tip.x - base.x, tip.y - base.y];
  const chord = Math.hypot(dx, dy) || walk.length || 1;
  const height = Float64Array.from(points, (p) => ((p.y - base.y) * dx - (p.x - base.x) * dy) / (chord * chord));
  const slope = Float64Array.from(
    height,
    (_, i) => (height[Math.min(PLACES - 1, i + 1)]! - height[Math.max(0, i - 1)]!) / 2,
  );
  return { height, slope };
}

/**
 * The share of the second line's length that a share of the first's goes to, rising from 0 to 1.
 * Dynamic time warping of the heights over the way from base to tip (Sakoe and Chiba, 1978).
 * @param backwards whether the second is walked from its end.
 */
export function crestsAlong(a: Walk, b: Walk, backwards: boolean): (share: number) => number {
  const [one, other] = [profileOf(a, false), profileOf(b, backwards)];
  const reach = Math.ceil(FARTHEST * PLACES);
  const cost = new Float64Array(PLACES * PLACES).fill(Infinity);
  const price = (i: number, j: number): number => {
    const [h, s] = [one.height[i]! - other.height[j]!, SLOPE * (one.slope[i]! - other.slope[j]!)];
    const off = (i - j) / PLACES;
    return h * h + s * s + STAY * off * off * (Math.abs(h) + 1e-3);
  };
  for (let i = 0; i < PLACES; i++)
    for (let j = Math.max(0, i - reach); j <= Math.min(PLACES - 1, i + reach); j++) {
      const before =
        i === 0 && j === 0
          ? 0
          : Math.min(
              i > 0 ? cost[(i - 1) * PLACES + j]! : Infinity,
              j > 0 ? cost[i * PLACES + j - 1]! : Infinity,
              i > 0 && j > 0 ? cost[(i - 1) * PLACES + j - 1]! : Infinity,
            );
      cost[i * PLACES + j] = before + price(i, j);
    }
  const found = evenedOut(wayBack(cost));
  return (share) => {
    const at = Math.min(1, Math.max(0, share)) * (PLACES - 1);
    const low = Math.floor(at);
    const [p, q] = [found[low]!, found[Math.min(PLACES - 1, low + 1)]!];
    return p + (q - p) * (at - low);
  };
}

/** The cheapest way through, from its end: for each place of the first line the mean of the places it goes to, as shares. */
function wayBack(cost: Float64Array): Float64Array {
  const [sums, counts] = [new Float64Array(PLACES), new Float64Array(PLACES)];
  let [i, j] = [PLACES - 1, PLACES - 1];
  for (;;) {
    sums[i]! += j;
    counts[i]! += 1;
    if (i === 0 && j === 0) break;
    const [up, left, both] = [
      i > 0 ? cost[(i - 1) * PLACES + j]! : Infinity,
      j > 0 ? cost[i * PLACES + j - 1]! : Infinity,
      i > 0 && j > 0 ? cost[(i - 1) * PLACES + j - 1]! : Infinity,
    ];
    if (both <= up && both <= left) [i, j] = [i - 1, j - 1];
    else if (up <= left) i -= 1;
    else j -= 1;
  }
  return sums.map((sum, k) => sum / counts[k]! / (PLACES - 1));
}

/** Without stairs, its ends at 0 and 1; it stays rising. */
function evenedOut(way: Float64Array): Float64Array {
  let now = way;
  for (let round = 0; round < 3; round++)
    now = now.map((v, i) => (i === 0 || i === PLACES - 1 ? v : (now[i - 1]! + 2 * v + now[i + 1]!) / 4));
  now[0] = 0;
  now[PLACES - 1] = 1;
  return now;
}
