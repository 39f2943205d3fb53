/**
 * The curve of a stroke, in fixed chunks of samples. Every brush draws a stroke chunk by chunk in order;
 * live, settled and exported strokes are drawn by the same function, which is what makes them equal to the pixel.
 */
import type { BrushSettings, Samples } from '../document/index.ts';
import type { Box } from '../geometry/index.ts';
import { breadthAt, breadths, firstTapering } from './breadth.ts';
import { tipOf } from './tips.ts';

/** How many chunks a stroke of so many samples has; at least one. */
export const chunkCount = (samples: number, brush: Pick<BrushSettings, 'kind' | 'version'>): number =>
  Math.max(1, Math.ceil((samples - 1) / tipOf(brush).chunk));

/**
 * The first chunk that later samples can still change. A chunk reaches one sample past its end for its curve.
 * @param settled samples that no later one will move.
 */
export function firstOpenChunk(samples: Samples, brush: BrushSettings, settled: number): number {
  const { chunk } = tipOf(brush);
  const byCurve = Math.max(0, Math.floor((settled - 2) / chunk));
  return brush.taper?.[1] ? Math.min(byCurve, Math.floor(firstTapering(samples, brush, settled) / chunk)) : byCurve;
}

/** The samples of a chunk, first and last. */
export const chunkEnds = (samples: Samples, brush: BrushSettings, chunk: number): [number, number] => [
  chunk * tipOf(brush).chunk,
  Math.min(samples.x.length - 1, (chunk + 1) * tipOf(brush).chunk),
];

/** The curve from one sample to the next: a cubic piece, px of element space. */
export interface Piece {
  readonly x: readonly [number, number, number, number];
  readonly y: readonly [number, number, number, number];
  readonly length: number;
}

/**
 * The piece from sample i to i+1: a Catmull-Rom curve whose handles are never longer than half the piece,
 * so that uneven sampling makes no loops.
 */
export function pieceAt({ x, y }: Pick<Samples, 'x' | 'y'>, i: number): Piece {
  const [x1, y1, x2, y2] = [x[i]!, y[i]!, x[i + 1]!, y[i + 1]!];
  const before = Math.max(0, i - 1);
  const after = Math.min(x.length - 1, i + 2);
  const length = Math.sqrt((x2 - x1) * (x2 - x1) + (y2 - y1) * (y2 - y1));
  const factor = (dx: number, dy: number) => {
    const size = Math.sqrt(dx * dx + dy * dy) / 6;
    return size > length / 2 ? length / 2 / size / 6 : 1 / 6;
  };
  const [ox, oy] = [x2 - x[before]!, y2 - y[before]!];
  const [ix, iy] = [x[after]! - x1, y[after]! - y1];
  const [out, into] = [factor(ox, oy), factor(ix, iy)];
  return { x: [x1, x1 + ox * out, x2 - ix * into, x2], y: [y1, y1 + oy * out, y2 - iy * into, y2], length };
}

/** A place on one axis of a piece, at 0 to 1 along it. */
export function along([a, b, c, d]: Piece['x'], t: number): number {
  const u = 1 - t;
  return u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d;
}

export type Visit = (x: number, y: number, radius: number) => void;

/** Walks a chunk in steps fine enough for its width, its first point included. */
export function walkChunk(samples: Samples, brush: BrushSettings, chunk: number, visit: Visit): void {
  const [first, last] = chunkEnds(samples, brush, chunk);
  const half = breadths(samples, brush, first, last);
  visit(samples.x[first]!, samples.y[first]!, half[0]!);
  for (let i = first; i < last; i++) {
    const piece = pieceAt(samples, i);
    const [r1, r2] = [half[i - first]!, half[i + 1 - first]!];
    const step = Math.min(4, Math.max(1, Math.min(r1, r2) * 0.6));
    const steps = Math.min(64, Math.max(1, Math.ceil(piece.length / step)));
    for (let s = 1; s <= steps; s++) {
      const t = s / steps;
      visit(along(piece.x, t), along(piece.y, t), (1 - t) * r1 + t * r2);
    }
  }
}

/** The box one chunk covers, element space. */
export function chunkBox(samples: Samples, brush: BrushSettings, chunk: number): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const stray = tipOf(brush).stray;
  walkChunk(samples, brush, chunk, (x, y, radius) => {
    const r = radius * stray;
    left = Math.min(left, x - r);
    right = Math.max(right, x + r);
    top = Math.min(top, y - r);
    bottom = Math.max(bottom, y + r);
  });
  return { left, top, right, bottom };
}

/** From and to what an axis of a stroke's curve reaches at most: samples and handles, which hold the curve between them. */
function reachOf(axis: Float32Array): [number, number] {
  const last = axis.length - 1;
  let [min, max] = [Infinity, -Infinity];
  for (let i = 0; i <= last; i++) {
    const at = axis[i]!;
    const handle = (axis[Math.min(last, i + 1)]! - axis[Math.max(0, i - 1)]!) / 6;
    const [before, after] = [i > 0 ? at - handle : at, i < last ? at + handle : at];
    min = Math.min(min, at, before, after);
    max = Math.max(max, at, before, after);
  }
  return [min, max];
}

/**
 * A box that holds a whole stroke, found without walking its curve: larger than what is drawn by what pressure, lean and
 * tapers take off. Element space.
 */
export function strokeRoom({ x, y }: Pick<Samples, 'x' | 'y'>, brush: BrushSettings): Box {
  const by = breadthAt(brush, 1, 0) * tipOf(brush).stray;
  const [[left, right], [top, bottom]] = [reachOf(x), reachOf(y)];
  return { left: left - by, top: top - by, right: right + by, bottom: bottom + by };
}

/** Points of the stroke's middle line, element space. */
export function middleLine(samples: Samples, brush: BrushSettings): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  for (let chunk = 0; chunk < chunkCount(samples.x.length, brush); chunk++) {
    walkChunk(samples, brush, chunk, (x, y) => {
      points.push({ x, y });
    });
  }
  return points;
}
