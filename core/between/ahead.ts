/** What comes next: where pieces go on to, and how far each still has to go to where the cycle began. */
import type { Drawing, Id, Mark } from '../document/index.ts';
import { apply, type Point, evenPoints, walkOf } from '../geometry/index.ts';
import { mapped } from '../marks/index.ts';
import { islandsOf } from './islands.ts';
import { matchMarks } from './match.ts';
import { bodyOf, ringWalk, strokePoints } from './outline.ts';
import { powerOf, similarityBetween, type Similarity } from './similar.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

/** Points compared of each mark. */
const LOOKED = 24;

function linePoints(mark: Mark): Point[] {
  if (mark.kind !== 'shape') return evenPoints(walkOf(strokePoints(mark), false), LOOKED, false);
  const outer = mark.rings.map(ringWalk).reduce((max, walk) => (walk.length > max.length ? walk : max));
  return evenPoints(outer, LOOKED, true);
}

/** Small turns of what is nearly round mean nothing: below this share of its size the points fit as well unturned. */
const LIKE = 0.25;

/** How one mark went to another: moved, grown, and turned where it shows a direction. */
function stepBetween(a: Mark, b: Mark): Similarity {
  const [p, q] = [bodyOf(a), bodyOf(b)];
  const scale = q.reach / p.reach;
  const moved: Similarity = { angle: 0, scale, e: q.middle.x - scale * p.middle.x, f: q.middle.y - scale * p.middle.y };
  if (a.kind === 'shape') return moved;
  const [from, to] = [linePoints(a), linePoints(b)];
  const whole = similarityBetween(from, to);
  const off = to.reduce((sum, point, i) => {
    const got = apply(powerOf(whole, 1), from[i]!);
    return sum + Math.hypot(got.x - point.x, got.y - point.y);
  }, 0);
  return off / to.length < LIKE * q.reach ? whole : moved;
}

/**
 * Marks of the last drawing where they would be next, going on as they came.
 * @param before the drawing before the last, by which the way is known.
 */
export function extrapolated(before: Marks, last: Marks): Mark[] {
  return matchMarks(before, last, { ties: [] }).flatMap(({ from, to }) => {
    const [a, b] = [before.marks[from[0] ?? ''], last.marks[to[0] ?? '']];
    if (!a || !b || b.kind === 'rub') return [];
    const step = powerOf(stepBetween(a, b), 1);
    return [mapped(b, (point) => apply(step, point))];
  });
}

/** A piece on its way back to the first drawing. */
interface WayBack {
  readonly from: Point;
  /** Where it has to be, or null when nothing in the first drawing is it: it should leave or shrink away. */
  readonly to: Point | null;
  /** px. */
  readonly distance: number;
  readonly markId: Id;
}

/** Drawings never change, so they are taken apart once. */
const apart = new WeakMap<Marks, Marks>();

/** The drawing with every separate area a mark of its own. */
function inPieces(drawing: Marks): Marks {
  const kept = apart.get(drawing);
  if (kept) return kept;
  const marks = drawing.order.flatMap((id): readonly Mark[] => {
    const mark = drawing.marks[id]!;
    return mark.kind === 'shape' ? islandsOf(mark) : [mark];
  });
  const pieces = {
    order: marks.map(({ id }) => id),
    marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
  };
  apart.set(drawing, pieces);
  return pieces;
}

/** How far each piece of a drawing still has to go to be the first one. */
export function waysBack(drawing: Marks, first: Marks): WayBack[] {
  const [here, there] = [inPieces(drawing), inPieces(first)];
  return matchMarks(here, there, { ties: [] }).flatMap(({ from, to }): WayBack[] => {
    const target = there.marks[to[0] ?? ''];
    return from.flatMap((id, i): WayBack[] => {
      const mark = here.marks[id]!;
      if (mark.kind === 'rub') return [];
      const { middle } = bodyOf(mark);
      // Only the first of a group goes there; the others have split off and would have to run into it.
      const goal = target && i === 0 ? bodyOf(target).middle : null;
      const distance = goal ? Math.hypot(goal.x - middle.x, goal.y - middle.y) : 0;
      return [{ from: middle, to: goal, distance, markId: id }];
    });
  });
}
