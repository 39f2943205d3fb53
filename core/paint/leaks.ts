/** Where a region runs out into the outside, and the least gap that would hold it. */
import { FARTHEST, distanceTransform, type DistanceField } from './distance-transform.ts';
import { watershedMeetings, OUT, OWN } from './watershed.ts';
import { pixelMiddle, pixelAt, type Barrier } from './raster.ts';
import { linesOf, WIDEST_GAP } from './regions.ts';
import { besides, WidestFirst } from './widest-first.ts';
import type { Point } from '../geometry/index.ts';

/** A place where a fill would run out. */
interface Leak extends Point {
  /** How wide the gap is, px. */
  readonly width: number;
}

export interface Leaks {
  /** Wider than the gap asked for, the widest first. */
  readonly places: readonly Leak[];
  /** The least gap that holds, whole px, or null where none does. */
  readonly minGap: number | null;
}

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

/** Pixels of a lattice that is looked over whole; larger ones are looked over at a part of their size, and at full size in the gaps. */
const LOOKED_OVER = 60_000;

/** The same as `leaksOf`, with all places for which that is the answer. */
export function leaksAround(barrier: Barrier, at: Point, gap: number): LeaksAround {
  // A gap that is too narrow to be seen at the smaller size must be one that is closed anyhow.
  const max = Math.max(1, Math.floor((gap * barrier.scale) / 2));
  const wanted = Math.ceil(Math.sqrt(barrier.cover.length / LOOKED_OVER));
  const by = Math.min(wanted, max);
  const small = by === 1 ? barrier : reduced(barrier, by);
  const over = overlooked(small, at);
  if (!over) return { leaks: { places: [], minGap: null }, holds: () => false };
  // At a part of the size a gap looks narrower by up to so much.
  const blurred = by === 1 ? 0 : (2 * by) / barrier.scale;
  const places = over.places.flatMap((place) =>
    by === 1 ? place : place.width > gap - blurred ? atFullSize(barrier, small, over.labels, place, blurred) : [],
  );
  places.sort((a, b) => b.width - a.width);
  const open = places.filter((leak) => leak.width > gap);
  const widest = Math.max(0, ...places.map((leak) => leak.width));
  const leaks = { places: open, minGap: widest < WIDEST_GAP ? Math.ceil(widest) : null };
  return { leaks, holds: (there) => over.labels[pixelAt(small, there)] === OWN };
}

/** Distances are between middles of pixels: n free pixels across have their middle at n/2 + 1/2. */
const widthAt = ({ squares }: DistanceField, scale: number, pixel: number): number =>
  Math.max(0, (2 * Math.sqrt(squares[pixel]!) - 1) / scale);

/** A barrier with several pixels made one: a line wherever one of them is. */
function reduced({ cover, width, height, left, top, scale }: Barrier, by: number): Barrier {
  const [w, h] = [Math.ceil(width / by), Math.ceil(height / by)];
  const less = new Uint8Array(w * h);
  for (let y = 0, pixel = 0; y < height; y++) {
    const row = Math.floor(y / by) * w;
    for (let x = 0, i = 0, k = row; x < width; x++, pixel++) {
      if (cover[pixel]! > less[k]!) less[k] = cover[pixel]!;
      if (++i === by) {
        i = 0;
        k += 1;
      }
    }
  }
  return { width: w, height: h, left, top, scale: scale / by, cover: less, colour: null };
}

/** What belongs to a place and what to the outside, and where they meet; null where the place is outside or on a line. */
function overlooked(barrier: Barrier, at: Point): { labels: Uint8Array; places: Leak[] } | null {
  const { width, height, scale } = barrier;
  const bits = linesOf(barrier);
  const near = distanceTransform(bits, width, height, 'lines', (WIDEST_GAP / 2) * Math.min(1, scale));
  const own = basin(bits, near, width, pixelAt(barrier, at));
  if (!own) return null;
  const labels = new Uint8Array(bits.length);
  for (const pixel of own) labels[pixel] = OWN;
  // All round the lattice is outside: its margin may be narrower than a gap.
  const edge: number[] = [];
  const outer = (pixel: number): void => {
    if (labels[pixel] !== 0 || bits[pixel] !== 0) return;
    labels[pixel] = OUT;
    edge.push(pixel);
  };
  for (let x = 0; x < width; x++) for (const y of [0, height - 1]) outer(y * width + x);
  for (let y = 0; y < height; y++) for (const x of [0, width - 1]) outer(y * width + x);
  const places = watershedMeetings(labels, bits, near, width, [...edge, ...own]).map((pixel): Leak => ({
    ...pixelMiddle(barrier, pixel),
    width: widthAt(near, scale, pixel),
  }));
  return { labels, places };
}

