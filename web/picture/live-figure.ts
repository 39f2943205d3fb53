/** A made stroke under the pen: worked out whole from what the pen has done so far, and laid whole wherever it is shown. */
import { chunkCount } from '@tallow/core/brush';
import type { Samples } from '@tallow/core/document';
import { EMPTY_BOX, union, type Box, type Matrix } from '@tallow/core/geometry';
import { chunksBox, drawStroke, type Scratch, type Surface } from '@tallow/core/render';
import type { StrokeSetup } from './stroke-setup.ts';
import { PenPath } from './pen-path.ts';

export class LiveFigure {
  readonly path: PenPath;
  private drawn = -1;
  private made: Samples | null = null;
  private box: Box = EMPTY_BOX;

  constructor(
    readonly setup: StrokeSetup,
    private readonly scratch: Scratch,
  ) {
    this.path = new PenPath(setup.making, setup.steadying);
  }

  add(x: number, y: number, pressure: number, altitude: number, azimuth: number): void {
    this.path.add(x, y, pressure, altitude, azimuth);
  }

  private get line() {
    return this.made && { samples: this.made, brush: this.setup.brush, seed: this.setup.seed };
  }

  /** Takes in what is new. Returns the whole pixels that may look different: all of the stroke. */
  draw(): Box {
    if (this.path.version === this.drawn) return EMPTY_BOX;
    this.drawn = this.path.version;
    const before = this.box;
    this.made = this.path.samples();
    const line = this.line!;
    this.box = chunksBox(line, 0, chunkCount(this.made.x.length, line.brush), this.setup.matrix);
    return union(before, this.box);
  }

  /** Lays the stroke on a surface that is as it was before it where the stroke lies. */
  layOn(target: Surface): void {
    const { laying, paint, matrix } = this.setup;
    if (this.line) drawStroke(target, this.scratch, this.line, laying, paint, matrix);
  }

  /** Draws the stroke as it is now at another size. A rub-out shows only where it is made. */
  sketch(target: Surface, scratch: Scratch, matrix: Matrix): void {
    const { laying, paint } = this.setup;
    if (this.line && laying.operation !== 'destination-out')
      drawStroke(target, scratch, this.line, laying, paint, matrix);
  }

  /** The samples for keeping. */
  finish(): Samples {
    return this.path.samples();
  }
}
