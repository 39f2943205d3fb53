/** A made stroke under the pen: worked out whole from what the pen has done so far, and drawn whole at every event. */
import { chunkCount } from '@tallow/core/brush';
import type { Samples } from '@tallow/core/document';
import { EMPTY_BOX, intersection, isEmpty, union, type Box, type Matrix } from '@tallow/core/geometry';
import { chunksBox, drawChunk, lay, wipe, type Context2D, type Surface } from '@tallow/core/render';
import type { StrokeSetup } from './stroke-setup.ts';
import { PenPath } from './pen-path.ts';

export class LiveFigure {
  readonly path: PenPath;
  private drawn = -1;
  private made: Samples | null = null;
  private box: Box = EMPTY_BOX;

  /** @param whole holds the stroke as it looks now; it is wiped. */
  constructor(
    readonly setup: StrokeSetup,
    readonly whole: Surface,
  ) {
    this.path = new PenPath(setup.making, setup.steadying);
    wipe(whole);
  }

  add(x: number, y: number, pressure: number, altitude: number, azimuth: number): void {
    this.path.add(x, y, pressure, altitude, azimuth);
  }

  private get line() {
    return this.made && { samples: this.made, brush: this.setup.brush, seed: this.setup.seed };
  }

  /** Draws the stroke as it is now. Returns the whole pixels that may look different. */
  draw(): Box {
    if (this.path.version === this.drawn) return EMPTY_BOX;
    this.drawn = this.path.version;
    const before = this.box;
    this.made = this.path.samples();
    const line = this.line!;
    const chunks = chunkCount(this.made.x.length, line.brush);
    const { paint, matrix } = this.setup;
    this.box = chunksBox(line, 0, chunks, matrix);
    const bounds: Box = { left: 0, top: 0, right: this.whole.width, bottom: this.whole.height };
    const dirty = intersection(union(before, this.box), bounds);
    if (isEmpty(dirty)) return EMPTY_BOX;
    const { context } = this.whole;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(dirty.left, dirty.top, dirty.right - dirty.left, dirty.bottom - dirty.top);
    for (let chunk = 0; chunk < chunks; chunk++) drawChunk(context, line, chunk, paint, matrix);
    return dirty;
  }

  /** Lays the part of the stroke inside `box` on a surface. */
  layOn(target: Surface, box: Box): void {
    lay(target.context, this.whole, box, this.setup.laying);
  }

  /** Draws the stroke as it is now at another size. A rub-out shows only where it is made. */
  sketch(context: Context2D, matrix: Matrix): void {
    const { line } = this;
    if (!line || this.setup.laying.operation === 'destination-out') return;
    for (let chunk = 0; chunk < chunkCount(line.samples.x.length, line.brush); chunk++)
      drawChunk(context, line, chunk, this.setup.paint, matrix);
  }

  /** The samples for keeping. */
  finish(): Samples {
    return this.path.samples();
  }
}
