/**
 * What a rough ground takes of a stroke, pixel by pixel: each pixel is taken back into element space, where its place along
 * and across the stroke is found, and a shade says how much of it is covered. No canvas rounds any of it, so it is the same in every engine.
 */
import type { BrushSettings, Samples } from '../document/index.ts';
import { invert, mapBox, scaleOf, type Box, type Matrix } from '../geometry/index.ts';
import { breadths, leanOf } from './breadth.ts';
import { tipOf } from './tips.ts';
import { along, chunkEnds, pieceAt } from './walk.ts';

/** What is the same along a short piece of a stroke. */
export interface ShadedPiece {
  /** How far the pen leans, and how fast it goes, 0 to 1. */
  readonly lean: number;
  readonly speed: number;
  readonly seed: number;
  /** How many px of element space one device pixel is wide. */
  readonly footprint: number;
  /** Full width of the brush, px of element space. */
  readonly width: number;
}

/** Pixels in a row, worked out together: numbers in flat columns cost a tenth of a call for each. */
export interface ShadedRow {
  /** How many there are. */
  count: number;
  /** The first of them and the way from one to the next, element space, px. */
  x: number;
  y: number;
  stepX: number;
  stepY: number;
  /** From the middle line, in half widths, round its ends too; `NONE` where the stroke does not reach. */
  readonly far: Float64Array;
  /** Off the line it goes along, in half widths: negative to the left of its way. Past its ends the line goes straight on. */
  readonly across: Float64Array;
  /** From the stroke's beginning, in widths of the brush. */
  readonly along: Float64Array;
  /** 0 to 1. */
  readonly pressure: Float64Array;
  /** Half widths, px of element space. */
  readonly half: Float64Array;
  /** What the shade says: how opaque each is, 0 to 1. */
  readonly opaque: Float64Array;
}

export const NONE = 9;

/** What a brush leaves on its ground: fills in how opaque each pixel of a row is. */
export type Shade = (piece: ShadedPiece, row: ShadedRow) => void;

let row = rowOf(2048);
function rowOf(length: number): ShadedRow {
  const column = () => new Float64Array(length);
  const at = { count: 0, x: 0, y: 0, stepX: 1, stepY: 0 };
  return {
    ...at,
    far: column(),
    across: column(),
    along: column(),
    pressure: column(),
    half: column(),
    opaque: column(),
  };
}

