/** The pen picks up: a tap takes a mark, a line round marks takes what it encloses, and what is picked up moves. */
import { randomId, type RubOut, type Stroke } from '@tallow/core/document';
import { replaceMarks } from '@tallow/core/edit';
import { apply, IDENTITY, invert, multiply, scaleOf, type Matrix, type Point, isInside } from '@tallow/core/geometry';
import { markAt, marksInside, splitByPolygon } from '@tallow/core/marks';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { edit, endGesture, takeBack } from '../../shot/document.ts';
import {
  gestureName,
  isChangeable,
  matrixNow,
  pick,
  pickBy,
  selectedCount,
  setPick,
  transformSelected,
  type Picking,
} from './pick.ts';
import type { Transform } from '@tallow/core/marks';
import { openEngine } from '../../picture/open-engine.ts';
import { loadedReached, othersReached } from './reach.ts';
import { current } from '../../selection/current.ts';

/** How far the pen goes before a tap is a drag, CSS px. */
const TAP = 4;
const REACH = 7;

/** The corners of the picked-up box as they lie now, element space. */
export function cornersNow(): Point[] {
  const { left, top, right, bottom } = pick().box;
  const matrix = matrixNow();
  return [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ].map((corner) => apply(matrix, corner));
}

/**
 * Follows a change of what is picked up: seen at once as pictures moved, done exactly when the pen lifts.
 * @param changed the transform for a place of the pen, element space.
 */
export function followTransform(
  name: string,
  changed: (at: Point) => Transform,
): Omit<PenDoing, 'move'> & {
  moveTo: (at: Point) => void;
} {
  const before = pick().transform;
  const gesture = gestureName();
  const engine = openEngine();
  const done = invert(matrixNow(before));
  const now = current();
  const others = now ? othersReached(now).map(({ layer }) => layer.id) : [];
  engine?.floating.begin(Object.values(pick().sets).flat(), others);
  let next: Transform = before;
  return {
    moveTo: (at) => {
      next = changed(at);
      // Only what is done since the pen landed: the picture shows the rest already.
      setPick({ transform: next });
      engine?.floating.move(multiply(matrixNow(next), done));
    },
    up: () => {
      setPick({ transform: before });
      if (next !== before) transformSelected(name, next, gesture);
      endGesture();
      engine?.floating.settle();
      return true;
    },
    drop: () => {
      setPick({ transform: before });
      takeBack(gesture);
      engine?.floating.drop();
    },
  };
}

function moving(start: Point, inward: Matrix): PenDoing {
  const { transform } = pick();
  const follow = followTransform('move', (at) => ({
    ...transform,
    x: transform.x + at.x - start.x,
    y: transform.y + at.y - start.y,
  }));
  return {
    ...follow,
    move: (samples) => {
      follow.moveTo(apply(inward, samples.at(-1)!));
    },
  };
}

/** Places of the active layer's space in the space of another layer. @param toActive from that layer's space. */
const seenFrom = (points: readonly Point[], toActive: Matrix = IDENTITY): readonly Point[] =>
  toActive === IDENTITY ? points : points.map((p) => apply(invert(toActive), p));

/** Cuts the strokes that a lasso crosses and picks up the parts within. */
function cutOut(polygon: readonly Point[], how: Picking): void {
  if (!isChangeable()) return;
  const within = new Set<string>();
  const spaces = new Map(loadedReached().map(({ drawingId, toActive }) => [drawingId, toActive]));
  const crossed = Object.fromEntries(
    loadedReached().map(({ drawing }) => [
      drawing.id,
      drawing.order.filter((id) => drawing.marks[id]!.kind !== 'shape'),
    ]),
  );
  edit('cut by lasso', (doc) =>
    replaceMarks(doc, crossed, (mark, drawingId) => {
      if (mark.kind === 'shape') return [mark];
      const parts = splitByPolygon(mark.samples, seenFrom(polygon, spaces.get(drawingId)));
      if (parts.within.length === 0 || parts.without.length === 0) {
        if (parts.within.length > 0) within.add(mark.id);
        return [mark];
      }
      const made = [...parts.without, ...parts.within].map((samples, i): Stroke | RubOut => ({
        ...mark,
        id: i === 0 ? mark.id : randomId(),
        samples,
      }));
      for (const part of made.slice(parts.without.length)) within.add(part.id);
      return made;
    }),
  );
  pickBy((drawing, toActive) => {
    const inside = new Set(marksInside(drawing, seenFrom(polygon, toActive)));
    return drawing.order.filter((id) => (drawing.marks[id]!.kind === 'shape' ? inside.has(id) : within.has(id)));
  }, how);
}

/** Begins where the pen lands. @param inward CSS px of the canvas to element space. */
export function beginPick(inward: Matrix, first: PenSample): PenDoing | null {
  const start = apply(inward, first);
  const perPixel = scaleOf(inward);
  const how: Picking = first.shift ? 'add' : first.alt ? 'take' : pick().picking;
  if (how === 'new' && selectedCount() > 0 && isInside(cornersNow(), start))
    return isChangeable() ? moving(start, inward) : null;
  const points: Point[] = [start];
  let far = 0;
  return {
    move: (samples) => {
      for (const sample of samples) {
        const at = apply(inward, sample);
        points.push(at);
        far = Math.max(far, Math.hypot(at.x - start.x, at.y - start.y));
      }
      if (far < TAP * perPixel) return;
      setPick({ draft: draftOf(points) });
    },
    up: () => {
      setPick({ draft: [] });
      if (far < TAP * perPixel) {
        pickBy((drawing, toActive) => {
          const id = markAt(drawing, seenFrom([start], toActive)[0]!, (REACH * perPixel) / scaleOf(toActive));
          return id ? [id] : [];
        }, how);
        return true;
      }
      const polygon = draftOf(points);
      if (pick().cuts) cutOut(polygon, how);
      else pickBy((drawing, toActive) => marksInside(drawing, seenFrom(polygon, toActive)), how);
      return true;
    },
    drop: () => {
      setPick({ draft: [] });
    },
  };
}

/** The lasso as drawn, or the box from its first to its last point. */
function draftOf(points: readonly Point[]): Point[] {
  if (pick().by === 'lasso') return [...points];
  const [a, b] = [points[0]!, points.at(-1)!];
  return [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }];
}
