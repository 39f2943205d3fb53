/** A stroke on a rough ground: how opaque its finished chunks make each pixel of a box, and the pixels that come of it. */
import { depositChunk, emptyArea, SHADES, touchedBoxes, type AlphaArea } from '../brush/index.ts';
import type { Surface } from '../canvas/index.ts';
import type { Stroke } from '../document/index.ts';
import { intersection, isEmpty, type Box, type Matrix } from '../geometry/index.ts';
import { coloursOf, linePaint, type Paint } from './paint.ts';

/** What of a stroke its raster is made from, besides its colour. */
export type RasterLine = Pick<Stroke, 'samples' | 'brush' | 'seed'>;

export class GroundStroke {
  private readonly area: AlphaArea;

  /** @param box whole device pixels; what lies outside it is left out. */
  constructor(private readonly box: Box) {
    this.area = emptyArea(box);
  }

  /** Lays a chunk that nothing will change any more. */
  bake(line: RasterLine, chunk: number, matrix: Matrix): void {
    const shade = SHADES[line.brush.kind];
    if (shade) depositChunk(line.samples, line.brush, line.seed, chunk, shade, matrix, this.area);
  }

  /**
   * Puts the pixels of a part of the box on a surface, in place of what is there.
   * @param from, @param to chunks that are not baked yet, shown with the rest.
   */
  put(target: Surface, line: RasterLine, from: number, to: number, paint: Paint, matrix: Matrix, part: Box): void {
    const box = intersection(part, this.box);
    if (isEmpty(box)) return;
    const shown = from < to ? this.with(line, from, to, matrix, box) : this.area;
    const pixels = target.context.createImageData(box.right - box.left, box.bottom - box.top);
    coloursOf(linePaint(paint), matrix).colour(pixels, shown, box);
    target.context.putImageData(pixels, box.left, box.top);
  }

  /**
   * Puts what is baked on a surface in place of what is there, leaving out what nothing touched: a stroke covers little of its box.
   * @param left, @param top device pixel that is the surface's first. @returns the boxes that hold all of it, device px.
   */
  putTouched(target: Surface, paint: Paint, matrix: Matrix, left: number, top: number): Box[] {
    const colours = coloursOf(linePaint(paint), matrix);
    const boxes = touchedBoxes(this.area);
    // One array of pixels for all of them: to ask for one costs more than to fill it.
    const pixels = target.context.createImageData(
      Math.max(1, ...boxes.map((box) => box.right - box.left)),
      Math.max(1, ...boxes.map((box) => box.bottom - box.top)),
    );
    for (const box of boxes) {
      colours.colour(pixels, this.area, box);
      const [width, height] = [box.right - box.left, box.bottom - box.top];
      target.context.putImageData(pixels, box.left - left, box.top - top, 0, 0, width, height);
    }
    return boxes;
  }

  /** A part of the box with more chunks on it. */
  private with(line: RasterLine, from: number, to: number, matrix: Matrix, box: Box): AlphaArea {
    const part = emptyArea(box);
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
