/** Reshaping: which points are taken, and how far a pull reaches. */
import { find, marksAmong, marksInOrder, type Drawing, type Id, type Mark } from '@tallow/core/document';
import { changeMarks, type MarkSets } from '@tallow/core/edit';
import type { Point } from '@tallow/core/geometry';
import { controlPointsOf, pulled, weightsOf, type Fall, type ControlPoint } from '@tallow/core/marks';
import { create } from 'zustand';
import { current, shownNow } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import { openEngine } from '../../picture/open-engine.ts';
import { viewed } from '../../view/viewed.ts';
import { edit } from '../../shot/document.ts';
import { isChangeable, pick, fractionsNow } from '../pick/pick.ts';
import { loadedToEdit } from '../../selection/to-edit.ts';

export type Along = 'line' | 'piece' | 'all';

interface ReshapeState {
  /** Selected points, in the drawing that is shown. */
  readonly controlPoints: readonly ControlPoint[];
  /** px of element space. */
  readonly radius: number;
  readonly fall: Fall;
  /** What comes along within reach: only lines that have a taken point, those of its piece, or all. */
  readonly along: Along;
  /** The pen redraws a part of a stroke instead of pulling. */
  readonly redraws: boolean;
  /** What the pen draws over a stroke, element space. */
  readonly draft: readonly Point[];
  /** Marks as the pen pulls them now; the document has them once it lifts. */
  readonly pulled: ReadonlyMap<Id, Mark>;
}

const NONE: ReadonlyMap<Id, Mark> = new Map();

export const useReshape = create<ReshapeState>(() => ({
  controlPoints: [],
  radius: 60,
  fall: 'soft',
  along: 'line',
  redraws: false,
  draft: [],
  pulled: NONE,
}));

export const reshape = useReshape.getState;

export const setReshape = useReshape.setState;

/** The drawing whose points are shown. */
export function shapedDrawing(): Drawing | undefined {
  const now = current();
  return now ? find(now.doc, 'drawing', shownNow(now, selection().frame)?.drawingId) : undefined;
}

/** Marks of a drawing that are reshaped, as they are in the document: what is picked up, else all. */
function marksOf(drawing: Drawing | undefined): Mark[] {
  if (!drawing) return [];
  const own = pick().sets[drawing.id];
  return own?.length ? marksAmong(drawing, own) : marksInOrder(drawing);
}

/** Marks whose points are shown, as the pen pulls them now. */
export function shapedMarks(): Mark[] {
  const { pulled: now } = reshape();
  return marksOf(shapedDrawing()).map((mark) => now.get(mark.id) ?? mark);
}

/** How finely lines are thinned to points, CSS px: seen from nearer, there are more. */
const THINNED = 1.5;

export const thinning = (): number => THINNED / Math.max(0.05, viewed().view.scale);

export const controlPointsShown = (): ControlPoint[] =>
  shapedMarks().flatMap((mark) => controlPointsOf(mark, thinning()));

const sameControlPoint = (a: ControlPoint, b: ControlPoint): boolean =>
  a.markId === b.markId && a.ring === b.ring && a.index === b.index;

export const isSelected = (controlPoint: ControlPoint): boolean =>
  reshape().controlPoints.some((each) => sameControlPoint(each, controlPoint));

export function selectControlPoint(controlPoint: ControlPoint, more: boolean): void {
  const { controlPoints } = reshape();
  if (!more) setReshape({ controlPoints: [controlPoint] });
  else
    setReshape({
      controlPoints: isSelected(controlPoint)
        ? controlPoints.filter((g) => !sameControlPoint(g, controlPoint))
        : [...controlPoints, controlPoint],
    });
}

/** Points taken, where they are now; those whose mark is gone are let go. */
export function selectedControlPoints(): ControlPoint[] {
  const marks = new Map(shapedMarks().map((mark) => [mark.id, mark]));
  return reshape().controlPoints.flatMap((controlPoint) => {
    const mark = marks.get(controlPoint.markId);
    if (!mark) return [];
    const line = mark.kind === 'shape' ? mark.rings[controlPoint.ring] : undefined;
    const [x, y] =
      mark.kind === 'shape'
        ? [line?.[controlPoint.index * 6], line?.[controlPoint.index * 6 + 1]]
        : [mark.samples.x[controlPoint.index], mark.samples.y[controlPoint.index]];
    return x === undefined || y === undefined ? [] : [{ ...controlPoint, x, y }];
  });
}

