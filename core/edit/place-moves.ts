/** Moving, scaling and turning placements together about one place, each on its own time; and setting what they turn about. */
import {
  find,
  findAll,
  keysIn,
  putEntities,
  valueAt,
  type Corners,
  type Id,
  type Placement,
  type ShotDocument,
} from '../document/index.ts';
import { anchorOf, isFixed, placementMatrix, planeMatrix, riddenBy } from '../assembly/index.ts';
import { apply, IDENTITY, invert, multiply, type Matrix, type Point, type Quad } from '../geometry/index.ts';
import { elementLength, momentOn } from '../timing/index.ts';
import { setValue } from './values.ts';

/** A similarity about a place of the space they lie in: turned and scaled about it, then moved. */
export interface PlaceMove {
  readonly about: Point;
  readonly dx: number;
  readonly dy: number;
  readonly scale: number;
  /** Radians, clockwise. */
  readonly angle: number;
}

export const movedBy = (dx: number, dy: number): PlaceMove => ({ about: { x: 0, y: 0 }, dx, dy, scale: 1, angle: 0 });

/** Frames since it began, on a frame of what it lies in; what changes over time is set there. */
const sinceOn = ({ start }: Placement, outer: number): number => Math.max(0, outer - start);

/**
 * From the space a placement lies in to where that is seen: planes are seen at their depth, through the camera. Places of the shot
 * are always those that are seen.
 */
const seenFrom = (doc: ShotDocument, { id, holderId }: Placement, outer: number): Matrix =>
  holderId === null ? planeMatrix(doc, id, outer) : IDENTITY;

/** Where a placement's anchor is on a frame, in the space of what holds it; on a plane, where that is seen. @throws where its element is gone. */
export function anchorPlace(doc: ShotDocument, placement: Placement, outer: number): Point {
  const element = find(doc, 'element', placement.elementId);
  if (!element) throw new Error(`Element ${placement.elementId} is not in this shot`);
  const always = { ...placement, before: 'first', after: 'last' } as const;
  const moment = momentOn(always, element, elementLength(doc, element), outer) ?? { since: 0, turn: 0 };
  const carried = riddenBy(doc, placement, element, moment);
  const matrix = multiply(seenFrom(doc, placement, outer), placementMatrix(doc, placement, element, moment, carried));
  return apply(matrix, anchorOf(placement, element));
}

function movedOne(doc: ShotDocument, placement: Placement, outer: number, move: PlaceMove): ShotDocument {
  const since = sinceOn(placement, outer);
  const { about, scale, angle } = move;
  const anchor = anchorPlace(doc, placement, outer);
  const [ox, oy] = [anchor.x - about.x, anchor.y - about.y];
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  const inward = invert(seenFrom(doc, placement, outer));
  const [from, to] = [
    apply(inward, anchor),
    apply(inward, { x: about.x + cos * ox - sin * oy + move.dx, y: about.y + sin * ox + cos * oy + move.dy }),
  ];
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const { shift } = placement;
  let next = doc;
  // What goes over time is set on this frame; what stands is put elsewhere as a whole.
  if (keysIn(shift.x).length > 0 || keysIn(shift.y).length > 0) {
    next = setValue(next, placement.id, 'x', since, valueAt(shift.x, since, null) + dx);
    next = setValue(next, placement.id, 'y', since, valueAt(shift.y, since, null) + dy);
  } else next = putEntities(next, { ...placement, x: placement.x + dx, y: placement.y + dy });
  if (scale !== 1) next = setValue(next, placement.id, 'scale', since, valueAt(shift.scale, since, null) * scale);
  if (angle !== 0) next = setValue(next, placement.id, 'angle', since, valueAt(shift.angle, since, null) + angle);
  return next;
}

/** Moves placements, each as it is on a frame of what they lie in. Locked ones stay. */
export const movePlaces = (doc: ShotDocument, ids: readonly Id[], outer: number, move: PlaceMove): ShotDocument =>
  findAll(doc, 'placement', ids)
    .filter((placement) => !isFixed(doc, placement))
    .reduce((next, placement) => movedOne(next, placement, outer, move), doc);

/** Sets what a placement is turned and scaled about, element space; what is seen on this frame stays where it is. */
export function setPlaceAnchor(doc: ShotDocument, placementId: Id, outer: number, anchor: Point | null): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element) return doc;
  const always = { ...placement, before: 'first', after: 'last' } as const;
  const moment = momentOn(always, element, elementLength(doc, element), outer) ?? { since: 0, turn: 0 };
  const next = { ...placement, anchor };
  // What it rides on carries all of it alike, so that is left out.
  const [was, is] = [placement, next].map((each) => placementMatrix(doc, each, element, moment)) as [
    ReturnType<typeof placementMatrix>,
    ReturnType<typeof placementMatrix>,
  ];
  return putEntities(doc, { ...next, x: next.x + was[4] - is[4], y: next.y + was[5] - is[5] });
}

/** Puts the corners of a placement on a tilted plane, or flat again for null. @param at in the space it lies in, on a frame. */
export function setCorners(
  doc: ShotDocument,
  placementId: Id,
  outer: number,
  box: Corners['box'],
  at: Quad | null,
): ShotDocument {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element) return doc;
  if (!at) return putEntities(doc, { ...placement, corners: null });
  const always = { ...placement, before: 'first', after: 'last' } as const;
  const moment = momentOn(always, element, elementLength(doc, element), outer) ?? { since: 0, turn: 0 };
  const inward = invert(multiply(seenFrom(doc, placement, outer), placementMatrix(doc, placement, element, moment)));
  const [p, q, r, s] = at.map((corner) => apply(inward, corner)) as [Point, Point, Point, Point];
  return putEntities(doc, { ...placement, corners: { box, at: [p, q, r, s] } });
}
