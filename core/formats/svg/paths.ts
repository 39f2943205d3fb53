/** Outlines of nodes of SVG as curves. */
import { SVGPathData } from 'svg-pathdata';
import { apply, type Matrix, type Point } from '../../geometry/index.ts';
import type { SvgNode } from './tree.ts';

/** A curve of a path: to where, and over which control points; a straight one has none. */
export interface CurvePiece {
  readonly c1: Point;
  readonly c2: Point;
  readonly to: Point;
  readonly straight: boolean;
}
export interface Subpath {
  readonly from: Point;
  readonly pieces: readonly CurvePiece[];
  readonly closed: boolean;
}

const PX: Readonly<Record<string, number>> = { px: 1, pt: 4 / 3, pc: 16, mm: 96 / 25.4, cm: 96 / 2.54, in: 96, '': 1 };

/** A length in px, CSS units at 96 an inch; percent of nothing known is 0. */
export function svgLength(text: string | undefined, fallback = 0): number {
  const found = /^([+-]?[\d.]+(?:e[+-]?\d+)?)([a-z]*)$/i.exec(text?.trim() ?? '');
  const value = found ? Number(found[1]) * (PX[found[2]!.toLowerCase()] ?? Number.NaN) : Number.NaN;
  return Number.isFinite(value) ? value : fallback;
}

/** An ellipse as path data. */
const round = (cx: number, cy: number, rx: number, ry: number): string =>
  rx > 0 && ry > 0 ? `M${cx + rx} ${cy}A${rx} ${ry} 0 1 1 ${cx - rx} ${cy}A${rx} ${ry} 0 1 1 ${cx + rx} ${cy}Z` : '';

