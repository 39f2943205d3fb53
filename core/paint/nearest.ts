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

/** Where lines are: 1; any other number is free. */
export const LINE = 1;

/** Pixels of lines with a free neighbour, four ways. */
function edgesOf(bits: Uint8Array, width: number, height: number): number[] {
  const edges: number[] = [];
  for (let y = 0, pixel = 0; y < height; y++)
    for (let x = 0; x < width; x++, pixel++) {
      if (bits[pixel] !== LINE) continue;
      if (
        (x > 0 && bits[pixel - 1] !== LINE) ||
        (x < width - 1 && bits[pixel + 1] !== LINE) ||
        (y > 0 && bits[pixel - width] !== LINE) ||
        (y < height - 1 && bits[pixel + width] !== LINE)
      )
        edges.push(pixel);
    }
  return edges;
}

/**
 * Spreads from lines into what is free, or from what is free into lines.
 * @param reach px, up to 255.
 */
export function nearestOf(
  bits: Uint8Array,
  width: number,
  height: number,
  from: 'lines' | 'free',
  reach: number,
): Near {
  const count = width * height;
  const squares = new Uint16Array(count).fill(FAR);
  const nearest = new Int32Array(count);
  const most = Math.floor(reach * reach);
  const buckets: (number[] | undefined)[] = [];
  const order: number[] = [];
  const intoLines = from === 'free';
  const spread = (source: number, next: number, dx: number, dy: number): void => {
    if ((bits[next] === LINE) !== intoLines) return;
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
  for (const pixel of edgesOf(bits, width, height)) {
    if (!intoLines) {
      pass(pixel, pixel);
      continue;
    }
    // The free pixels beside a line are what is spread from: each line pixel takes those round it.
    const x = pixel % width;
    const y = (pixel - x) / width;
    for (let dy = y > 0 ? -1 : 0; dy <= (y < height - 1 ? 1 : 0); dy++)
      for (let dx = x > 0 ? -1 : 0; dx <= (x < width - 1 ? 1 : 0); dx++) {
        const source = pixel + dy * width + dx;
        if (bits[source] !== LINE) spread(source, pixel, dx, dy);
      }
  }
  for (let square = 1; square <= most && square < buckets.length; square++) {
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
