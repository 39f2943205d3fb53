/** Where a smeared thing goes, and what it meets. */
import {
  entitiesOf,
  find,
  shotOf,
  type Id,
  type Layer,
  type NewId,
  type ShotDocument,
  type Smear,
} from '../document/index.ts';
import { IDENTITY, multiply, type Matrix, type Point } from '../geometry/index.ts';
import { cameraMoves, depthMatrix, onlyUse, placementMatrix, planeOf, staysPut } from '../assembly/index.ts';
import { wayOf } from '../plan/index.ts';
import {
  exposureAt,
  outerFrame,
  placeOf,
  roundOf,
  shiftAt,
  slotsInOrder,
  timedLayers,
  type Place,
} from '../timing/index.ts';
import { makeOwn, splitHere } from './stretches.ts';

/** What is asked of a smear, apart from what was laid. */
export type SmearPlan = Omit<
  Smear,
  'kind' | 'id' | 'elementId' | 'slot' | 'replaced' | 'behindId' | 'laid' | 'hangsOn'
>;

/** Whether a frame is in the middle of a hold and the layer, its folder or its element's one use moves to it: a fast move without a drawing of its own. */
export function movesHeld(doc: ShotDocument, layerId: Id, frame: number): boolean {
  const { timed, element, turn } = placeOf(doc, layerId);
  const here = exposureAt(timed.list, frame, turn);
  if (!here?.run.slot || timed.list.period === 1 || frame < 1) return false;
  if (exposureAt(timed.list, frame - 1, turn)?.index !== here.index) return false;
  const round = roundOf(element, turn);
  const useAt = usePlace(doc, { timed, element, turn });
  const [a, b] = [frame - 1, frame].map((at) => multiply(useAt(at), shiftAt(timed, element.anchor, at, round))) as [
    Matrix,
    Matrix,
  ];
  return a.some((v, i) => Math.abs(v - b[i]!) > 1e-6);
}

/** Gives what a moving layer shows from a frame on a drawing of its own, so that it arrives there. */
export function cutHeld(doc: ShotDocument, layerId: Id, frame: number, newId: NewId): ShotDocument {
  return makeOwn(splitHere(doc, layerId, frame, newId).doc, layerId, frame, newId).doc;
}

/**
 * Where the one use of an element is put on its frames, and where the camera sees it: their motion counts like what is drawn. Of
 * several uses none is the one. A shake is no way to go: it is left out.
 */
export function usePlace(doc: ShotDocument, { element, turn }: Place): (frame: number, nth?: number) => Matrix {
  const use = onlyUse(doc, element.id);
  if (!use) return () => IDENTITY;
  const plane = planeOf(doc, use.id);
  const isFilmed = plane !== undefined && cameraMoves(shotOf(doc));
  if (staysPut(use) && !isFilmed) return () => IDENTITY;
  return (frame, nth = 0) => {
    const outer = outerFrame(use, element, turn, frame, nth);
    const own = placementMatrix(doc, use, element, { since: Math.max(0, outer - use.start), turn: nth });
    return isFilmed ? multiply(depthMatrix(doc, plane.depth, outer, { steady: true }), own) : own;
  };
}

/** The turn each of some frames lies in, one after another: past the seam the next has begun. */
export function turnsOf(frames: readonly number[]): number[] {
  let nth = 0;
  return frames.map((frame, i) => {
    if (i > 0 && frame < frames[i - 1]!) nth += 1;
    return nth;
  });
}

export const frameBefore = (frame: number, { turn, element }: Place): number =>
  frame > 0 ? frame - 1 : element.time === 'cycle' ? turn - 1 : 0;

/** A line that stops a smear: a guide, or the marks of a stroke, in the space of a layer. */
export function contactOf(doc: ShotDocument, { guideId, stopMarkId }: SmearPlan, { element }: Place): Point[] | null {
  const guide = find(doc, 'guide', guideId);
  if (guide) {
    const far = 4 * Math.max(shotOf(doc).width, shotOf(doc).height);
    const [dx, dy] =
      guide.form === 'level' ? [1, 0] : guide.form === 'plumb' ? [0, 1] : [guide.toX - guide.x, guide.toY - guide.y];
    const size = Math.hypot(dx, dy) || 1;
    return [-far, far].map((t) => ({ x: guide.x + (dx / size) * t, y: guide.y + (dy / size) * t }));
  }
  for (const each of stopMarkId ? timedLayers(doc, element) : []) {
    const mark = markAnywhere(doc, each.layer, stopMarkId!);
    if (mark?.kind === 'stroke') return Array.from(mark.samples.x, (x, i) => ({ x, y: mark.samples.y[i]! }));
  }
  return null;
}

const markAnywhere = (doc: ShotDocument, layer: Layer, id: Id) =>
  Object.values(layer.slots)
    .map((drawingId) => find(doc, 'drawing', drawingId)?.marks[id])
    .find((mark) => mark !== undefined);

/** The line a smear goes along, if it goes along one. */
export function lineOf(doc: ShotDocument, { way, pathId, line }: SmearPlan): Point[] | null {
  if (way === 'line' && line)
    return Array.from({ length: line.length / 2 }, (_, i) => ({ x: line[2 * i]!, y: line[2 * i + 1]! }));
  const path = way === 'path' ? find(doc, 'path', pathId) : undefined;
  if (!path) return null;
  const along = wayOf(path);
  return Array.from({ length: 65 }, (_, i) => along.at(i / 64));
}

/** Drawings after the arriving one that a smear may go on over: as far as the layer shows some. */
export function roomAfter(doc: ShotDocument, layerId: Id, to: Id): Id[] {
  const { timed, element } = placeOf(doc, layerId);
  const own = new Set(entitiesOf(doc, 'smear').flatMap(({ slot }) => slot ?? []));
  const all = slotsInOrder(timed.list).map(({ slot }) => slot);
  const at = all.indexOf(to);
  const after = [...all.slice(at + 1), ...(element.time === 'cycle' ? all.slice(0, at) : [])];
  const end = after.findIndex((slot) => !timed.layer.slots[slot]);
  return (end < 0 ? after : after.slice(0, end)).filter((slot) => !own.has(slot));
}
