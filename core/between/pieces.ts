/** Pieces: marks that carry one name from drawing to drawing, one lick or one drop. */
import { marksInOrder } from '../document/index.ts';
import type { Drawing, Mark } from '../document/index.ts';
import { bodyOf } from './outline.ts';

/** A drawing with the frame it begins on. */
interface At {
  readonly frame: number;
  readonly drawing: Drawing;
}

const pieceOf = (mark: Mark): string | undefined => (mark.kind === 'rub' ? undefined : mark.piece);

/** Names of the pieces of some drawings, with how many drawings have each. */
export function piecesOf(drawings: readonly At[]): { name: string; drawings: number }[] {
  const found = new Map<string, number>();
  for (const { drawing } of drawings)
    for (const name of new Set(Object.values(drawing.marks).flatMap((mark) => pieceOf(mark) ?? [])))
      found.set(name, (found.get(name) ?? 0) + 1);
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
  /** px²; of strokes what they go round. */
  readonly area: number;
}

/** Where a piece is on each drawing that has it, and how large. */
export function pieceTicks(drawings: readonly At[], name: string): PieceTick[] {
  return drawings.flatMap(({ frame, drawing }): PieceTick[] => {
    const marks = marksOfPiece(drawing, name);
    if (marks.length === 0) return [];
    const bodies = marks.map(bodyOf);
    const weight = bodies.reduce((sum, { reach }) => sum + reach, 0);
    const mean = (axis: 'x' | 'y') => bodies.reduce((sum, { middle, reach }) => sum + middle[axis] * reach, 0) / weight;
    const area = bodies.reduce((sum, body) => sum + (body.area > 0 ? body.area : Math.PI * body.reach ** 2), 0);
    return [{ frame, x: mean('x'), y: mean('y'), area }];
  });
}

/** A name for the next piece that none of the others has. */
export function nextPieceName(drawings: readonly At[]): string {
  const used = new Set(piecesOf(drawings).map(({ name }) => name));
  for (let i = 1; ; i++) if (!used.has(`piece ${i}`)) return `piece ${i}`;
}
