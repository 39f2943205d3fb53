/** A chunk's middle line as straight pieces, with how it was drawn: what brushes on rough grounds go along. */
import type { BrushSettings, Samples } from '../document/index.ts';
import { breadths, leanOf } from './breadth.ts';
import { along, chunkEnds, pieceAt } from './walk.ts';

/** A place on the middle line with half the width, px of element space, and how it was drawn. */
interface Station {
  readonly x: number;
  readonly y: number;
  readonly half: number;
  readonly pressure: number;
  readonly lean: number;
  readonly speed: number;
  /** Way from the stroke's beginning, px. */
  readonly way: number;
}

/** How far a chord may lie off the curve: px of element space at least, and as a share of the width. */
const OFF = 0.12;
const OFF_SHARE = 0.009;
/** How far chords overlap at least where they meet, px of element space. */
const LAP = 0.75;
/** Samples so far apart, in widths, were drawn as fast as it gets. */
const FAST = 0.7;

/** The stations of a chunk. */
function stationsOf(samples: Samples, brush: BrushSettings, chunk: number): Station[] {
  const [first, last] = chunkEnds(samples, brush, chunk);
  const half = breadths(samples, brush, first, last);
  const pressed = (i: number) => (brush.pressure ? samples.pressure[i]! : 1);
  const leans = (i: number) => (brush.tilt ?? 0) * leanOf(samples.altitude[i]!);
  const [end, { x: xs, y: ys }] = [samples.x.length - 1, samples];
  const lengthAt = (i: number) =>
    i < 0 || i >= end
      ? 0
      : Math.sqrt((xs[i + 1]! - xs[i]!) * (xs[i + 1]! - xs[i]!) + (ys[i + 1]! - ys[i]!) * (ys[i + 1]! - ys[i]!));
  // The mean of the pieces on both sides, of those that the chunk's own curve reaches to.
  const speedAt = (i: number) => Math.min(1, (lengthAt(i - 1) + lengthAt(i)) / 2 / (FAST * brush.width));
  let way = 0;
  for (let i = 0; i < first; i++) way += lengthAt(i);
  const at = (i: number, x: number, y: number): Station => ({
    x,
    y,
    half: half[i - first]!,
    pressure: pressed(i),
    lean: leans(i),
    speed: speedAt(i),
    way,
  });
  const list = [at(first, xs[first]!, ys[first]!)];
  for (let i = first; i < last; i++) {
    const piece = pieceAt(samples, i);
    const [bendX, bendY] = [
      piece.x[0] - piece.x[1] - piece.x[2] + piece.x[3],
      piece.y[0] - piece.y[1] - piece.y[2] + piece.y[3],
    ];
    const steps = Math.min(
      32,
      Math.max(
        1,
        Math.ceil(Math.sqrt(Math.sqrt(bendX * bendX + bendY * bendY) / Math.max(OFF, brush.width * OFF_SHARE))),
      ),
    );
    const [from, to] = [list.at(-1)!, at(i + 1, 0, 0)];
    for (let s = 1; s <= steps; s++) {
      const t = s / steps;
      const mix = (a: number, b: number) => (1 - t) * a + t * b;
      list.push({
        x: along(piece.x, t),
        y: along(piece.y, t),
        half: mix(from.half, to.half),
        pressure: mix(from.pressure, to.pressure),
        lean: mix(from.lean, to.lean),
        speed: mix(from.speed, to.speed),
        way: mix(from.way, from.way + piece.length),
      });
    }
    way += piece.length;
  }
  return list;
}

/** Whether stations between two lie so near their chord that it can stand for them. */
function isChord(list: readonly Station[], from: number, to: number): boolean {
  const [a, b] = [list[from]!, list[to]!];
  const off = Math.max(OFF, 2 * a.half * OFF_SHARE);
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  if (square > 4 * a.half * a.half || square === 0) return false;
  for (let i = from + 1; i < to; i++) {
    const each = list[i]!;
    const t = ((each.x - a.x) * dx + (each.y - a.y) * dy) / square;
    const [ox, oy] = [a.x + t * dx - each.x, a.y + t * dy - each.y];
    if (t < 0 || t > 1 || ox * ox + oy * oy > off * off) return false;
    if (Math.abs((1 - t) * a.half + t * b.half - each.half) > off) return false;
    if (Math.abs((1 - t) * a.pressure + t * b.pressure - each.pressure) > 0.015) return false;
  }
  return true;
}

/** A straight piece of a chunk, and how far it goes on past its ends, px of element space. */
export interface Chord {
  readonly a: Station;
  readonly b: Station;
  readonly before: number;
  readonly after: number;
}

/** How far chords must reach past where they meet, so that no wedge is left open on the outside of the bend. */
function overlap(a: Station, joint: Station, b: Station): number {
  const [ux, uy, vx, vy] = [joint.x - a.x, joint.y - a.y, b.x - joint.x, b.y - joint.y];
  const both = Math.sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy));
  const cosine = both > 0 ? (ux * vx + uy * vy) / both : 1;
  // tan of half the turn, from its cosine.
  const tan = cosine > -0.99 ? Math.sqrt((1 - cosine) / (1 + cosine)) : 2;
  return LAP + joint.half * 1.4 * Math.min(1, tan);
}

/**
 * The chords some stations are drawn by; a tap is one station twice.
 * @param begins, @param ends whether the stroke's own ends are there, which are round.
 */
function chordsOf(list: readonly Station[], begins: boolean, ends: boolean): Chord[] {
  const pairs = pairsOf(list);
  const lap = (i: number): number => {
    const [before, after] = [pairs[i - 1], pairs[i]];
    if (before && after) return overlap(before[0], before[1], after[1]);
    if (before ? ends : begins) return Infinity;
    // Chunks meet at a sample, where the curve has no corner.
    return LAP + (before ? before[1].half : after![0].half) * 0.2;
  };
  return pairs.map(([a, b], i) => ({ a, b, before: lap(i), after: lap(i + 1) }));
}

function pairsOf(list: readonly Station[]): [Station, Station][] {
  if (list.length === 1) return [[list[0]!, list[0]!]];
  const chords: [Station, Station][] = [];
  for (let from = 0; from < list.length - 1;) {
    let to = from + 1;
    while (to + 1 < list.length && to - from < 12 && isChord(list, from, to + 1)) to += 1;
    chords.push([list[from]!, list[to]!]);
    from = to;
  }
  return chords;
}

/** The chords a chunk of a stroke is drawn by. */
export function chordsOfChunk(samples: Samples, brush: BrushSettings, chunk: number): Chord[] {
  const [first, last] = chunkEnds(samples, brush, chunk);
  return chordsOf(stationsOf(samples, brush, chunk), first === 0, last === samples.x.length - 1);
}
