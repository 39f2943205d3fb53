/** The elements of a frame, each as often as it is used: on planes, and inside one another. */
import {
  find,
  findAll,
  shotOf,
  type Element,
  type Id,
  type Placement,
  type Plane,
  type Plate,
  type ShotDocument,
} from '../document/index.ts';
import { composed, multiply, projectionFrom, type Matrix, type Projection } from '../geometry/index.ts';
import {
  DEEPEST,
  elementLength,
  momentOn,
  onPlanes,
  outerFrame,
  placedElements,
  placedInside,
  type Moment,
} from '../timing/index.ts';
import { depthMatrix, planeMatrix, type HowSeen } from './planes.ts';
import { riddenBy } from './seats.ts';
import { cornersMap, placementMatrix } from './space.ts';

/** How element space is mapped into the shot: bent first, if its plane is tilted, then put in its place. */
export interface Lie {
  readonly bend: Projection | null;
  /** What the bend gives, or element space, to shot px. */
  readonly matrix: Matrix;
}

/** One use of an element as it is on a frame of the shot. */
export interface Occurrence extends Lie {
  /** The placements it lies in, from the shot inwards: it tells uses of one element apart. */
  readonly key: string;
  readonly path: readonly Placement[];
  readonly placement: Placement;
  readonly element: Element;
  /** The element's, frames. */
  readonly length: number;
  readonly moment: Moment;
}

/** What lies in something that lies somewhere. */
function laidIn(outer: Lie, matrix: Matrix, bend: Projection | null): Lie {
  if (!outer.bend) return { bend, matrix: multiply(outer.matrix, matrix) };
  const inside = composed(outer.bend, projectionFrom(matrix));
  return { bend: bend ? composed(inside, bend) : inside, matrix: outer.matrix };
}

export const keyOf = (path: readonly Pick<Placement, 'id'>[]): string => path.map(({ id }) => id).join('/');

/** How corners are taken: as they are, or not those of one use, which is drawn on as it is. */
export interface HowLaid extends HowSeen {
  /** The key of a use that lies flat, with all it lies in. */
  readonly flat?: string | null;
}

function occurrence(
  doc: ShotDocument,
  outer: Pick<Occurrence, 'path'> & Lie,
  placement: Placement,
  element: Element,
  moment: Moment,
  length: number,
  { flat }: HowLaid,
): Occurrence {
  const path = [...outer.path, placement];
  const key = keyOf(path);
  const matrix = placementMatrix(doc, placement, element, moment, riddenBy(doc, placement, element, moment));
  const isFlat = flat === key || (flat?.startsWith(`${key}/`) ?? false);
  return {
    key,
    path,
    placement,
    element,
    length,
    moment,
    ...laidIn(outer, matrix, isFlat ? null : cornersMap(placement)),
  };
}

/** What lies on a plane as it is on a frame: a use of an element, or a plate and how its plane is seen. */
type LyingOn = { readonly plane: Plane } & (
  { readonly use: Occurrence } | { readonly plate: Plate; readonly matrix: Matrix }
);

/** The uses on the planes of the shot that show on a frame, and plates between them, frontmost first. What is hidden is left out. */
export function lyingOn(doc: ShotDocument, shotFrame: number, how: HowLaid = {}): LyingOn[] {
  const seen = new Map<number, Matrix>();
  const matrixAt = (depth: number): Matrix => {
    const known = seen.get(depth) ?? depthMatrix(doc, depth, shotFrame, how);
    seen.set(depth, known);
    return known;
  };
  return onPlanes(doc).flatMap((each): LyingOn[] => {
    const { plane } = each;
    if (!plane.visible) return [];
    if ('plate' in each) return [{ plane, plate: each.plate, matrix: matrixAt(plane.depth) }];
    const { placement, element } = each;
    if (!placement.visible) return [];
    const length = elementLength(doc, element);
    const moment = momentOn(placement, element, length, shotFrame);
    if (!moment) return [];
    const outer = { path: [], bend: null, matrix: matrixAt(plane.depth) };
    return [{ plane, use: occurrence(doc, outer, placement, element, moment, length, how) }];
  });
}

/** The uses alone. */
export const occurrencesOn = (doc: ShotDocument, shotFrame: number, how: HowLaid = {}): Occurrence[] =>
  lyingOn(doc, shotFrame, how).flatMap((each) => ('use' in each ? [each.use] : []));

