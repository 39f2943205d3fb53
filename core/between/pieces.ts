/** Pieces: marks that carry one name from drawing to drawing, one lick or one drop. */
import { marksInOrder } from '../document/index.ts';
import type { Drawing, Mark } from '../document/index.ts';
import { bodyOf } from './outline.ts';

/** A drawing with the frame it begins on. */
interface At {
  readonly frame: number;
  readonly drawing: Drawing;
}

/** What a piece is like in a drawing. */
type PieceAt = Omit<PieceTick, 'frame'>;

/** Drawings never change: what pieces each has is worked out once, and what each of them is like. */
const names = new WeakMap<Drawing, ReadonlySet<string>>();
const places = new WeakMap<Drawing, Map<string, PieceAt>>();

const pieceOf = (mark: Mark): string | undefined => (mark.kind === 'rub' ? undefined : mark.piece);

/** Names of the pieces of a drawing. */
export function pieceNames(drawing: Drawing): ReadonlySet<string> {
  const found = names.get(drawing) ?? new Set(Object.values(drawing.marks).flatMap((mark) => pieceOf(mark) ?? []));
  names.set(drawing, found);
  return found;
}

/** Names of the pieces of some drawings, with how many drawings have each. */
export function piecesOf(drawings: readonly At[]): { name: string; drawings: number }[] {
  const found = new Map<string, number>();
  for (const { drawing } of drawings)
    for (const name of pieceNames(drawing)) found.set(name, (found.get(name) ?? 0) + 1);
  return [...found]
    .map(([name, count]) => ({ name, drawings: count }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
}

/** A drawing's marks of one piece. */
export const marksOfPiece = (drawing: Drawing, name: string): Mark[] =>
  marksInOrder(drawing).filter((mark) => pieceOf(mark) === name);

interface PieceTick {
  readonly frame: number;
  readonly x: number;
  readonly y: number;
  /** px²; of strokes what they enclose. */
  readonly area: number;
}

function pieceAt(drawing: Drawing, name: string): PieceAt {
  const kept = places.get(drawing) ?? new Map<string, PieceAt>();
  places.set(drawing, kept);
  const known = kept.get(name);
  if (known) return known;
  const bodies = marksOfPiece(drawing, name).map(bodyOf);
  const weight = bodies.reduce((sum, { reach }) => sum + reach, 0);
  const mean = (axis: 'x' | 'y') => bodies.reduce((sum, { middle, reach }) => sum + middle[axis] * reach, 0) / weight;
  const area = bodies.reduce((sum, body) => sum + (body.area > 0 ? body.area : Math.PI * body.reach ** 2), 0);
  const found = { x: mean('x'), y: mean('y'), area };
  kept.set(name, found);
  return found;
}

/** Where a piece is on each drawing that has it, and how large. */
export const pieceTicks = (drawings: readonly At[], name: string): PieceTick[] =>
  drawings
    .filter(({ drawing }) => pieceNames(drawing).has(name))
    .map(({ frame, drawing }) => ({ frame, ...pieceAt(drawing, name) }));

/** A name for the next piece that none of the others has. */
export function nextPieceName(drawings: readonly At[]): string {
  const used = new Set(piecesOf(drawings).map(({ name }) => name));
  for (let i = 1; ; i++) if (!used.has(`piece ${i}`)) return `piece ${i}`;
}