/** All marks of the selected drawings; in those that are not shown a pull reaches whatever is near. */
function reached(): MarkSets {
  const shown = shapedDrawing()?.id;
  return Object.fromEntries(
    loadedToEdit().map((drawing) => [
      drawing.id,
      drawing.id === shown ? marksOf(drawing).map(({ id }) => id) : (pick().sets[drawing.id] ?? drawing.order),
    ]),
  );
}

/** The piece of a mark; a mark that is of none is one by itself. */
const pieceOf = (mark: Mark): string => (mark.kind === 'rub' ? mark.id : (mark.piece ?? mark.id));

/** The pieces that have a taken point. */
function piecesOf(controlPoints: readonly ControlPoint[]): Set<string> {
  const marks = shapedDrawing()?.marks ?? {};
  return new Set(controlPoints.flatMap(({ markId }) => (marks[markId] ? [pieceOf(marks[markId])] : [])));
}

/** How strongly the taken points reach each point of a mark. @param isShown whether the points are those of its drawing. */
function weightsIn(mark: Mark, controlPoints: readonly ControlPoint[], isShown: boolean): Float64Array[] {
  const { radius, fall, along } = reshape();
  const pieces = along === 'piece' ? piecesOf(controlPoints) : null;
  const taken = pieces && !pieces.has(pieceOf(mark)) && !pieces.has(mark.id) ? [] : controlPoints;
  // Another drawing has no such point: there, what lies near the place follows.
  const alongOnly = along === 'line' && isShown;
  return weightsOf(mark, taken, { radius: Math.max(radius, 0.01), fall, alongOnly });
}

/** Does something to what the taken points reach, by weight; in every selected drawing, by its share. */
export function reshapeBy(
  name: string,
  controlPoints: readonly ControlPoint[],
  change: (mark: Mark, weights: Float64Array[], share: number) => Mark,
): void {
  if (!isChangeable()) return;
  const sets = reached();
  const shown = shapedDrawing()?.id;
  const share = fractionsNow(sets);
  edit(name, (doc) =>
    changeMarks(doc, sets, (mark, drawingId) =>
      change(mark, weightsIn(mark, controlPoints, drawingId === shown), share[drawingId] ?? 1),
    ),
  );
}

/** Pulls the taken points. @param from where they were when the pen took them. */
export function pullBy(from: readonly ControlPoint[], by: Point): void {
  reshapeBy(reshape().fall === 'spike' ? 'spike' : 'reshape', from, (mark, weights, share) =>
    pulled(mark, weights, { x: by.x * share, y: by.y * share }),
  );
}

/** Follows a pull of the taken points: seen at once in the drawing that is shown, done in all that are selected at its end. */
export function followPull(): { moveTo: (by: Point) => void; done: () => void; drop: () => void } {
  const from = selectedControlPoints();
  const engine = openEngine();
  const drawing = shapedDrawing();
  const share = (drawing && fractionsNow(reached())[drawing.id]) ?? 1;
  const felt = marksOf(drawing)
    .map((mark) => [mark, weightsIn(mark, from, true)] as const)
    .filter(([, weights]) => weights.some((line) => line.some((weight) => weight > 0)));
  let last: Point | null = null;
  return {
    moveTo: (by) => {
      last = by;
      const marks = felt.map(([mark, weights]) => pulled(mark, weights, { x: by.x * share, y: by.y * share }));
      setReshape({ pulled: new Map(marks.map((mark) => [mark.id, mark])) });
      void engine?.pulling.show(marks);
    },
    done: () => {
      if (last) pullBy(from, last);
      setReshape({ pulled: NONE });
      engine?.pulling.settle();
    },
    drop: () => {
      setReshape({ pulled: NONE });
      engine?.pulling.drop();
    },
  };
}
