/** Reshaping: which points are taken, and how far a pull reaches. */
import {
  find,
  marksAmong,
  marksInOrder,
  randomId,
  type Drawing,
  type Id,
  type Mark,
  type RubOut,
  type Stroke,
} from '@tallow/core/document';
import { changeMarks, replaceMarks, type MarkSets } from '@tallow/core/edit';
import type { Point } from '@tallow/core/geometry';
import {
  controlPointsOf,
  picked as pickedSamples,
  pulled,
  smoothed,
  splitSamples,
  weightsOf,
  widened,
  withNodes,
  withoutControlPoint,
  withoutNodes,
  type Fall,
  type ControlPoint,
} from '@tallow/core/marks';
import { create } from 'zustand';
import { current, shownNow } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import { openEngine } from '../../picture/open-engine.ts';
import { viewed } from '../../view/viewed.ts';
import { edit, say } from '../../shot/document.ts';
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
function reshapeBy(
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

export const whyNotReshape = (): string | null => (selectedControlPoints().length > 0 ? null : 'Take a point first.');

export const smooth = (): void => {
  reshapeBy('smooth', selectedControlPoints(), (mark, weights, share) => {
    let next = mark;
    for (let i = 0; i < 6; i++)
      next = smoothed(
        next,
        weights.map((w) => w.map((v) => v * share)),
      );
    return next;
  });
};

/** @param factor above 1 widens, below 1 thins. */
export const widen = (factor: number): void => {
  reshapeBy(factor > 1 ? 'widen' : 'thin', selectedControlPoints(), (mark, weights, share) =>
    widened(
      mark,
      weights.map((w) => w.map((v) => v * share)),
      factor,
    ),
  );
};

type Line = Stroke | RubOut;

/** Changes the strokes that have taken points. @param change gets each with its points, in order. */
function changeLines(name: string, change: (line: Line, indices: readonly number[]) => readonly Line[]): void {
  if (!isChangeable()) return;
  const drawing = shapedDrawing();
  if (!drawing) return;
  const controlPoints = selectedControlPoints();
  const lines = [...new Set(controlPoints.map(({ markId }) => markId))].filter(
    (id) => drawing.marks[id]?.kind !== 'shape',
  );
  edit(name, (doc) =>
    replaceMarks(doc, { [drawing.id]: lines }, (mark) => {
      if (mark.kind === 'shape') return [mark];
      const indices = controlPoints.flatMap((g) => (g.markId === mark.id ? [g.index] : [])).sort((a, b) => a - b);
      return change(mark, indices);
    }),
  );
  setReshape({ controlPoints: [] });
}

/** Cuts strokes at the taken points. */
export function cutAtControlPoints(): void {
  changeLines('cut the stroke', (line, indices) =>
    splitSamples(line.samples, indices).map((samples, i) => ({ ...line, id: i === 0 ? line.id : randomId(), samples })),
  );
}

/** Takes the taken points away: lines go straight to their neighbours, shapes lose the node. */
export function removeControlPoints(): void {
  if (!isChangeable()) return;
  const drawing = shapedDrawing();
  const controlPoints = selectedControlPoints();
  if (!drawing) return;
  const touched = [...new Set(controlPoints.map(({ markId }) => markId))];
  edit('remove points', (doc) =>
    changeMarks(doc, { [drawing.id]: touched }, (mark) => {
      const own = controlPoints.filter((g) => g.markId === mark.id);
      if (mark.kind === 'shape') {
        const rings = mark.rings.map((ring, r) =>
          withoutNodes(
            ring,
            own.filter((g) => g.ring === r).map((g) => g.index),
          ),
        );
        return { ...mark, rings };
      }
      let kept = Array.from(mark.samples.x.keys());
      for (const { index } of own) {
        const without = new Set(withoutControlPoint(mark.samples, index, thinning()));
        kept = kept.filter((i) => without.has(i));
      }
      return kept.length < 2 ? mark : { ...mark, samples: pickedSamples(mark.samples, kept) };
    }),
  );
  setReshape({ controlPoints: [] });
}

/** Puts a point between each taken one and the next: on strokes a sample, on shapes a node, without changing the line. */
export function addControlPoints(): void {
  const drawing = shapedDrawing();
  const controlPoints = selectedControlPoints();
  if (!drawing || controlPoints.length === 0 || !isChangeable()) return;
  edit('add points', (doc) =>
    changeMarks(doc, { [drawing.id]: [...new Set(controlPoints.map(({ markId }) => markId))] }, (mark) => {
      if (mark.kind !== 'shape') return mark;
      return {
        ...mark,
        rings: mark.rings.map((ring, r) =>
          withNodes(
            ring,
            controlPoints.filter((g) => g.markId === mark.id && g.ring === r).map((g) => g.index),
          ),
        ),
      };
    }),
  );
  if (controlPoints.some((g) => drawing.marks[g.markId]?.kind !== 'shape'))
    say('Strokes have a point wherever they are pulled: press on the line between its points.');
}
