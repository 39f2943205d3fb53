/** A queue of pixels that gives the one farthest from the lines first, and among equals the one that came first. */
import { FARTHEST, type DistanceField } from './distance-transform.ts';

/** The end of a list, where 0 is a pixel that was never in one. */
const LAST = -1;

/** Each pixel is in it once at most: coming again changes nothing. Lists of equals run through one array, so that nothing grows. */
export class WidestFirst {
  /** The first and last pixel of each list, counted from 1; 0 where it is empty. */
  private readonly heads: Int32Array;
  private readonly tails: Int32Array;
  private readonly next: Int32Array;
  private readonly max: number;
  private level = -1;

  constructor(private readonly near: DistanceField) {
    const { squares, order } = near;
    this.max = order.length > 0 ? squares[order[order.length - 1]!]! + 1 : 1;
    this.heads = new Int32Array(this.max + 1);
    this.tails = new Int32Array(this.max + 1);
    this.next = new Int32Array(squares.length);
  }

  push(pixel: number): void {
    if (this.next[pixel] !== 0) return;
    const square = this.near.squares[pixel]!;
    const level = square === FARTHEST ? this.max : square;
    this.next[pixel] = LAST;
    if (this.heads[level] === 0) this.heads[level] = pixel + 1;
    else this.next[this.tails[level]! - 1] = pixel + 1;
    this.tails[level] = pixel + 1;
    if (level > this.level) this.level = level;
  }

  pop(): number | undefined {
    for (; this.level >= 0; this.level--) {
      const head = this.heads[this.level]!;
      if (head === 0) continue;
      const next = this.next[head - 1]!;
      this.heads[this.level] = next === LAST ? 0 : next;
      return head - 1;
    }
    return undefined;
  }
}

/** Calls with each of the four neighbours of a pixel. */
export function besides(pixel: number, width: number, count: number, take: (next: number) => void): void {
  const column = pixel % width;
  if (column > 0) take(pixel - 1);
  if (column < width - 1) take(pixel + 1);
  if (pixel >= width) take(pixel - width);
  if (pixel < count - width) take(pixel + width);
}
