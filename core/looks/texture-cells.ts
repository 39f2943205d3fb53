/**
 * Textures laid inside what is drawn: grain, smoke, spatter and hatching. They lie in the element's space in cells,
 * each with its own chance, so that they neither swim nor depend on the size they are seen at.
 */
import { fillPath, type Context2D } from '../canvas/index.ts';
import { hashFraction, type Box, type Point, modulo } from '../geometry/index.ts';
import type { LookNow } from './look.ts';

/** Cells drawn at most; beyond that the texture is laid coarser. */
const MAX_CELLS = 40_000;
/** Cells after which a drifting texture repeats along its way. */
const ROUND = 24;

interface Cells {
  readonly size: number;
  /** Where the cells begin along their way, px, and how many there are to a whole turn. */
  readonly shift: number;
  readonly round: number;
  readonly along: Point;
}

/** Calls with each cell that lies over a box: its middle, and its chance by a number. */
function eachCell(
  box: Box,
  { size, shift, round, along }: Cells,
  seed: number,
  draw: (at: Point, chance: (which: number) => number) => void,
): void {
  const corners = [
    [box.left, box.top],
    [box.right, box.top],
    [box.left, box.bottom],
    [box.right, box.bottom],
  ] as const;
  const us = corners.map(([x, y]) => x * along.x + y * along.y - shift);
  const vs = corners.map(([x, y]) => y * along.x - x * along.y);
  const [u0, u1] = [Math.floor(Math.min(...us) / size) - 1, Math.ceil(Math.max(...us) / size) + 1];
  const [v0, v1] = [Math.floor(Math.min(...vs) / size) - 1, Math.ceil(Math.max(...vs) / size) + 1];
  for (let v = v0; v <= v1; v++)
    for (let u = u0; u <= u1; u++) {
      const own = round > 0 ? modulo(u, round) : u;
      const chance = (which: number) => hashFraction(seed + which * 7919, own * 4099 + v, which);
      const [a, b] = [(u + 0.15 + 0.7 * chance(0)) * size + shift, (v + 0.15 + 0.7 * chance(1)) * size];
      draw({ x: a * along.x - b * along.y, y: a * along.y + b * along.x }, chance);
    }
}

function cellsFor(box: Box, texture: LookNow, axis: Point, wanted: number): Cells {
  const area = (box.right - box.left) * (box.bottom - box.top);
  const size = Math.max(wanted, Math.sqrt(area / MAX_CELLS));
  const drifts = texture.choices['moves'] === 'drifts';
  return {
    size,
    shift: drifts ? texture.at * ROUND * size : 0,
    round: drifts ? ROUND : 0,
    along: drifts ? axis : { x: 1, y: 0 },
  };
}

/**
 * Draws a texture in the space of the context's transform, in its fill style and at its opacity.
 * @param box what it has to cover. @param axis unit vector along which it drifts. @param soft a fill for a soft disc
 * of radius 1, for smoke. @param isSeen whether anything is drawn so far around a place: what lies elsewhere is left out.
 */
export function drawTexture(
  context: Context2D,
  texture: LookNow,
  box: Box,
  axis: Point,
  soft: (place: Point, radius: number, opacity: number) => void,
  isSeen: (place: Point, radius: number) => boolean,
): void {
  const scale = texture.numbers['scale']!;
  const seed =
    (texture.seed ^ (texture.choices['moves'] === 'boils' ? Math.imul(texture.at + 1, 0x9e3779b1) : 0)) >>> 0;
  switch (texture.choices['form']) {
    case 'smoke':
      eachCell(box, cellsFor(box, texture, axis, scale * 1.4), seed, (at, chance) => {
        const radius = scale * (0.8 + 1.3 * chance(2));
        if (isSeen(at, radius)) soft(at, radius, 0.25 + 0.75 * chance(3));
      });
      return;
    case 'spatter':
      context.beginPath();
      eachCell(box, cellsFor(box, texture, axis, scale * 1.3), seed, (at, chance) => {
        if (chance(2) > 0.55) return;
        const radius = scale * (0.05 + 0.45 * chance(3) ** 3);
        if (!isSeen(at, radius)) return;
        context.moveTo(at.x + radius, at.y);
        context.arc(at.x, at.y, radius, 0, 2 * Math.PI);
      });
      fillPath(context);
      return;
    case 'hatching':
      hatch(context, texture, box, axis, seed, scale);
      return;
    default:
      context.beginPath();
      eachCell(box, cellsFor(box, texture, axis, scale * 0.34), seed, (at, chance) => {
        if (chance(2) > 0.62) return;
        const reach = scale * (0.05 + 0.13 * chance(3));
        if (!isSeen(at, reach)) return;
        const turn = chance(4) * 6.3;
        const [cos, sin] = [Math.cos(turn) * reach, Math.sin(turn) * reach];
        context.moveTo(at.x + cos, at.y + sin);
        context.lineTo(at.x - sin, at.y + cos * 0.6);
        context.lineTo(at.x - cos, at.y - sin);
        context.lineTo(at.x + sin, at.y - cos * 0.6);
      });
      fillPath(context);
  }
}

/** Lines at an angle, each a little uneven, in pieces that let go and begin anew. */
function hatch(context: Context2D, texture: LookNow, box: Box, axis: Point, seed: number, scale: number): void {
  const angle = (texture.numbers['angle']! * Math.PI) / 180;
  const along = { x: Math.cos(angle), y: Math.sin(angle) };
  const drifts = texture.choices['moves'] === 'drifts' ? texture.at * ROUND * scale : 0;
  // Only what drifts across the lines is seen; along them they would run through themselves.
  const shift = drifts * Math.sign(axis.y * along.x - axis.x * along.y || 1);
  const middle = { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 };
  const reach = Math.hypot(box.right - box.left, box.bottom - box.top) / 2 + scale;
  const across = middle.y * along.x - middle.x * along.y;
  const start = middle.x * along.x + middle.y * along.y;
  const size = Math.max(scale, (2 * reach) / 1500);
  const from = Math.floor((across - reach - shift) / size);
  const to = Math.ceil((across + reach - shift) / size);
  context.beginPath();
  for (let line = from; line <= to; line++) {
    const own = drifts > 0 ? modulo(line, ROUND) : line;
    const chance = (which: number) => hashFraction(seed + which * 7919, own, which);
    const v = (line + 0.3 * chance(0)) * size + shift;
    const thick = size * (0.12 + 0.12 * chance(1));
    const piece = size * 9;
    const first = Math.floor((start - reach) / piece) - 1;
    for (let k = first; k * piece < start + reach; k++) {
      const cut = (which: number) => hashFraction(seed + 31, own * 613 + k, which);
      const [u0, u1] = [(k + 0.12 * cut(0)) * piece, (k + 0.84 + 0.14 * cut(1)) * piece];
      const at = (u: number, w: number): [number, number] => [u * along.x - w * along.y, u * along.y + w * along.x];
      context.moveTo(...at(u0, v));
      context.lineTo(...at((u0 + u1) / 2, v - thick));
      context.lineTo(...at(u1, v));
      context.lineTo(...at((u0 + u1) / 2, v + thick));
    }
  }
  fillPath(context);
}
