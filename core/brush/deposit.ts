/**
 * What a rough ground takes of a stroke, pixel by pixel: each pixel is taken back into element space, where its place along
 * and across the stroke is found, and a shade says how much of it is covered. No canvas rounds any of it, so it is the same in every engine.
 */
import type { BrushSettings, Samples } from '../document/index.ts';
import { invert, mapBox, scaleOf, type Box, type Matrix } from '../geometry/index.ts';
import { touchRow, type AlphaArea } from './alpha-area.ts';
import { chordsOfChunk, type Chord } from './chords.ts';
import { tipOf } from './tips.ts';

/** What is the same along a short piece of a stroke. */
interface ShadedPiece {
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
interface ShadedRow {
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
  for (const chord of chordsOfChunk(samples, brush, chunk)) {
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
  area: AlphaArea,
): void {
  const { left, top, width: across, height, alpha } = area;
  const max = Math.max(a.half, b.half) * stray + 1 / scale;
  if (max <= 1 / scale) return;
  const box: Box = mapBox(matrix, {
    left: Math.min(a.x, b.x) - max,
    top: Math.min(a.y, b.y) - max,
    right: Math.max(a.x, b.x) + max,
    bottom: Math.max(a.y, b.y) + max,
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
  const min = length > 0 ? -Math.min(past, max) / length : -1;
  const greatest = length > 0 ? 1 + Math.min(beyond, max) / length : 1;
  // Along a row both the share of the chord and the way off it grow evenly, so where they stay in reach is one stretch of it.
  const [freeStep, offStep] = [
    (inward[0] * dx + inward[1] * dy) * perSquare,
    (inward[1] * dx - inward[0] * dy) * perLength,
  ];
  const rims = 0.5 / scale;
  const perWidth = 1 / piece.width;
  const [stepX, stepY] = [inward[0], inward[1]];
  const isTap = length === 0;
  const [halfStep, pressureStep] = [b.half - a.half, b.pressure - a.pressure];
  const [wayFrom, wayStep] = [a.way * perWidth, (b.way - a.way) * perWidth];
  for (let py = fromY; py < toY; py++) {
    const rowX = inward[0] * (fromX + 0.5) + inward[2] * (py + 0.5) + inward[4] - a.x;
    const rowY = inward[1] * (fromX + 0.5) + inward[3] * (py + 0.5) + inward[5] - a.y;
    const rowFree = (rowX * dx + rowY * dy) * perSquare;
    const rowOff = (dx * rowY - dy * rowX) * perLength;
    const none = length > 0 && (outOf(rowFree, freeStep, min, greatest) || outOf(rowOff, offStep, -max, max));
    if (none) continue;
    // A pixel more at both ends, for what rounding takes: what lies out of reach is left out below.
    const first = Math.max(0, from(rowFree, freeStep, min, greatest), from(rowOff, offStep, -max, max));
    const last = Math.min(toX - fromX, to(rowFree, freeStep, min, greatest), to(rowOff, offStep, -max, max));
    if (last <= first) continue;
    if (last - first > row.far.length) row = rowOf(2 * (last - first));
    row.count = last - first;
    row.x = a.x + rowX + first * stepX;
    row.y = a.y + rowY + first * stepY;
    [row.stepX, row.stepY] = [stepX, stepY];
    const { far, across: aside, along: way, pressure, opaque, half: halves } = row;
    for (let i = 0, px = first; px < last; i++, px++) {
      const free = rowFree + px * freeStep;
      const off = rowOff + px * offStep;
      const t = free < 0 ? 0 : free > 1 ? 1 : free;
      const half = a.half + t * halfStep;
      const perHalf = half > 0 ? 1 / half : 0;
      let away = off < 0 ? -off : off;
      let beside = off;
      let on = wayFrom + free * wayStep;
      // Past an end it is as far from it as it is from that point.
      if (isTap || t !== free) {
        const ox = rowX + px * stepX;
        const oy = rowY + px * stepY;
        const cx = ox - t * dx;
        const cy = oy - t * dy;
        away = Math.sqrt(cx * cx + cy * cy);
        if (isTap) {
          beside = oy;
          on = wayFrom + ox * perWidth;
        }
      }
      halves[i] = half;
      far[i] = free < min || free > greatest || half <= 0 || away >= half * stray + rims ? NONE : away * perHalf;
      aside[i] = beside * perHalf;
      way[i] = on;
      pressure[i] = a.pressure + t * pressureStep;
    }
    shade(piece, row);
    touchRow(area, py - top, fromX - left + first, fromX - left + last);
    const at = (py - top) * across + (fromX - left) + first;
    for (let i = 0; i < last - first; i++) {
      if (far[i] === NONE) continue;
      // Every mark's rim is smoothed over one pixel; a line thinner than one covers no more than its share of it.
      const half = halves[i]!;
      const edge = (half * (stray - far[i]!) + rims) * scale;
      const thin = 2 * half * scale;
      // Rounded as canvases round.
      const share = (255 * opaque[i]! * (edge < 1 ? edge : 1) * (thin < 1 ? thin : 1) + 0.5) | 0;
      const old = alpha[at + i]!;
      // The greater of both, without a branch that no processor could foresee.
      const more = share - old;
      alpha[at + i] = old + (more & ~(more >> 31));
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
