/**
 * The stroke under the pen: kept as chunks on surfaces of the picture's size, so that an event
 * draws only what can still move, however long the stroke and whatever lies under it.
 */
import { chunkCount, firstOpenChunk, steadyReach, SteadyStroke, type SteadyStroke as Steady } from '@tallow/core/brush';
import type { Samples } from '@tallow/core/document';
import type { StrokeSetup } from './stroke-setup.ts';
import { EMPTY_BOX, intersection, isEmpty, union, type Box, type Matrix } from '@tallow/core/geometry';
import { chunksBox, drawChunk, lay, wipe, type Context2D, type Surface } from '@tallow/core/render';

export class LiveStroke {
  readonly setup: StrokeSetup;
  private readonly steady: Steady;
  private baked = 0;
  private tail: Box = EMPTY_BOX;
  private drawnSamples = 0;

  /** @param whole holds the stroke as it looks now; @param fixed only its finished chunks. Both are wiped. */
  constructor(
    setup: StrokeSetup,
    readonly whole: Surface,
    private readonly fixed: Surface,
  ) {
    this.setup = setup;
    this.steady = new SteadyStroke(steadyReach(setup.steadying));
    wipe(whole);
    wipe(fixed);
  }

  add(x: number, y: number, pressure: number, altitude: number, azimuth: number): void {
    this.steady.add(x, y, pressure, altitude, azimuth);
  }

  /** Leads the stroke back to where it began. */
  close(): void {
    const { x, y, pressure, altitude, azimuth } = this.steady.view();
    const last = x.length - 1;
    this.add(x[0]!, y[0]!, pressure[last]!, altitude[last]!, azimuth[last]!);
  }

  /** Draws what is new. Returns the whole pixels that may look different now. */
  draw(): Box {
    if (this.steady.count === this.drawnSamples) return EMPTY_BOX;
    this.drawnSamples = this.steady.count;
    const { brush, paint, matrix, seed } = this.setup;
    const samples = this.steady.view();
    const stroke = { samples, brush, seed };
    const settled = firstOpenChunk(samples, brush, this.steady.settledCount);
    const open = Math.min(settled, chunkCount(this.steady.count, brush) - 1);
    const bounds: Box = { left: 0, top: 0, right: this.whole.width, bottom: this.whole.height };
    const now = chunksBox(stroke, this.baked, chunkCount(this.steady.count, brush), matrix);
    const dirty = intersection(union(this.tail, now), bounds);
    for (; this.baked < open; this.baked++) drawChunk(this.fixed.context, stroke, this.baked, paint, matrix);
    if (!isEmpty(dirty)) {
      const [x, y, width, height] = [dirty.left, dirty.top, dirty.right - dirty.left, dirty.bottom - dirty.top];
      const { context } = this.whole;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(x, y, width, height);
      context.drawImage(this.fixed.picture, x, y, width, height, x, y, width, height);
    }
    for (let chunk = this.baked; chunk < chunkCount(this.steady.count, brush); chunk++)
      drawChunk(this.whole.context, stroke, chunk, paint, matrix);
    this.tail = chunksBox(stroke, this.baked, chunkCount(this.steady.count, brush), matrix);
    return dirty;
  }

  /** Lays the part of the stroke inside `box` on a surface. */
  layOn(target: Surface, box: Box): void {
    lay(target.context, this.whole, box, this.setup.laying);
  }

  /** Draws the stroke as it is now at another size. A rub-out shows only where it is made. */
  sketch(context: Context2D, matrix: Matrix): void {
    const { brush, paint, laying, seed } = this.setup;
    if (laying.operation === 'destination-out' || this.steady.count === 0) return;
    const stroke = { samples: this.steady.view(), brush, seed };
    for (let chunk = 0; chunk < chunkCount(this.steady.count, brush); chunk++)
      drawChunk(context, stroke, chunk, paint, matrix);
  }

  /** The samples for keeping. */
  finish(): Samples {
    return this.steady.finish();
  }
}