/** px round a gap that are looked at again at full size. */
const AROUND = 16;

/** A gap that was found at a part of the size, at full size: what is about it grows anew from both sides. */
function atFullSize(barrier: Barrier, small: Barrier, labels: Uint8Array, place: Leak, blurred: number): Leak[] {
  const reach = place.width / 2 + blurred + AROUND;
  const { width, height, cover, scale, left, top } = barrier;
  const [x0, y0] = [place.x - reach, place.y - reach].map((v, i) =>
    Math.max(0, Math.floor((v - (i === 0 ? left : top)) * scale)),
  ) as [number, number];
  const x1 = Math.min(width, Math.ceil((place.x + reach - left) * scale));
  const y1 = Math.min(height, Math.ceil((place.y + reach - top) * scale));
  const [w, h] = [x1 - x0, y1 - y0];
  if (w < 3 || h < 3) return [place];
  const window: Barrier = {
    width: w,
    height: h,
    left: left + x0 / scale,
    top: top + y0 / scale,
    scale,
    cover: new Uint8Array(w * h),
    colour: null,
  };
  for (let y = 0; y < h; y++) window.cover.set(cover.subarray((y0 + y) * width + x0, (y0 + y) * width + x1), y * w);
  const bits = linesOf(window);
  const near = distanceTransform(bits, w, h, 'lines', WIDEST_GAP / 2);
  const own = new Uint8Array(bits.length);
  const seeds: number[] = [];
  // On the window's edge each side is known; within it they meet anew.
  for (let i = 0; i < bits.length; i++) {
    const [x, y] = [i % w, Math.floor(i / w)];
    if (bits[i] !== 0 || (x > 0 && y > 0 && x < w - 1 && y < h - 1)) continue;
    const label = labels[pixelAt(small, pixelMiddle(window, i))] ?? 0;
    if (label === 0) continue;
    own[i] = label;
    seeds.push(i);
  }
  const found = watershedMeetings(own, bits, near, w, seeds).map((pixel): Leak => ({
    ...pixelMiddle(window, pixel),
    width: widthAt(near, scale, pixel),
  }));
  // Beside the gap that is meant others may lie in the window: they are found by themselves.
  found.sort((a, b) => Math.hypot(a.x - place.x, a.y - place.y) - Math.hypot(b.x - place.x, b.y - place.y));
  return found.length > 0 ? [found[0]!] : [place];
}

/** What belongs to a seed before it reaches the outside: all that lies behind the narrowest place of the way. */
function basin(bits: Uint8Array, near: DistanceField, width: number, from: number): number[] | null {
  const count = bits.length;
  if (from < 0 || bits[from] !== 0) return null;
  const queue = new WidestFirst(near);
  queue.push(highest(bits, near, width, from));
  const taken: number[] = [];
  let [narrowest, narrowestAt] = [FARTHEST, 0];
  for (let pixel = queue.pop(); pixel !== undefined; pixel = queue.pop()) {
    const column = pixel % width;
    const onEdge = column === 0 || column === width - 1 || pixel < width || pixel >= count - width;
    if (onEdge) return narrowest === FARTHEST ? null : taken.slice(0, Math.max(1, narrowestAt));
    if (near.squares[pixel]! < narrowest) [narrowest, narrowestAt] = [near.squares[pixel]!, taken.length];
    taken.push(pixel);
    if (bits[pixel - 1] === 0) queue.push(pixel - 1);
    if (bits[pixel + 1] === 0) queue.push(pixel + 1);
    if (bits[pixel - width] === 0) queue.push(pixel - width);
    if (bits[pixel + width] === 0) queue.push(pixel + width);
  }
  return null;
}

/** Up the slope of the distance from the lines to its top: where a point stands beside a line says nothing. */
function highest(bits: Uint8Array, near: DistanceField, width: number, from: number): number {
  for (let at = from; ;) {
    let best = at;
    besides(at, width, bits.length, (next) => {
      if (bits[next] === 0 && near.squares[next]! > near.squares[best]!) best = next;
    });
    if (best === at) return at;
    at = best;
  }
}
