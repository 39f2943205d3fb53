/** A queue of pixels that gives the one farthest from the lines first, and among equals the one that came first. */
import { FAR, type Near } from './nearest.ts';

export class WidestFirst {
  private readonly buckets: number[][];
  private readonly heads: Int32Array;
  private level = -1;
  private readonly most: number;

  constructor(private readonly near: Near) {
    const { squares, order } = near;
    this.most = order.length > 0 ? squares[order[order.length - 1]!]! + 1 : 1;
    this.buckets = Array.from({ length: this.most + 1 }, () => []);
    this.heads = new Int32Array(this.most + 1);
  }

  push(pixel: number): void {
    const square = this.near.squares[pixel]!;
    const level = square === FAR ? this.most : square;
    this.buckets[level]!.push(pixel);
    if (level > this.level) this.level = level;
  }

  pop(): number | undefined {
    for (; this.level >= 0; this.level--) {
      const bucket = this.buckets[this.level]!;
      const head = this.heads[this.level]!;
      if (head < bucket.length) {
        this.heads[this.level] = head + 1;
        return bucket[head];
      }
      bucket.length = 0;
      this.heads[this.level] = 0;
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
