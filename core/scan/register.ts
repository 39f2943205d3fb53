/** Scans laid over each other by two marks: found again in each picture, and moved, turned and scaled onto those of the first. */
import type { Matrix, Point } from '../geometry/index.ts';
import type { Darkness } from './paper.ts';

/** A mark as it looks, and where it lies in the first picture. */
export interface RegistrationMark {
  readonly at: Point;
  /** Half its side, px. */
  readonly reach: number;
  /** Darkness around it, row by row. */
  readonly look: Float32Array;
}

/** Half the side of a mark, and how far from its place it is looked for: shares of the picture's longer side. */
const [REACH, SEARCH] = [0.02, 0.06];
/** How alike two looks are at least, as their correlation from -1 to 1. */
const ALIKE = 0.55;

export const markReach = ({ width, height }: Pick<Darkness, 'width' | 'height'>): number =>
  Math.max(4, Math.round(REACH * Math.max(width, height)));

/** @param every how many px the places that are looked at lie apart. */
function lookAt({ values, width, height }: Darkness, x: number, y: number, reach: number, every = 1): Float32Array {
  const side = Math.floor((2 * reach) / every) + 1;
  const look = new Float32Array(side * side);
  for (let dy = -reach, i = 0; dy <= reach; dy += every)
    for (let dx = -reach; dx <= reach; dx += every, i++) {
      const [px, py] = [x + dx, y + dy];
      look[i] = px >= 0 && py >= 0 && px < width && py < height ? values[py * width + px]! : 0;
    }
  return look;
}

/** The mark at a place of the first picture, px of it. @returns null where all is alike there: nothing could be found again. */
export function scanMarkAt(picture: Darkness, { x, y }: Point): RegistrationMark | null {
  const reach = markReach(picture);
  const at = { x: Math.round(x), y: Math.round(y) };
  const look = lookAt(picture, at.x, at.y, reach);
  const mean = look.reduce((sum, v) => sum + v, 0) / look.length;
  const variance = look.reduce((sum, v) => sum + (v - mean) ** 2, 0) / look.length;
  return variance < 1e-4 ? null : { at, reach, look };
}

/** Pearson's correlation of a look with what lies around a place. */
function likeness(look: Float32Array, other: Float32Array): number {
  let [a, b, aa, bb, ab] = [0, 0, 0, 0, 0];
  for (let i = 0; i < look.length; i++) {
    const [u, v] = [look[i]!, other[i]!];
    a += u;
    b += v;
    aa += u * u;
    bb += v * v;
    ab += u * v;
  }
  const n = look.length;
  const under = Math.sqrt((aa - (a * a) / n) * (bb - (b * b) / n));
  return under < 1e-9 ? 0 : (ab - (a * b) / n) / under;
}

/** px between places where a mark is looked for roughly. */
const ROUGHLY = 2;

/** Every second px of a look. */
function selected(look: Float32Array, reach: number): Float32Array {
  const side = 2 * reach + 1;
  return look.filter((_, i) => (i % side) % ROUGHLY === 0 && Math.floor(i / side) % ROUGHLY === 0);
}

/** The top of a parabola through three values at -1, 0 and 1. */
const topOf = (before: number, at: number, after: number): number => {
  const bend = before - 2 * at + after;
  return bend >= -1e-9 ? 0 : Math.min(0.5, Math.max(-0.5, (0.5 * (before - after)) / bend));
};

/**
 * Where a mark lies in another picture of about the same size: near its place in the first.
 * @returns px, to parts of them; null where nothing there looks like it.
 */
export function findMark(picture: Darkness, { at, reach, look }: RegistrationMark): Point | null {
  const far = Math.round(SEARCH * Math.max(picture.width, picture.height));
  const alike = (x: number, y: number): number => likeness(look, lookAt(picture, x, y, reach));
  let best = { x: at.x, y: at.y, value: -1 };
  const tryAt = (x: number, y: number, value: number): void => {
    if (value > best.value) best = { x, y, value };
  };
  // Roughly first, in fewer places and by fewer of their px: a mark is wider than that.
  const rough = selected(look, reach);
  for (let dy = -far; dy <= far; dy += ROUGHLY)
    for (let dx = -far; dx <= far; dx += ROUGHLY) {
      const [x, y] = [at.x + dx, at.y + dy];
      tryAt(x, y, likeness(rough, lookAt(picture, x, y, reach, ROUGHLY)));
    }
  const { x: cx, y: cy } = best;
  best = { x: cx, y: cy, value: -1 };
  for (let dy = -ROUGHLY; dy <= ROUGHLY; dy++)
    for (let dx = -ROUGHLY; dx <= ROUGHLY; dx++) tryAt(cx + dx, cy + dy, alike(cx + dx, cy + dy));
  if (best.value < ALIKE) return null;
  const { x, y, value } = best;
  return {
    x: x + topOf(alike(x - 1, y), value, alike(x + 1, y)),
    y: y + topOf(alike(x, y - 1), value, alike(x, y + 1)),
  };
}

/** The move, turn and even scale that lays two points onto two others. @throws where the two are one point. */
export function overlaid(from: readonly [Point, Point], to: readonly [Point, Point]): Matrix {
  const [fx, fy] = [from[1].x - from[0].x, from[1].y - from[0].y];
  const [tx, ty] = [to[1].x - to[0].x, to[1].y - to[0].y];
  const square = fx * fx + fy * fy;
  if (square === 0) throw new Error('Two marks must lie apart');
  // As complex numbers, to over from.
  const [a, b] = [(tx * fx + ty * fy) / square, (ty * fx - tx * fy) / square];
  return [a, b, -b, a, to[0].x - a * from[0].x + b * from[0].y, to[0].y - b * from[0].x - a * from[0].y];
}