/** How opaque each pixel of a box is, row by row. `left` and `top` are the place of the first one, device px. */
export interface AlphaArea {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly alpha: Uint8Array;
}

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
interface Chord {
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
 * The chords a chunk is drawn by; a tap is one station twice.
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

/**
 * Makes pixels as opaque as one chunk of a stroke leaves them; where they are more opaque already they stay, so a stroke
 * that crosses itself is no darker there and chunks meet without a seam.
 * @param matrix from element space to device pixels. @param area what is drawn on.
 */
export function depositChunk(
  samples: Samples,
  brush: BrushSettings,
  seed: number,
  chunk: number,
  shade: Shade,
  matrix: Matrix,
  area: AlphaArea,
): void {
  const inward = invert(matrix);
  const scale = scaleOf(matrix);
  const whole = { seed, footprint: 1 / scale, width: brush.width };
  const { stray } = tipOf(brush);
  const [first, last] = chunkEnds(samples, brush, chunk);
  for (const chord of chordsOf(stationsOf(samples, brush, chunk), first === 0, last === samples.x.length - 1)) {
    const { a, b } = chord;
    const piece = { ...whole, lean: (a.lean + b.lean) / 2, speed: (a.speed + b.speed) / 2 };
    depositChord(chord, stray, piece, shade, matrix, inward, scale, area);
  }
}

function depositChord(
  { a, b, before: past, after: beyond }: Chord,
  stray: number,
  piece: ShadedPiece,
  shade: Shade,
  matrix: Matrix,
  inward: Matrix,
  scale: number,
  { left, top, width: across, height, alpha }: AlphaArea,
): void {
  const most = Math.max(a.half, b.half) * stray + 1 / scale;
  if (most <= 1 / scale) return;
  const box: Box = mapBox(matrix, {
    left: Math.min(a.x, b.x) - most,
    top: Math.min(a.y, b.y) - most,
    right: Math.max(a.x, b.x) + most,
    bottom: Math.max(a.y, b.y) + most,
  });
  const fromX = Math.max(left, Math.floor(box.left));
  const toX = Math.min(left + across, Math.ceil(box.right));
  const fromY = Math.max(top, Math.floor(box.top));
  const toY = Math.min(top + height, Math.ceil(box.bottom));
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const length = Math.sqrt(square);
  const perSquare = square > 0 ? 1 / square : 0;
  const perLength = length > 0 ? 1 / length : 0;
  const least = length > 0 ? -Math.min(past, most) / length : -1;
  const greatest = length > 0 ? 1 + Math.min(beyond, most) / length : 1;
  // Along a row both the share of the chord and the way off it grow evenly, so where they stay in reach is one stretch of it.
  const [freeStep, offStep] = [
    (inward[0] * dx + inward[1] * dy) * perSquare,
    (inward[1] * dx - inward[0] * dy) * perLength,
  ];
  const rims = 0.5 / scale;
  const perWidth = 1 / piece.width;
  const [stepX, stepY] = [inward[0], inward[1]];
  for (let py = fromY; py < toY; py++) {
    const rowX = inward[0] * (fromX + 0.5) + inward[2] * (py + 0.5) + inward[4] - a.x;
    const rowY = inward[1] * (fromX + 0.5) + inward[3] * (py + 0.5) + inward[5] - a.y;
    const rowFree = (rowX * dx + rowY * dy) * perSquare;
    const rowOff = (dx * rowY - dy * rowX) * perLength;
    const none = length > 0 && (outOf(rowFree, freeStep, least, greatest) || outOf(rowOff, offStep, -most, most));
    if (none) continue;
    // A pixel more at both ends, for what rounding takes: what lies out of reach is left out below.
    const first = Math.max(0, from(rowFree, freeStep, least, greatest), from(rowOff, offStep, -most, most));
    const last = Math.min(toX - fromX, to(rowFree, freeStep, least, greatest), to(rowOff, offStep, -most, most));
    if (last <= first) continue;
    if (last - first > row.far.length) row = rowOf(2 * (last - first));
    row.count = last - first;
    row.x = a.x + rowX + first * stepX;
    row.y = a.y + rowY + first * stepY;
    [row.stepX, row.stepY] = [stepX, stepY];
    const { far, across: aside, along: way, pressure, opaque, half: halves } = row;
    for (let i = 0, px = first; px < last; i++, px++) {
      const ox = rowX + px * stepX;
      const oy = rowY + px * stepY;
      const free = (ox * dx + oy * dy) * perSquare;
      const t = free < 0 ? 0 : free > 1 ? 1 : free;
      const half = a.half + t * (b.half - a.half);
      const cx = ox - t * dx;
      const cy = oy - t * dy;
      const off = Math.sqrt(cx * cx + cy * cy);
      halves[i] = half;
      far[i] = free < least || free > greatest || half <= 0 || off >= half * stray + rims ? NONE : off / half;
      aside[i] = (length > 0 ? (dx * oy - dy * ox) * perLength : oy) / half;
      way[i] = (a.way + (length > 0 ? free * (b.way - a.way) : ox)) * perWidth;
      pressure[i] = a.pressure + t * (b.pressure - a.pressure);
    }
    shade(piece, row);
    const at = (py - top) * across + (fromX - left) + first;
    for (let i = 0; i < last - first; i++) {
      if (far[i] === NONE) continue;
      // Every mark's rim is smoothed over one pixel; a line thinner than one covers no more than its share of it.
      const half = halves[i]!;
      const edge = (half * (stray - far[i]!) + rims) * scale;
      const thin = 2 * half * scale;
      // Rounded as canvases round.
      const share = Math.round(255 * opaque[i]! * (edge < 1 ? edge : 1) * (thin < 1 ? thin : 1));
      if (share > alpha[at + i]!) alpha[at + i] = share;
    }
  }
}

/** Whether what does not change along a row is out of reach there. */
const outOf = (value: number, step: number, low: number, high: number): boolean =>
  step === 0 && (value < low || value > high);

/** The first step at which what begins at a value and grows evenly is between two others. */
const from = (value: number, step: number, low: number, high: number): number =>
  step === 0 ? 0 : Math.floor((step > 0 ? low - value : high - value) / step);

/** One past the last step at which it is. */
const to = (value: number, step: number, low: number, high: number): number =>
  step === 0 ? Infinity : Math.ceil((step > 0 ? high - value : low - value) / step) + 1;