function rectangle(x: number, y: number, w: number, h: number, rx: number, ry: number): string {
  if (!(w > 0 && h > 0)) return '';
  const [a, b] = [Math.min(rx, w / 2), Math.min(ry, h / 2)];
  if (!(a > 0 && b > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
  const arc = `A${a} ${b} 0 0 1 `;
  return `M${x + a} ${y}H${x + w - a}${arc}${x + w} ${y + b}V${y + h - b}${arc}${x + w - a} ${y + h}H${x + a}${arc}${x} ${y + h - b}V${y + b}${arc}${x + a} ${y}Z`;
}

/** The data of a node's outline; empty where it has none. */
function dataOf({ name, attributes }: SvgNode): string {
  const n = (key: string): number => svgLength(attributes[key]);
  switch (name) {
    case 'path':
      return attributes['d'] ?? '';
    case 'rect': {
      const [rx, ry] = [n('rx'), n('ry')];
      return rectangle(n('x'), n('y'), n('width'), n('height'), rx || ry, ry || rx);
    }
    case 'circle':
      return round(n('cx'), n('cy'), n('r'), n('r'));
    case 'ellipse':
      return round(n('cx'), n('cy'), n('rx'), n('ry'));
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const points = (attributes['points'] ?? '').trim();
      return points === '' ? '' : `M${points}${name === 'polygon' ? 'Z' : ''}`;
    }
    default:
      return '';
  }
}

const mid = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

/** The curves of a node put through a matrix. @throws where its data cannot be read. */
export function subpathsOf(node: SvgNode, matrix: Matrix): Subpath[] {
  const data = dataOf(node);
  if (data === '') return [];
  const { commands } = new SVGPathData(data).toAbs().normalizeHVZ(false, true, true).normalizeST().qtToC().aToC();
  const paths: { from: Point; pieces: CurvePiece[]; closed: boolean }[] = [];
  let at: Point = { x: 0, y: 0 };
  const place = (x: number, y: number): Point => apply(matrix, { x, y });
  const open = () => {
    const last = paths.at(-1);
    if (last && !last.closed) return last;
    const next = { from: at, pieces: [], closed: false };
    paths.push(next);
    return next;
  };
  for (const each of commands) {
    if (each.type === SVGPathData.MOVE_TO) {
      at = place(each.x, each.y);
      paths.push({ from: at, pieces: [], closed: false });
    } else if (each.type === SVGPathData.LINE_TO) {
      const to = place(each.x, each.y);
      open().pieces.push({ c1: mid(at, to, 1 / 3), c2: mid(at, to, 2 / 3), to, straight: true });
      at = to;
    } else if (each.type === SVGPathData.CURVE_TO) {
      const to = place(each.x, each.y);
      open().pieces.push({ c1: place(each.x1, each.y1), c2: place(each.x2, each.y2), to, straight: false });
      at = to;
    } else if (each.type === SVGPathData.CLOSE_PATH) {
      const last = paths.at(-1);
      if (last) [last.closed, at] = [true, last.from];
    }
  }
  return paths.filter(({ pieces }) => pieces.length > 0);
}

/** The ring round a subpath, closed if it is not. */
export function ringOf({ from, pieces }: Subpath): Float32Array | null {
  const last = pieces.at(-1)!;
  const meets = Math.hypot(last.to.x - from.x, last.to.y - from.y) < 1e-3;
  // The last node is the first where they meet; else a straight side leads back.
  const nodes = [from, ...pieces.map(({ to }) => to)].slice(0, meets ? pieces.length : pieces.length + 1);
  if (nodes.length < 2) return null;
  const ring = new Float32Array(nodes.length * 6);
  nodes.forEach(({ x, y }, i) => {
    const before = i === 0 ? (meets ? last : null) : pieces[i - 1]!;
    const after = pieces[i] ?? null;
    // A straight side has its control points on its nodes.
    const into = before && !before.straight ? before.c2 : { x, y };
    const out = after && !after.straight ? after.c1 : { x, y };
    ring.set([x, y, into.x, into.y, out.x, out.y], i * 6);
  });
  return ring;
}

/** px from one sample of a curve to the next, and beside a corner. */
const [STEP, NEAR] = [3, 0.2] as const;
/** px a straight piece may be long to have no samples but its ends, where it goes on smoothly. */
const SHORT = 6;
/** Cosine of the bend from which on a joint is a corner: about 20 degrees. */
const SMOOTH = 0.94;
/** px that what runs smoothly through a joint may leave the pieces by; where it would by more, the joint is a corner too. */
const STRAYS = 0.08;

/** How long a piece is at the most, px. */
const longest = (at: Point, { c1, c2, to, straight }: CurvePiece): number =>
  straight
    ? Math.hypot(to.x - at.x, to.y - at.y)
    : Math.hypot(c1.x - at.x, c1.y - at.y) +
      Math.hypot(c2.x - c1.x, c2.y - c1.y) +
      Math.hypot(to.x - c2.x, to.y - c2.y);

const closing = ({ from, pieces, closed }: Subpath): readonly CurvePiece[] =>
  closed ? [...pieces, { c1: from, c2: from, to: from, straight: true }] : pieces;

/** About how many samples a stroke along a subpath has. */
export function samplesAlong(path: Subpath): number {
  let [at, count] = [path.from, 1];
  for (const piece of closing(path)) {
    count += piece.straight ? 3 : Math.max(1, Math.ceil(longest(at, piece) / STEP)) + 2;
    at = piece.to;
  }
  return count;
}

/** A place on a piece. @param t 0 to 1. */
function placeOn(at: Point, { c1, c2, to, straight }: CurvePiece, t: number): Point {
  if (straight) return mid(at, to, t);
  const [a, b, c] = [mid(at, c1, t), mid(c1, c2, t), mid(c2, to, t)];
  return mid(mid(a, b, t), mid(b, c, t), t);
}

/** How far the samples beside a joint lie from it on a piece, px. */
const chordAt = (at: Point, piece: CurvePiece): number => {
  const length = longest(at, piece);
  if (piece.straight) return length > SHORT ? NEAR : length;
  return length / Math.max(1, Math.ceil(length / STEP));
};

/** Whether a path bends sharply where a piece follows another. @param at where the first begins. */
function isCorner(at: Point, first: CurvePiece, second: CurvePiece | undefined): boolean {
  if (!second) return true;
  const [a, b] = [placeOn(at, first, 0.99), placeOn(first.to, second, 0.01)];
  const [ux, uy, vx, vy] = [first.to.x - a.x, first.to.y - a.y, b.x - first.to.x, b.y - first.to.y];
  const cosine = (ux * vx + uy * vy) / (Math.hypot(ux, uy) * Math.hypot(vx, vy));
  if (!(cosine >= SMOOTH)) return true;
  // A curve that turns by an angle over a chord rises an eighth of their product over it.
  const chord = Math.max(chordAt(at, first), chordAt(first.to, second));
  return (chord * Math.acos(Math.min(1, cosine))) / 8 > STRAYS;
}

/** Points of a stroke along a subpath: so close that what runs through them smoothly stays on it, corners too. */
export function pointsAlong(path: Subpath): Point[] {
  const points: Point[] = [path.from];
  const put = (p: Point): void => {
    const last = points.at(-1)!;
    if (Math.hypot(p.x - last.x, p.y - last.y) > 1e-4) points.push(p);
  };
  let at = path.from;
  let begins = true;
  const pieces = closing(path);
  for (const [i, piece] of pieces.entries()) {
    const length = longest(at, piece);
    const ends = isCorner(at, piece, pieces[i + 1]);
    const isLong = piece.straight && length > SHORT;
    const near = length > 4 * NEAR ? NEAR / length : null;
    if (near !== null && (begins || isLong)) put(placeOn(at, piece, near));
    const steps = piece.straight ? 1 : Math.max(1, Math.ceil(length / STEP));
    for (let k = 1; k < steps; k++) put(placeOn(at, piece, k / steps));
    if (near !== null && (ends || isLong)) put(placeOn(at, piece, 1 - near));
    put(piece.to);
    [at, begins] = [piece.to, ends];
  }
  return points;
}