/** A use inside another one, as it is on the frame that one is on; null where it does not show, is hidden, or would lie in itself. */
export function occurrenceIn(
  doc: ShotDocument,
  outer: Occurrence,
  placementId: Id,
  how: HowLaid = {},
): Occurrence | null {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement?.visible || !element || outer.path.length >= DEEPEST) return null;
  if (outer.path.some(({ elementId }) => elementId === element.id)) return null;
  const length = elementLength(doc, element);
  const moment = momentOn(placement, element, length, outer.moment.frame);
  return moment ? occurrence(doc, outer, placement, element, moment, length, how) : null;
}

/** A use and all that lie in it, those inside after what holds them. */
export function withInner(doc: ShotDocument, outer: Occurrence): Occurrence[] {
  const inner = placedInside(doc, outer.element).flatMap(
    ({ placement }) => occurrenceIn(doc, outer, placement.id) ?? [],
  );
  return [outer, ...inner.flatMap((each) => withInner(doc, each))];
}

/** Every use that shows on a frame, on planes and inside others. */
export const allOccurrences = (doc: ShotDocument, shotFrame: number): Occurrence[] =>
  occurrencesOn(doc, shotFrame).flatMap((each) => withInner(doc, each));

/** The placements of a key; null when one of them is gone, or no longer lies in the one before it. */
export function pathOf(doc: ShotDocument, key: string): readonly Placement[] | null {
  const path = findAll(doc, 'placement', key.split('/'));
  if (path.length !== key.split('/').length) return null;
  const holds = path.every((placement, i) => {
    const holder = path[i - 1];
    if (!holder)
      return findAll(doc, 'plane', shotOf(doc).planes).some(({ placements }) => placements.includes(placement.id));
    return find(doc, 'element', holder.elementId)?.layers.includes(placement.id) ?? false;
  });
  return holds ? path : null;
}

/** The first key of an element: on a plane if it is used there, else inside others. */
export function firstKeyOf(doc: ShotDocument, elementId: Id): string | null {
  const look = (path: readonly Placement[], element: Element): string | null => {
    if (element.id === elementId) return keyOf(path);
    if (path.length >= DEEPEST) return null;
    for (const { placement, element: inner } of placedInside(doc, element)) {
      if (path.some((each) => each.elementId === inner.id)) continue;
      const found = look([...path, placement], inner);
      if (found) return found;
    }
    return null;
  };
  const onPlanes = placedElements(doc);
  // What copies were made of comes before them.
  const uses = onPlanes.filter(({ element }) => element.id === elementId);
  const direct = uses.find(({ placement }) => placement.scatterId === null) ?? uses[0];
  if (direct) return direct.placement.id;
  for (const { placement, element } of onPlanes) {
    const found = look([placement], element);
    if (found) return found;
  }
  return null;
}

/** The state of a use on a frame of the shot, seen there or not: before its start as it begins, after its end as it ends. */
export function standing(
  doc: ShotDocument,
  path: readonly Placement[],
  shotFrame: number,
  how: HowLaid = {},
): Occurrence | null {
  if (path.length === 0) return null;
  let outer: (Pick<Occurrence, 'path'> & Lie) | Occurrence = {
    path: [],
    bend: null,
    matrix: planeMatrix(doc, path[0]!.id, shotFrame, how),
  };
  let frame = shotFrame;
  let found: Occurrence | null = null;
  for (const placement of path) {
    const element = find(doc, 'element', placement.elementId);
    if (!element) return null;
    const length = elementLength(doc, element);
    const always = { ...placement, before: 'first', after: 'last' } as const;
    const moment = momentOn(always, element, length, frame) ?? { frame: 0, turn: 0, since: 0 };
    found = occurrence(doc, outer, placement, element, moment, length, how);
    outer = found;
    ({ frame } = moment);
  }
  return found;
}

/** The frame of the shot on which a use shows a frame of its element in a turn of it; of what it lies in the first turn counts. */
export function shotFrameIn(doc: ShotDocument, path: readonly Placement[], frame: number, turn: number): number {
  return path.reduceRight((at, placement, i) => {
    const element = find(doc, 'element', placement.elementId);
    if (!element) return at;
    return outerFrame(placement, element, elementLength(doc, element), at, i === path.length - 1 ? turn : 0);
  }, frame);
}
