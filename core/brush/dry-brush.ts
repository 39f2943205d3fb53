/**
 * Grain: a dry brush. Its ground hangs on the stroke, along and across it: streaks of bristles, with flecks and boxes of
 * several sizes laid and left out. Measured in widths of the brush, it moves and grows with the stroke.
 */
import { hashFraction } from '../geometry/index.ts';
import { NONE, type Shade } from './deposit.ts';
import { groundCellAt, evenly, heightAt, smoothNoise, type Ground } from './ground.ts';

/** Cells to one width of the brush; the tile is 8 widths long and 2 wide, more than strays of a stroke need. */
const CELLS = 128;
const [LONG, WIDE] = [1024, 256];
/** Flecks by size: how many on the tile, and half their size in cells. */
const FLECKS: readonly (readonly [number, number])[] = [
  [2600, 1.3],
  [900, 2.4],
  [260, 4.2],
  [70, 7],
];

/** Lays one fleck or box, turned, at a height of its own: low ones are covered by the lightest touch, high ones left by all but the hardest. */
function stamp(field: Float32Array, nth: number, half: number): void {
  const pick = (turn: number) => hashFraction(0x51ed, nth, turn);
  const [cx, cy] = [pick(0) * LONG, pick(1) * WIDE];
  const high = pick(2) < 0.42 ? 2.6 : -2.4;
  const box = pick(3) < 0.5;
  // A box leans by a slope, not by an angle: no engine rounds that its own way.
  const slope = 1.4 * (pick(4) - 0.5);
  const [length, breadth] = [half * (0.7 + 1.1 * pick(5)), half * (0.5 + 0.5 * pick(6))];
  const reach = Math.ceil(2 * half) + 1;
  for (let y = -reach; y <= reach; y++) {
    for (let x = -reach; x <= reach; x++) {
      const [along, across] = [(x + slope * y) / length, (y - slope * x) / breadth];
      const far = box ? Math.max(Math.abs(along), Math.abs(across)) : Math.sqrt(along * along + across * across);
      if (far > 1) continue;
      const at = ((Math.floor(cy) + y + WIDE) % WIDE) * LONG + ((Math.floor(cx) + x + LONG) % LONG);
      field[at] = 0.25 * field[at]! + high;
    }
  }
}

let bristles: Ground | null = null;
function madeBristles(): Ground {
  const streaks = smoothNoise(LONG, WIDE, 11, 48, 1);
  const broad = smoothNoise(LONG, WIDE, 12, 70, 5);
  const specks = smoothNoise(LONG, WIDE, 13, 1, 1);
  const field = streaks.map((v, i) => v + 0.7 * broad[i]! + 0.75 * specks[i]!);
  let nth = 0;
  for (const [count, half] of FLECKS) for (let i = 0; i < count; i++) stamp(field, nth++, half);
  return evenly(field, LONG, WIDE);
}

/** The bristles' ground, made when first asked for. */
export const bristleGround = (): Ground => (bristles ??= madeBristles());

/** Takes the bristles' ground as another thread has made it. */
export const takeBristles = (made: Ground): void => {
  bristles ??= made;
};

const SOFT = 0.12;

/** How much a dry brush leaves. */
export const dryBrush: Shade = ({ speed, seed, footprint, width }, { count, far, across, along, pressure, opaque }) => {
  const ground = bristleGround();
  const shiftX = seed & (LONG - 1);
  const shiftY = (seed >>> 10) & (WIDE - 1);
  // Cells to a pixel: where they are finer than pixels, what lies between them is not seen.
  const cells = (footprint * CELLS) / width;
  const slow = 1 - 0.3 * speed;
  const breaks = 0.55 + 0.35 * speed;
  const perSoft = 1 / (SOFT + (cells > 4 ? 0.08 * (cells - 4) : 0));
  const isFine = cells > 1;
  for (let i = 0; i < count; i++) {
    const u = far[i]!;
    if (u === NONE) continue;
    const p = pressure[i]!;
    const load = (0.13 + 0.85 * p) * slow;
    // Its edges break first, the sooner the faster it goes and the lighter it is pressed.
    const edge = u * u * (0.25 + 0.75 * u * u);
    const reach = u < 1 ? load * (1 - breaks * edge * (1.25 - 0.55 * p)) : 0.53 * load * (1.3 - u);
    const x = along[i]! * CELLS + shiftX;
    const y = across[i]! * 0.5 * CELLS + shiftY;
    const height = isFine ? groundCellAt(ground, x, y) : heightAt(ground, x, y);
    const share = (reach - height) * perSoft + 0.5;
    // Between 0 and 1, without a branch that no processor could foresee.
    opaque[i] = 0.5 * (Math.abs(share) + 1 - Math.abs(share - 1));
  }
};
