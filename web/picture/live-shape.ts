/**
 * The shape under the pen: closed and filled at every moment, with or without a line of its own. A tap
 * is a disc as wide as the brush.
 */
import { chunkCount, closedSamples, hasCorners, outlineRing } from '@tallow/core/brush';
import type { Ring, Samples } from '@tallow/core/document';
import {
  EMPTY_BOX,
  grown,
  mapBox,
  polygonRing,
  ringBox,
  union,
  wholePixels,
  type Box,
  type Matrix,
  discRing,
} from '@tallow/core/geometry';
import { chunksBox, drawShape, drawStroke, operationOfLays, type Scratch, type Surface } from '@tallow/core/render';
import type { ShapeSetup, StrokeSetup } from './stroke-setup.ts';
import { PenPath } from './pen-path.ts';

/** What the pen has made so far. */
interface Outlined {
  readonly ring: Ring;
  /** Samples of the line round it; none for a disc or without a line. */
  readonly line: Samples | null;
}

/** The closed curve through a line that ends where it began; through its corners straight if it has them. */
function ringThrough({ x, y }: Samples, corners: boolean): Ring {
  if (!corners) return outlineRing({ x: x.subarray(0, -1), y: y.subarray(0, -1) });
  const points = Array.from(x, (px, i): [number, number] => [px, y[i]!]);
  return polygonRing(points.filter(([px, py], i) => i === 0 || px !== x[i - 1] || py !== y[i - 1]).slice(0, -1));
}

export class LiveShape {
  readonly setup: StrokeSetup;
  private readonly shape: ShapeSetup;
  readonly path: PenPath;
  private drawn = -1;
  private extent: Box = EMPTY_BOX;
  private now: Outlined | null = null;
  private box: Box = EMPTY_BOX;

  /** @param scratch of the picture's size. */
  constructor(
    setup: StrokeSetup,
    shape: ShapeSetup,
    private readonly scratch: Scratch,
  ) {
    this.setup = setup;
    this.shape = shape;
    this.path = new PenPath(setup.making, setup.steadying);
  }

  add(x: number, y: number, pressure: number, altitude: number, azimuth: number): void {
    this.path.add(x, y, pressure, altitude, azimuth);
    this.extent = union(this.extent, { left: x, top: y, right: x, bottom: y });
  }

  private outlined(): Outlined {
    const samples = this.path.samples();
    const { left, top, right, bottom } = this.extent;
    const isTap = samples.x.length < 3 || Math.max(right - left, bottom - top) < this.shape.min;
    if (isTap) return { ring: discRing(samples.x[0]!, samples.y[0]!, this.setup.brush.width / 2), line: null };
    const last = samples.x.length - 1;
    const isClosed = samples.x[0] === samples.x[last] && samples.y[0] === samples.y[last];
    const line = isClosed ? samples : closedSamples(samples);
    return { ring: ringThrough(line, hasCorners(this.path.making)), line: this.shape.line ? line : null };
  }

  /** Takes in what is new. Returns the whole pixels that may look different now: all of the shape. */
  draw(): Box {
    if (this.path.version === this.drawn) return EMPTY_BOX;
    this.drawn = this.path.version;
    const before = this.box;
    this.now = this.outlined();
    const { matrix } = this.setup;
    const { ring, line } = this.now;
    const filled = wholePixels(grown(mapBox(matrix, ringBox(ring)), 1));
    const stroke =
      line && this.shape.line ? { samples: line, brush: this.shape.line.brush, seed: this.setup.seed } : null;
    this.box = stroke
      ? union(filled, chunksBox(stroke, 0, chunkCount(stroke.samples.x.length, stroke.brush), matrix))
      : filled;
    return union(before, this.box);
  }

  /** Lays the shape on a surface that is as it was before it where the shape lies. */
  layOn(target: Surface): void {
    if (!this.now) return;
    const { ring, line } = this.now;
    const { matrix, paint, brush, lays } = this.setup;
    const shape = { rings: [ring], rule: 'nonzero', opacity: brush.opacity, lays } as const;
    const fill = () => {
      drawShape(target.context, shape, paint, matrix);
    };
    // What goes behind goes in the order of its marks too: the line first, the fill behind it.
    if (lays !== 'behind') fill();
    this.layLine(target, line);
    if (lays === 'behind') fill();
  }

  private layLine(target: Surface, line: Samples | null): void {
    const { matrix, lays, seed } = this.setup;
    if (!line || !this.shape.line) return;
    const { brush, paint } = this.shape.line;
    const laying = { opacity: brush.opacity, operation: operationOfLays(lays, paint) };
    drawStroke(target, this.scratch, { samples: line, brush, seed }, laying, paint, matrix);
  }

  /** What the pen made, for keeping. */
  finish(): Outlined {
    return this.outlined();
  }

  /** Draws the shape as it is now at another size. */
  sketch({ context }: Surface, _scratch: Scratch, matrix: Matrix): void {
    const { paint, brush } = this.setup;
    if (this.now)
      drawShape(context, { rings: [this.now.ring], rule: 'nonzero', opacity: brush.opacity }, paint, matrix);
  }
}
