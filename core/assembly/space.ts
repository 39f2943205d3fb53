/** Where a placement is put on a frame: from element space to the space of what holds it. */
import { find, valueAt, type Element, type Placement, type ShotDocument } from '../document/index.ts';
import { multiply, projectionTo, translation, type Matrix, type Point, type Projection } from '../geometry/index.ts';
import type { Moment } from '../timing/index.ts';
import { onWay } from './way.ts';

/** What a placement is turned and scaled about, element space. */
export const anchorOf = (placement: Placement, element: Element): Point => placement.anchor ?? element.anchor;

/** What it goes with, beside its own place: how far it is carried, px, and turned, radians. */
export interface CarriedSpace {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

const NOWHERE: CarriedSpace = { x: 0, y: 0, angle: 0 };

/** How far a path carries it from where it stands: its anchor goes along the path, which lies as the element does at home. */
function carriedAlong(doc: ShotDocument, { way }: Placement, anchor: Point, since: number): CarriedSpace {
  const path = find(doc, 'path', way?.pathId);
  if (!way || !path) return NOWHERE;
  const { x, y, angle } = onWay(path, since);
  return { x: x - anchor.x, y: y - anchor.y, angle: way.turned ? angle : 0 };
}

/**
 * Element space to the space of its holder, corners left out: mirrored, leant over, scaled and turned about its anchor, carried
 * along its path, drifted by its turns, put in its place.
 * @param carried what it rides on has gone.
 */
export function placementMatrix(
  doc: ShotDocument,
  placement: Placement,
  element: Element,
  { since, turn }: Pick<Moment, 'since' | 'turn'>,
  carried: CarriedSpace = NOWHERE,
): Matrix {
  const { shift, mirror, skew, drift, x, y } = placement;
  const anchor = anchorOf(placement, element);
  const along = carriedAlong(doc, placement, anchor, since);
  const [sx, sy, scale, own] = [shift.x, shift.y, shift.scale, shift.angle].map((v) => valueAt(v, since, null)) as [
    number,
    number,
    number,
    number,
  ];
  const [dx, dy] = [x + sx + along.x + carried.x + drift.x * turn, y + sy + along.y + carried.y + drift.y * turn];
  const angle = own + along.angle + carried.angle;
  if (scale === 1 && angle === 0 && !mirror && skew === 0) return translation(dx, dy);
  const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
  const turned: Matrix = [cos, sin, -sin, cos, anchor.x + dx, anchor.y + dy];
  const lean: Matrix = [mirror ? -1 : 1, 0, Math.tan(skew), 1, 0, 0];
  return multiply(multiply(turned, lean), translation(-anchor.x, -anchor.y));
}

/** What its four corners make of element space; null where it lies flat, or its corners are no rectangle seen in perspective. */
export const cornersMap = ({ corners }: Placement): Projection | null =>
  corners && projectionTo(corners.box, corners.at);
