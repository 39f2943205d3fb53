/**
 * The stroke under the pen: kept as chunks on surfaces of the picture's size, so that an event
 * draws only what can still move, however long the stroke and whatever lies under it.
 */
import { chunkCount, firstOpenChunk, steadyReach, SteadyStroke, type SteadyStroke as Steady } from '@tallow/core/brush';
import type { Samples } from '@tallow/core/document';
import type { StrokeSetup } from './stroke-setup.ts';
import { EMPTY_BOX, intersection, isEmpty, union, type Box, type Matrix } from '@tallow/core/geometry';
import {
  chunksBox,
  drawChunk,
  drawStroke,
  goesStraight,
  GroundStroke,
  isDeep,
  isGround,
  lay,
  wipe,
  type Scratch,
  type Surface,
} from '@tallow/core/render';
import type { StrokeSurfaces } from './stroke-surfaces.ts';

export class LiveStroke {
  private readonly steady: Steady;
  private baked = 0;
  private tail: Box = EMPTY_BOX;
  private drawnSamples = 0;
  /** Whether the stroke lies on what is under it already, so that `whole` is the layer with the stroke. */
  readonly straight: boolean;
  /** The stroke as it looks now. */
  readonly whole: Surface;
  /** Its finished chunks: as pixels of a surface, or as how opaque each pixel is. */
  private readonly finished: Surface | GroundStroke;

  /**
   * @param under what the stroke is drawn on. @param surfaces what they held is lost.
   * @param apart whether it is laid on something else as well: then it never goes straight onto what is under it.
   */
  constructor(
    readonly setup: StrokeSetup,
    under: Surface,
    surfaces: StrokeSurfaces,
    apart = false,
  ) {
    const { brush, laying, steadying } = setup;
    this.steady = new SteadyStroke(steadyReach(steadying));
    this.straight = !apart && goesStraight(brush, laying);
    this.whole = surfaces.of('whole', isDeep(brush));
    wipe(this.whole);
    if (isGround(brush)) {
      this.finished = new GroundStroke({ left: 0, top: 0, right: surfaces.width, bottom: surfaces.height });
      return;
    }
    this.finished = surfaces.of('finished', isDeep(brush));
    wipe(this.finished);
    if (this.straight)
      for (const surface of [this.whole, this.finished]) surface.context.drawImage(under.picture, 0, 0);
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
    const { finished } = this;
    const chunks = chunkCount(this.steady.count, brush);
    if (finished instanceof GroundStroke) {
      for (; this.baked < open; this.baked++) finished.bake(stroke, this.baked, matrix);
      finished.put(this.whole, stroke, this.baked, chunks, paint, matrix, dirty);
    } else {
      for (; this.baked < open; this.baked++) drawChunk(finished, stroke, this.baked, paint, matrix);
      if (!isEmpty(dirty)) {
        const [x, y, width, height] = [dirty.left, dirty.top, dirty.right - dirty.left, dirty.bottom - dirty.top];
        const { context } = this.whole;
        context.setTransform(1, 0, 0, 1, 0, 0);
        context.clearRect(x, y, width, height);
        context.drawImage(finished.picture, x, y, width, height, x, y, width, height);
      }
      for (let chunk = this.baked; chunk < chunks; chunk++) drawChunk(this.whole, stroke, chunk, paint, matrix);
    }
    this.tail = chunksBox(stroke, this.baked, chunkCount(this.steady.count, brush), matrix);
    return dirty;
  }

  /** Lays the part of the stroke inside `box` on what it was begun on. */
  layOn(target: Surface, box: Box): void {
    target.context.setTransform(1, 0, 0, 1, 0, 0);
    if (this.straight) target.context.clearRect(box.left, box.top, box.right - box.left, box.bottom - box.top);
    lay(target.context, this.whole, box, this.setup.laying);
  }

  /** Draws the stroke as it is now at another size. A rub-out shows only where it is made. */
  sketch(target: Surface, scratch: Scratch, matrix: Matrix): void {
    const { brush, paint, laying, seed } = this.setup;
    if (laying.operation === 'destination-out' || this.steady.count === 0) return;
    drawStroke(target, scratch, { samples: this.steady.view(), brush, seed }, laying, paint, matrix);
  }

  /** The samples for keeping. */
  finish(): Samples {
    return this.steady.finish();
  }
}
