/**
 * Rough grounds: height fields on a tile that repeats, against which a brush is pressed. Heights are spread evenly over
 * 0 to 255, so a brush that reaches to a share of the height covers that share of the ground. Built from integer hashes
 * and sums, they are the same in every engine.
 */

/** Heights in cells, both lengths powers of two. */
export interface Ground {
  readonly width: number;
  readonly height: number;
  readonly cells: Uint8Array;
}

/** White noise from 0 to 1. */
function noise(width: number, height: number, seed: number): Float32Array {
  const out = new Float32Array(width * height);
  for (let i = 0; i < out.length; i++) {
    let h = Math.imul(i + 1, 0x9e3779b1) ^ Math.imul(seed + 1, 0x85ebca6b);
    h = Math.imul(h ^ (h >>> 15), 0x27d4eb2f);
    h = Math.imul(h ^ (h >>> 13), 0x165667b1);
    out[i] = ((h ^ (h >>> 16)) >>> 0) / 4294967296;
  }
  return out;
}

/** The mean over `2 reach + 1` cells of each row; the last cell's neighbour is the first. */
function smoothedAlong(source: Float32Array, target: Float32Array, width: number, reach: number): void {
  const share = 1 / (2 * reach + 1);
  for (let start = 0; start < source.length; start += width) {
    const end = start + width;
    let sum = 0;
    for (let i = -reach; i <= reach; i++) sum += source[start + ((i + width) % width)]!;
    let ahead = start + ((reach + 1) % width);
    let behind = end - reach;
    for (let at = start; at < end; at++) {
      target[at] = sum * share;
      sum += source[ahead]! - source[behind]!;
      if (++ahead === end) ahead = start;
      if (++behind === end) behind = start;
    }
  }
}

/** The same of each column; row by row, as they lie in memory. */
function smoothedAcross(source: Float32Array, target: Float32Array, width: number, reach: number): void {
  const share = 1 / (2 * reach + 1);
  const height = source.length / width;
  const rowAt = (y: number) => ((y + height) % height) * width;
  const sums = new Float64Array(width);
  for (let y = -reach; y <= reach; y++) {
    const row = rowAt(y);
    for (let x = 0; x < width; x++) sums[x]! += source[row + x]!;
  }
  for (let y = 0; y < height; y++) {
    const [row, ahead, behind] = [y * width, rowAt(y + reach + 1), rowAt(y - reach)];
    for (let x = 0; x < width; x++) {
      const sum = sums[x]!;
      target[row + x] = sum * share;
      sums[x] = sum + (source[ahead + x]! - source[behind + x]!);
    }
  }
}

/** Noise made smooth by three means along each axis, which comes near a Gaussian. Deviation 1, mean 0. */
export function smoothNoise(width: number, height: number, seed: number, reachX: number, reachY: number): Float32Array {
  const field = noise(width, height, seed);
  const next = new Float32Array(field.length);
  for (let pass = 0; pass < 3; pass++) {
    smoothedAlong(field, next, width, reachX);
    smoothedAcross(next, field, width, reachY);
  }
  let [sum, squares] = [0, 0];
  for (let i = 0; i < field.length; i++) {
    const v = field[i]!;
    sum += v;
    squares += v * v;
  }
  const mean = sum / field.length;
  const deviation = Math.sqrt(squares / field.length - mean * mean);
  for (let i = 0; i < field.length; i++) next[i] = (field[i]! - mean) / deviation;
  return next;
}

/** Heights whose order is that of a field's and which are spread evenly. */
export function evenly(field: Float32Array, width: number, height: number): Ground {
  const STEPS = 4096;
  let [min, max] = [Infinity, -Infinity];
  for (let i = 0; i < field.length; i++) {
    const v = field[i]!;
    if (v < min) min = v;
    if (v > max) max = v;
  }
  const bins = new Uint16Array(field.length);
  const below = new Float64Array(STEPS);
  for (let i = 0; i < field.length; i++) {
    const bin = Math.min(STEPS - 1, Math.floor(((field[i]! - min) / (max - min)) * STEPS));
    bins[i] = bin;
    below[bin]! += 1;
  }
  let sum = 0;
  const heights = new Uint8Array(STEPS);
  for (let i = 0; i < STEPS; i++) {
    const own = below[i]!;
    heights[i] = Math.round((255 * (sum + own / 2)) / field.length);
    sum += own;
  }
  const cells = new Uint8Array(field.length);
  for (let i = 0; i < cells.length; i++) cells[i] = heights[bins[i]!]!;
  return { width, height, cells };
}

/**
 * A place in cells as one that is not below 0, the same on the tile: from there on whole cells are found by cutting off.
 * Nothing is drawn so far from the beginning that this many tiles would not do.
 */
const above0 = (place: number, length: number): number => place + length * 4096;

/** The height of the cell at a place in cells, 0 to 1. */
export const groundCellAt = ({ width, height, cells }: Ground, x: number, y: number): number =>
  cells[(above0(y, height) & (height - 1)) * width + (above0(x, width) & (width - 1))]! / 255;

/** The height at a place in cells, 0 to 1, straight between the four cells round it. */
export function heightAt({ width, height, cells }: Ground, x: number, y: number): number {
  const fx = Math.floor(x);
  const fy = Math.floor(y);
  const tx = x - fx;
  const ty = y - fy;
  const left = fx & (width - 1);
  const right = (fx + 1) & (width - 1);
  const top = (fy & (height - 1)) * width;
  const bottom = ((fy + 1) & (height - 1)) * width;
  const upper = cells[top + left]! * (1 - tx) + cells[top + right]! * tx;
  const lower = cells[bottom + left]! * (1 - tx) + cells[bottom + right]! * tx;
  return (upper * (1 - ty) + lower * ty) / 255;
}
