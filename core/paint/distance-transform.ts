/**
 * Distance transform: the nearest pixel of some set, for pixels near it. Within a few px every pixel of the set's edge is tried
 * at each offset, the nearest offsets first: whoever comes first is nearest. Farther out it spreads in rings of equal distance,
 * each pixel passing its own nearest on to its neighbours (vector propagation after Danielsson, 1980, in the order of distance).
 * What it costs goes with the pixels reached, not with the picture.
 */

/** Squared distances of what is not reached. */
export const FARTHEST = 0xffff;

export interface DistanceField {
  /** Squared distance to the nearest pixel of the set, whole, `FARTHEST` where none is within reach. */
  readonly squares: Uint16Array;
  /** Index of that pixel; of no meaning where none is within reach. */
  readonly nearest: Int32Array;
  /** Reached pixels from near to far. */
  readonly order: Int32Array;
}

/** Where lines are: 1; any other number is free. */
export const LINE = 1;

/** How far every offset is tried, px: farther out there are too many of them. */
const TRIED = 7;

/** Offsets up to `TRIED` px, the nearest first. */
const OFFSETS: readonly { readonly dx: number; readonly dy: number; readonly square: number }[] = Array.from(
  { length: (2 * TRIED + 1) ** 2 },
  (_, i) => ({ dx: (i % (2 * TRIED + 1)) - TRIED, dy: Math.floor(i / (2 * TRIED + 1)) - TRIED }),
)
  .map(({ dx, dy }) => ({ dx, dy, square: dx * dx + dy * dy }))
  .filter(({ square }) => square > 0 && square <= TRIED * TRIED)
  .sort((a, b) => a.square - b.square);

/** Pixels of the set with a neighbour outside it, four ways. @param lines whether the set is that of lines. */
function edgesOf(bits: Uint8Array, width: number, height: number, lines: boolean): number[] {
  const edges: number[] = [];
  for (let y = 0, pixel = 0; y < height; y++)
    for (let x = 0; x < width; x++, pixel++) {
      if ((bits[pixel] === LINE) !== lines) continue;
      if (
        (x > 0 && (bits[pixel - 1] === LINE) !== lines) ||
        (x < width - 1 && (bits[pixel + 1] === LINE) !== lines) ||
        (y > 0 && (bits[pixel - width] === LINE) !== lines) ||
        (y < height - 1 && (bits[pixel + width] === LINE) !== lines)
      )
        edges.push(pixel);
    }
  return edges;
}

/**
 * Spreads from lines into what is free, or from what is free into lines.
 * @param reach px, up to 255.
 */
export function distanceTransform(
  bits: Uint8Array,
  width: number,
  height: number,
  from: 'lines' | 'free',
  reach: number,
): DistanceField {
  const count = width * height;
  const squares = new Uint16Array(count).fill(FARTHEST);
  const nearest = new Int32Array(count);
  const max = Math.floor(reach * reach);
  const order: number[] = [];
  const intoLines = from === 'free';
  const edges = edgesOf(bits, width, height, !intoLines);
  const columns = Int32Array.from(edges, (pixel) => pixel % width);
  let found = 0;
  for (const { dx, dy, square } of OFFSETS) {
    if (square > max) break;
    const step = dy * width + dx;
    const before = order.length;
    for (let i = 0; i < edges.length; i++) {
      const column = columns[i]! + dx;
      if (column < 0 || column >= width) continue;
      const pixel = edges[i]! + step;
      if (pixel < 0 || pixel >= count || squares[pixel] !== FARTHEST || (bits[pixel] === LINE) !== intoLines) continue;
      squares[pixel] = square;
      nearest[pixel] = edges[i]!;
      order.push(pixel);
    }
    // Thin lines are reached whole long before the last offset.
    found = order.length > before ? 0 : found + 1;
    if (found > 8) break;
  }
  if (max > TRIED * TRIED && found <= 8) spreadOn(bits, width, height, intoLines, max, squares, nearest, order);
  return { squares, nearest, order: Int32Array.from(order) };
}

/** Goes on from what was reached within `TRIED` px. */
function spreadOn(
  bits: Uint8Array,
  width: number,
  height: number,
  intoLines: boolean,
  max: number,
  squares: Uint16Array,
  nearest: Int32Array,
  order: number[],
): void {
  const buckets: (number[] | undefined)[] = [];
  const spread = (source: number, next: number, dx: number, dy: number): void => {
    if ((bits[next] === LINE) !== intoLines) return;
    const square = dx * dx + dy * dy;
    if (square > max || square >= squares[next]!) return;
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
  const inner = (TRIED - 2) * (TRIED - 2);
  for (const pixel of order.slice()) if (squares[pixel]! >= inner) pass(pixel, nearest[pixel]!);
  for (let square = TRIED * TRIED + 1; square <= max && square < buckets.length; square++) {
    const bucket = buckets[square];
    if (!bucket) continue;
    for (const pixel of bucket) {
      if (squares[pixel] !== square) continue;
      order.push(pixel);
      pass(pixel, nearest[pixel]!);
    }
    buckets[square] = undefined;
  }
}
