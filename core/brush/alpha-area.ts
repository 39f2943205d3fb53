/** How opaque each pixel of a box is, and which squares of it anything has been laid in. */
import type { Box } from '../geometry/index.ts';

/** Row by row. `left` and `top` are the place of the first pixel, device px. */
export interface AlphaArea {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly alpha: Uint8Array;
  /** Squares of `TILE` px, row by row, from the first pixel on: 1 where something may have been laid. */
  readonly touched: Uint8Array;
}

/** Side of a square, px: a stroke covers little of its box, and small squares keep to it. */
const TILE_BITS = 5;
const TILE = 1 << TILE_BITS;
const tilesAcross = (length: number): number => (length + TILE - 1) >> TILE_BITS;

/** An area of whole device pixels with nothing in it. */
export function emptyArea({ left, top, right, bottom }: Box): AlphaArea {
  const [width, height] = [right - left, bottom - top];
  const touched = new Uint8Array(tilesAcross(width) * tilesAcross(height));
  return { left, top, width, height, alpha: new Uint8Array(width * height), touched };
}

/** Notes that something is laid in a row. @param from, @param to px from the area's first column, the last not among them. */
export function touchRow({ width, touched }: AlphaArea, row: number, from: number, to: number): void {
  const at = (row >> TILE_BITS) * tilesAcross(width);
  for (let tile = from >> TILE_BITS; tile <= (to - 1) >> TILE_BITS; tile++) touched[at + tile] = 1;
}

/** Boxes that hold all that has been laid, device px: squares, those side by side put together. */
export function touchedBoxes({ left, top, width, height, touched }: AlphaArea): Box[] {
  const boxes: Box[] = [];
  const [right, bottom, across] = [left + width, top + height, tilesAcross(width)];
  for (let row = 0; row < tilesAcross(height); row++) {
    for (let tile = 0; tile < across; tile++) {
      if (touched[row * across + tile] === 0) continue;
      const first = tile;
      while (tile + 1 < across && touched[row * across + tile + 1] === 1) tile += 1;
      boxes.push({
        left: left + first * TILE,
        top: top + row * TILE,
        right: Math.min(right, left + (tile + 1) * TILE),
        bottom: Math.min(bottom, top + (row + 1) * TILE),
      });
    }
  }
  return boxes;
}
