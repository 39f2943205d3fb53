/** How dark a scanned picture is, its paper taken out: light that falls unevenly and yellowed paper are no pencil. */

/** A grey picture, row by row: 0 is paper, 1 as dark as can be. */
export interface Darkness {
  readonly values: Float32Array;
  readonly width: number;
  readonly height: number;
}

/** Pixels as a canvas has them: red, green, blue, alpha of 0 to 255. */
export interface ScannedPixels {
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
}

/** The paper is looked for in blocks: so many along the longer side, of so many px at least. */
const [BLOCKS, SMALLEST] = [50, 8] as const;
/** In a block, the paper is as bright as this share of its pixels is at most: pencil covers less than the rest. */
const BRIGHT = 0.85;
/** How many blocks around are looked at: a large dark area is no paper. */
const AROUND = 3;

/** Luma of Rec. 601 over white paper, 0 to 255: what is seen through is paper too. */
function greyOf({ data, width, height }: ScannedPixels): Float32Array {
  const grey = new Float32Array(width * height);
  for (let i = 0, p = 0; i < grey.length; i++, p += 4) {
    const alpha = data[p + 3]! / 255;
    const luma = 0.299 * data[p]! + 0.587 * data[p + 1]! + 0.114 * data[p + 2]!;
    grey[i] = 255 - alpha * (255 - luma);
  }
  return grey;
}

/** A picture in blocks. */
interface Blocks {
  readonly width: number;
  readonly height: number;
  /** px of a side. */
  readonly block: number;
  readonly columns: number;
  readonly rows: number;
}

function blocksOf({ width, height }: Pick<ScannedPixels, 'width' | 'height'>): Blocks {
  const block = Math.max(SMALLEST, Math.round(Math.max(width, height) / BLOCKS));
  return { width, height, block, columns: Math.ceil(width / block), rows: Math.ceil(height / block) };
}

/** How bright the paper is in each block. */
function paperIn(grey: Float32Array, { width, height, block, columns, rows }: Blocks): Float32Array {
  const found = new Float32Array(columns * rows);
  const counts = new Uint32Array(256);
  for (let by = 0; by < rows; by++)
    for (let bx = 0; bx < columns; bx++) {
      counts.fill(0);
      const [right, bottom] = [Math.min(width, (bx + 1) * block), Math.min(height, (by + 1) * block)];
      for (let y = by * block; y < bottom; y++)
        for (let x = bx * block; x < right; x++) counts[Math.round(grey[y * width + x]!)]! += 1;
      const all = (right - bx * block) * (bottom - by * block);
      let [level, sum] = [0, counts[0]!];
      while (level < 255 && sum < all * BRIGHT) sum += counts[++level]!;
      found[by * columns + bx] = level;
    }
  return found;
}

/** Dark areas closed by the paper around them, as far as light falls evenly: the brightest around, and of that the darkest around; evened out. */
function spread(paper: Float32Array, { columns, rows }: Blocks): Float32Array {
  const over = (from: Float32Array, reach: number, join: (a: number, b: number, n: number) => number): Float32Array =>
    from.map((_, i) => {
      const [cx, cy] = [i % columns, Math.floor(i / columns)];
      let [value, n] = [0, 0];
      for (let y = Math.max(0, cy - reach); y <= Math.min(rows - 1, cy + reach); y++)
        for (let x = Math.max(0, cx - reach); x <= Math.min(columns - 1, cx + reach); x++)
          value = join(value, from[y * columns + x]!, n++);
      return value;
    });
  const brightest = over(paper, AROUND, (a, b) => Math.max(a, b));
  const closed = over(brightest, AROUND, (a, b, n) => (n === 0 ? b : Math.min(a, b)));
  return over(closed, 1, (mean, each, n) => mean + (each - mean) / (n + 1));
}

/** Between the middles of blocks, bilinear. */
function between(paper: Float32Array, { block, columns, rows }: Blocks, x: number, y: number): number {
  const u = Math.min(columns - 1, Math.max(0, (x + 0.5) / block - 0.5));
  const v = Math.min(rows - 1, Math.max(0, (y + 0.5) / block - 0.5));
  const [left, top] = [Math.floor(u), Math.floor(v)];
  const [right, bottom] = [Math.min(columns - 1, left + 1), Math.min(rows - 1, top + 1)];
  const [fx, fy] = [u - left, v - top];
  const at = (row: number, column: number): number => paper[row * columns + column]!;
  const upper = at(top, left) * (1 - fx) + at(top, right) * fx;
  const lower = at(bottom, left) * (1 - fx) + at(bottom, right) * fx;
  return upper * (1 - fy) + lower * fy;
}

/** How dark each pixel is against the paper around it. */
export function darknessOf(pixels: ScannedPixels): Darkness {
  const { width, height } = pixels;
  const grey = greyOf(pixels);
  const blocks = blocksOf(pixels);
  const paper = spread(paperIn(grey, blocks), blocks);
  const values = new Float32Array(width * height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const white = Math.max(1, between(paper, blocks, x, y));
      values[i] = Math.min(1, Math.max(0, 1 - grey[i]! / white));
    }
  return { values, width, height };
}

/** What counts as pencil, as shares of the way from paper to black. */
export interface Levels {
  /** Up to so dark it is paper. */
  readonly paper: number;
  /** From so dark on it is as dark as pencil gets. */
  readonly dark: number;
}

export const DEFAULT_LEVELS: Levels = { paper: 0.12, dark: 0.6 };
export const LEVEL_LIMITS = { paper: { min: 0.02, max: 0.6 }, dark: { min: 0.1, max: 1 }, apart: 0.05 } as const;

/** How much of a pencil line a pixel is, 0 to 1. */
export function pencilAt(darkness: number, { paper, dark }: Levels): number {
  return Math.min(1, Math.max(0, (darkness - paper) / Math.max(LEVEL_LIMITS.apart, dark - paper)));
}
