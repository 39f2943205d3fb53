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

/** Pixels within which places where both meet belong to one front. */
const TOGETHER = 3;

/**
 * Where what lies at a point runs out. The region grows over the widest ways until it meets the outside; the
 * narrowest place of the best way out tells what is still its own. From there both grow towards each other, and meet
 * in every gap there is.
 * @param gap px that are closed already.
 */
export const leaksOf = (barrier: Barrier, at: Point, gap: number): Leaks => leaksAround(barrier, at, gap).leaks;

/** Leaks, and where they are the same: for a pen that moves on within what runs out. */
export interface LeaksAround {
  readonly leaks: Leaks;
  /** Whether a place belongs to what runs out there. */
  readonly holds: (at: Point) => boolean;
}

/** The same as `leaksOf`, with all places for which that is the answer. */
export function leaksAround(barrier: Barrier, at: Point, gap: number): LeaksAround {
  const { width, height, scale } = barrier;
  const count = width * height;
  const seed = pixelAt(barrier, at);
  const bits = linesOf(barrier);
  const free = (pixel: number) => bits[pixel] === 0;
  const near = nearestOf(bits, width, height, 'lines', WIDEST_GAP / 2);
  const own = basin(seed);
  if (!own) return { leaks: { places: [], leastGap: null }, holds: () => false };
  const labels = new Uint8Array(count);
  const queue = new WidestFirst(near);
  const grow = (label: number) => (pixel: number) => {
    if (labels[pixel] !== 0 || !free(pixel)) return;
    labels[pixel] = label;
    queue.push(pixel);
  };
  const [growOwn, growOut] = [grow(1), grow(2)];
  for (const pixel of own) labels[pixel] = 1;
  // All round the lattice is outside: its margin may be narrower than a gap.
  for (let x = 0; x < width; x++) for (const y of [0, height - 1]) growOut(y * width + x);
  for (let y = 0; y < height; y++) for (const x of [0, width - 1]) growOut(y * width + x);
  for (const pixel of own) queue.push(pixel);
  for (let pixel = queue.pop(); pixel !== undefined; pixel = queue.pop()) {
    besides(pixel, width, count, labels[pixel] === 1 ? growOwn : growOut);
  }
  // Distances are between middles of pixels: n free pixels across have their middle at n/2 + 1/2.
  const widthAt = (pixel: number) => Math.max(0, (2 * Math.sqrt(near.squares[pixel]!) - 1) / scale);
  const places = fronts().map((front): Leak => {
    const at = front.reduce((a, b) => (near.squares[b]! > near.squares[a]! ? b : a));
    return { ...middleOf(barrier, at), width: widthAt(at) };
  });
  places.sort((a, b) => b.width - a.width);
  const open = places.filter((leak) => leak.width > gap);
  const widest = Math.max(0, ...places.map((leak) => leak.width));
  const leaks = { places: open, leastGap: widest < WIDEST_GAP ? Math.ceil(widest) : null };
  return { leaks, holds: (there) => labels[pixelAt(barrier, there)] === 1 };

  /** Where both met, pixel by pixel, each front by itself. */
  function fronts(): number[][] {
    const meeting = new Set<number>();
    for (const pixel of near.order)
      if (labels[pixel] === 1)
        besides(pixel, width, count, (next) => {
          if (labels[next] === 2) meeting.add(pixel);
        });
    const found: number[][] = [];
    for (const first of meeting) {
      const front: number[] = [];
      meeting.delete(first);
      const stack = [first];
      for (let pixel = stack.pop(); pixel !== undefined; pixel = stack.pop()) {
        front.push(pixel);
        for (let dy = -TOGETHER; dy <= TOGETHER; dy++)
          for (let dx = -TOGETHER; dx <= TOGETHER; dx++)
            if (meeting.delete(pixel + dy * width + dx)) stack.push(pixel + dy * width + dx);
      }
      found.push(front);
    }
    return found;
  }

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
      const column = pixel % width;
      const onEdge = column === 0 || column === width - 1 || pixel < width || pixel >= count - width;
      if (onEdge) return narrowest === FAR ? null : taken.slice(0, Math.max(1, narrowestAt));
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
