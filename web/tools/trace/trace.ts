/** Shift and trace: ghosts of the onion skin moved under the pen, so that a pose is traced in its new place. */
import { find, type Drawing, type Id } from '@tallow/core/document';
import { apply, IDENTITY, invert, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import { markAt, matrixAbout, placesOf, STILL, type Transform } from '@tallow/core/marks';
import { current, type Current } from '../../selection/current.ts';
import { setShowing, showing } from '../../picture/showing.ts';
import { selection } from '../../selection/selection.ts';
import { onionReach } from '../../picture/onion.ts';

/** What a drag does to a ghost. */
export type Shifting = 'move' | 'turn' | 'scale';

const shiftOf = (id: Id): Matrix => showing().ghostShift[id] ?? IDENTITY;

/** Loaded drawings that are seen as ghosts, the nearest first. */
function ghostDrawings(now: Current): Drawing[] {
  const { frame } = selection();
  const { onion, pinned } = showing();
  const near = [...onionReach(now, frame, onion)].sort(
    (a, b) => a.distance - b.distance || (a.side === 'before' ? -1 : 1),
  );
  const ids = [...new Set([...near.map((n) => n.drawingId), ...pinned])];
  return ids.flatMap((id) => find(now.doc, 'drawing', id) ?? []);
}

/** The ghost under the pen, else the nearest one before. @param reach px of element space. */
export function ghostAt(at: Point, reach: number): Drawing | undefined {
  const now = current();
  const ghosts = now ? ghostDrawings(now) : [];
  return ghosts.find((drawing) => markAt(drawing, apply(invert(shiftOf(drawing.id)), at), reach) !== null) ?? ghosts[0];
}

/** The middle of a ghost where it is seen. */
function middleOf(drawing: Drawing): Point {
  const places = Object.values(drawing.marks).flatMap(placesOf);
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)];
  const span = (list: number[]) =>
    (list.reduce((a, b) => Math.min(a, b), Infinity) + list.reduce((a, b) => Math.max(a, b), -Infinity)) / 2;
  return places.length === 0 ? { x: 0, y: 0 } : apply(shiftOf(drawing.id), { x: span(xs), y: span(ys) });
}

/** What a drag from one place to another does to a ghost; worked out from where it was when the pen landed. */
export function shifter(drawing: Drawing, how: Shifting, from: Point): (to: Point) => void {
  const before = shiftOf(drawing.id);
  const middle = middleOf(drawing);
  const way = (p: Point) => ({
    far: Math.hypot(p.x - middle.x, p.y - middle.y),
    angle: Math.atan2(p.y - middle.y, p.x - middle.x),
  });
  return (to) => {
    const [a, b] = [way(from), way(to)];
    const grown = Math.min(20, Math.max(0.05, b.far / Math.max(1, a.far)));
    const change: Transform = {
      move: { ...STILL, x: to.x - from.x, y: to.y - from.y },
      turn: { ...STILL, angle: b.angle - a.angle },
      scale: { ...STILL, scaleX: grown, scaleY: grown },
    }[how];
    setShowing({
      ghostShift: { ...showing().ghostShift, [drawing.id]: multiply(matrixAbout(middle, change), before) },
    });
  };
}

export const ghostsBack = (): void => {
  setShowing({ ghostShift: {} });
};
export const whyNotBack = (): string | null =>
  Object.keys(showing().ghostShift).length > 0 ? null : 'Every ghost is where its drawing is.';
