/** Where anything lies on a surface: asked for many boxes, its pixels are looked at once. */
import type { Box } from '../geometry/index.ts';
import type { Surface } from './surface.ts';

/** Px along the side of the squares that are looked at. */
const SQUARE = 4;

/**
 * Looks a surface over.
 * @returns whether anything lies within a box of device px, or within three px around it.
 */
export function coveredIn({ context, width, height }: Surface): (box: Box) => boolean {
  const { data } = context.getImageData(0, 0, width, height);
  const [across, down] = [Math.ceil(width / SQUARE), Math.ceil(height / SQUARE)];
  const row = across + 1;
  const squares = new Uint8Array(across);
  // How many squares above and left of a corner are covered: a box is known by its four corners.
  const sums = new Int32Array(row * (down + 1));
  for (let v = 0; v < down; v++) {
    squares.fill(0);
    const bottom = Math.min(height, (v + 1) * SQUARE);
    for (let y = v * SQUARE; y < bottom; y++) {
      let alpha = y * width * 4 + 3;
      for (let x = 0; x < width; x++, alpha += 4) if (data[alpha] !== 0) squares[(x / SQUARE) | 0] = 1;
    }
    let sum = 0;
    for (let u = 0; u < across; u++) {
      sum += squares[u]!;
      sums[(v + 1) * row + u + 1] = sums[v * row + u + 1]! + sum;
    }
  }
  const within = (at: number, max: number): number => Math.max(0, Math.min(max, at));
  return ({ left, top, right, bottom }) => {
    const u0 = within(Math.floor(left / SQUARE), across);
    const v0 = within(Math.floor(top / SQUARE), down) * row;
    const u1 = within(Math.ceil(right / SQUARE), across);
    const v1 = within(Math.ceil(bottom / SQUARE), down) * row;
    return sums[v1 + u1]! - sums[v0 + u1]! - sums[v1 + u0]! + sums[v0 + u0]! > 0;
  };
}
