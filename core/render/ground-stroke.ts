/** A stroke on a rough ground: how opaque its finished chunks make each pixel of a box, and the pixels that come of it. */
import { depositChunk, SHADES, type AlphaArea } from '../brush/index.ts';
import type { Surface } from '../canvas/index.ts';
import type { Stroke } from '../document/index.ts';
import { intersection, isEmpty, type Box, type Matrix } from '../geometry/index.ts';
import { coloursOf, linePaint, type Paint } from './paint.ts';

/** What of a stroke its raster is made from, besides its colour. */
export type Line = Pick<Stroke, 'samples' | 'brush' | 'seed'>;

const areaOf = ({ left, top, right, bottom }: Box): AlphaArea => {
  const [width, height] = [right - left, bottom - top];
  return { left, top, width, height, alpha: new Uint8Array(width * height) };
};

export class GroundStroke {
  private readonly area: AlphaArea;

  /** @param box whole device pixels; what lies outside it is left out. */
  constructor(private readonly box: Box) {
    this.area = areaOf(box);
  }

  /** Lays a chunk that nothing will change any more. */
  bake(line: Line, chunk: number, matrix: Matrix): void {
    const shade = SHADES[line.brush.kind];
    if (shade) depositChunk(line.samples, line.brush, line.seed, chunk, shade, matrix, this.area);
  }

  /**
   * Puts the pixels of a part of the box on a surface, in place of what is there.
   * @param from, @param to chunks that are not baked yet, shown with the rest.
   */
  put(target: Surface, line: Line, from: number, to: number, paint: Paint, matrix: Matrix, part: Box): void {
    const box = intersection(part, this.box);
    if (isEmpty(box)) return;
    const shown = from < to ? this.with(line, from, to, matrix, box) : this.area;
    const pixels = target.context.createImageData(box.right - box.left, box.bottom - box.top);
    coloursOf(linePaint(paint), matrix).colour(pixels.data, shown, box);
    target.context.putImageData(pixels, box.left, box.top);
  }

  /**
   * Puts what is baked on an emptied surface, leaving out what nothing touched: a stroke covers little of its box.
   * @param left, @param top device pixel that is the surface's first.
   */
  putTouched(target: Surface, paint: Paint, matrix: Matrix, left: number, top: number): void {
    const colours = coloursOf(linePaint(paint), matrix);
    for (const box of touchedIn(this.area)) {
      const pixels = target.context.createImageData(box.right - box.left, box.bottom - box.top);
      colours.colour(pixels.data, this.area, box);
      target.context.putImageData(pixels, box.left - left, box.top - top);
    }
  }

  /** A part of the box with more chunks on it. */
  private with(line: Line, from: number, to: number, matrix: Matrix, box: Box): AlphaArea {
    const part = areaOf(box);
    for (let y = 0; y < part.height; y++) {
      const at = (box.top + y - this.area.top) * this.area.width + box.left - this.area.left;
      part.alpha.set(this.area.alpha.subarray(at, at + part.width), y * part.width);
    }
    const shade = SHADES[line.brush.kind];
    if (shade)
      for (let chunk = from; chunk < to; chunk++)
        depositChunk(line.samples, line.brush, line.seed, chunk, shade, matrix, part);
    return part;
  }
}

/** Side of the squares that are looked at one by one, px. */
const TILE = 96;

function isTouched({ left, top, width, alpha }: AlphaArea, box: Box): boolean {
  for (let y = box.top; y < box.bottom; y++) {
    const row = (y - top) * width - left;
    for (let at = row + box.left; at < row + box.right; at++) if (alpha[at] !== 0) return true;
  }
  return false;
}

/** Boxes that hold all that is not see-through: squares, those side by side put together. */
function touchedIn(area: AlphaArea): Box[] {
  const boxes: Box[] = [];
  const [right, bottom] = [area.left + area.width, area.top + area.height];
  for (let top = area.top; top < bottom; top += TILE) {
    let run: Box | null = null as Box | null;
    for (let left = area.left; left < right; left += TILE) {
      const tile = { left, top, right: Math.min(right, left + TILE), bottom: Math.min(bottom, top + TILE) };
      if (!isTouched(area, tile)) {
        run = null;
      } else if (run) {
        run = { ...run, right: tile.right };
        boxes[boxes.length - 1] = run;
      } else {
        run = tile;
        boxes.push(run);
      }
    }
  }
  return boxes;
}
