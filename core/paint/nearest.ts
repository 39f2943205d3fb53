/**
 * The nearest pixel of some set, for pixels near it: spread outwards in rings of equal distance, each pixel
 * passing its own nearest on to its neighbours (vector propagation after Danielsson, 1980, in the order of
 * distance). What it costs goes with the pixels reached, not with the picture.
 */

/** Squared distances of what is not reached. */
export const FAR = 0xffff;

export interface Near {
  /** Squared distance to the nearest pixel of the set, whole, `FAR` where none is within reach. */
  readonly squares: Uint16Array;
  /** Index of that pixel; of no meaning where none is within reach. */
  readonly nearest: Int32Array;
  /** Reached pixels from near to far. */
  readonly order: Int32Array;
}

/** A picture of yes (1) and no (0). */
export interface Mask {
  readonly bits: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/**
 * Spreads from the pixels of a mask that are `from` into those that are not.
 * @param reach px, up to 255.
 */
export function nearestOf({ bits, width, height }: Mask, from: 0 | 1, reach: number): Near {
  const count = width * height;
  const squares = new Uint16Array(count).fill(FAR);
  const nearest = new Int32Array(count);
  const most = Math.floor(reach * reach);
  const buckets: (number[] | undefined)[] = new Array<number[] | undefined>(most + 1);
  const order: number[] = [];
  const spread = (source: number, next: number, dx: number, dy: number): void => {
    if (bits[next] === from) return;
    const square = dx * dx + dy * dy;
    if (square > most || square >= squares[next]!) return;
    squares[next] = square;
    nearest[next] = source;
    (buckets[square] ??= []).push(next);
  };
  const pass = (pixel: number, source: number): void => {
    const x = pixel % width;
    const y = (pixel - x) / width;
    const sx = source % width;
    const dx = x - sx;
    const dy = y - (source - sx) / width;
    const [west, east] = [x > 0, x < width - 1];
    if (y > 0) {
      spread(source, pixel - width, dx, dy - 1);
      if (west) spread(source, pixel - width - 1, dx - 1, dy - 1);
      if (east) spread(source, pixel - width + 1, dx + 1, dy - 1);
    }
    if (y < height - 1) {
      spread(source, pixel + width, dx, dy + 1);
      if (west) spread(source, pixel + width - 1, dx - 1, dy + 1);
      if (east) spread(source, pixel + width + 1, dx + 1, dy + 1);
    }
    if (west) spread(source, pixel - 1, dx - 1, dy);
    if (east) spread(source, pixel + 1, dx + 1, dy);
  };
  let own = 0;
  for (let i = 0; i < count; i++) own += bits[i]!;
  const sparse = from === 1 ? own : count - own;
  const next = (pixel: number, x: number, y: number): boolean =>
    (x > 0 && bits[pixel - 1] !== bits[pixel]) ||
    (x < width - 1 && bits[pixel + 1] !== bits[pixel]) ||
    (y > 0 && bits[pixel - width] !== bits[pixel]) ||
    (y < height - 1 && bits[pixel + width] !== bits[pixel]);
  // Whichever of the two there is less of is looked at for where they meet.
  const looked = 2 * sparse <= count ? from : 1 - from;
  for (let y = 0, pixel = 0; y < height; y++)
    for (let x = 0; x < width; x++, pixel++) {
      if (bits[pixel] !== looked || !next(pixel, x, y)) continue;
      if (looked === from) pass(pixel, pixel);
      else
        for (let dy = -1; dy <= 1; dy++)
          for (let dx = -1; dx <= 1; dx++) {
            if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height) continue;
            const source = pixel + dy * width + dx;
            if (bits[source] === from) spread(source, pixel, dx, dy);
          }
    }
  for (let square = 1; square <= most; square++) {
    const bucket = buckets[square];
    if (!bucket) continue;
    for (const pixel of bucket) {
      if (squares[pixel] !== square) continue;
      order.push(pixel);
      pass(pixel, nearest[pixel]!);
    }
    buckets[square] = undefined;
  }
  return { squares, nearest, order: Int32Array.from(order) };
}
