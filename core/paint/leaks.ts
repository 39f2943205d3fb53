/** Where a region runs out into the outside, and the least gap that would hold it. */
import { FAR, nearestOf } from './nearest.ts';
import { middleOf, pixelAt, type Barrier } from './raster.ts';
import { linesOf, WIDEST_GAP } from './regions.ts';
import { besides, WidestFirst } from './widest.ts';
import type { Point } from '../geometry/index.ts';

/** A place where a fill would run out. */
export interface Leak extends Point {
  /** How wide the gap is, px. */
  readonly width: number;
}

export interface Leaks {
  /** Wider than the gap asked for, the widest first. */
  readonly places: readonly Leak[];
  /** The least gap that holds, whole px, or null where none does. */
  readonly leastGap: number | null;
}

/** px within which places of a boundary belong to one leak. */
const TOGETHER = 6;

/**
 * Where what lies at a point runs out. The region grows over the widest ways until it meets the outside; the
 * narrowest place of the best way out tells what is still its own. From there both grow towards each other, and meet
 * in every gap there is.
 * @param gap px that are closed already.
 */
export function leaksOf(barrier: Barrier, at: Point, gap: number): Leaks {
  const { width, height, scale } = barrier;
  const count = width * height;
  const seed = pixelAt(barrier, at);
  const bits = linesOf(barrier);
  const free = (pixel: number) => bits[pixel] === 0;
  const near = nearestOf({ bits, width, height }, 1, WIDEST_GAP / 2);
  const own = basin(seed);
  if (!own) return { places: [], leastGap: null };
  const labels = new Uint8Array(count);
  const queue = new WidestFirst(near);
  const meeting: number[] = [];
  const grow = (label: number) => (pixel: number) => {
    if (labels[pixel] !== 0 || !free(pixel)) return;
    labels[pixel] = label;
    queue.push(pixel);
  };
  const [growOwn, growOut] = [grow(1), grow(2)];
  for (const pixel of own) labels[pixel] = 1;
  growOut(0);
  for (const pixel of own) queue.push(pixel);
  for (let pixel = queue.pop(); pixel !== undefined; pixel = queue.pop()) {
    const label = labels[pixel]!;
    let meets = false;
    besides(pixel, width, count, (next) => {
      if (label === 1 && labels[next] === 2) meets = true;
    });
    if (meets) meeting.push(pixel);
    besides(pixel, width, count, label === 1 ? growOwn : growOut);
  }
  // Distances are between middles of pixels: n free pixels across have their middle at n/2 + 1/2.
  const widthAt = (pixel: number) => Math.max(0, (2 * Math.sqrt(near.squares[pixel]!) - 1) / scale);
  const places: Leak[] = [];
  for (const pixel of meeting.sort((a, b) => near.squares[b]! - near.squares[a]!)) {
    const leak = { ...middleOf(barrier, pixel), width: widthAt(pixel) };
    const reach = Math.max(TOGETHER, leak.width);
    if (places.every((other) => Math.hypot(other.x - leak.x, other.y - leak.y) > Math.max(reach, other.width)))
      places.push(leak);
  }
  const open = places.filter((leak) => leak.width > gap);
  const widest = Math.max(0, ...places.map((leak) => leak.width));
  return { places: open, leastGap: widest < WIDEST_GAP ? Math.ceil(widest) : null };

  /** What belongs to a seed before it reaches the outside: all that lies behind the narrowest place of the way. */
  function basin(from: number): number[] | null {
    const seen = new Uint8Array(count);
    const queue = new WidestFirst(near);
    const visit = (next: number): void => {
      if (seen[next] !== 0 || !free(next)) return;
      seen[next] = 1;
      queue.push(next);
    };
    if (from < 0 || !free(from)) return null;
    visit(highest(from));
    const taken: number[] = [];
    let [narrowest, narrowestAt] = [FAR, 0];
    for (let pixel = queue.pop(); pixel !== undefined; pixel = queue.pop()) {
      if (pixel === 0) return narrowest === FAR ? null : taken.slice(0, Math.max(1, narrowestAt));
      if (near.squares[pixel]! < narrowest) [narrowest, narrowestAt] = [near.squares[pixel]!, taken.length];
      taken.push(pixel);
      besides(pixel, width, count, visit);
    }
    return null;
  }

  /** Up the slope of the distance from the lines to its top: where a point stands beside a line says nothing. */
  function highest(from: number): number {
    for (let at = from; ;) {
      let best = at;
      besides(at, width, count, (next) => {
        if (free(next) && near.squares[next]! > near.squares[best]!) best = next;
      });
      if (best === at) return at;
      at = best;
    }
  }
}
