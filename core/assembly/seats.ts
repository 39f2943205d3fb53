/** Placements that ride on a followed point of another element: how far the point has carried and turned them. */
import {
  find,
  valueAt,
  type Element,
  type Placement,
  type Seat,
  type ShotDocument,
  type Trace,
} from '../document/index.ts';
import { apply, type Point } from '../geometry/index.ts';
import {
  elementLength,
  frameOfSlot,
  momentOn,
  placedElements,
  shiftAt,
  shownOn,
  timedLayers,
  roundOf,
  type Moment,
  labelOfUse,
} from '../timing/index.ts';
import { anchorOf, placementMatrix, type CarriedSpace } from './space.ts';

/** A followed point as it can be ridden on. */
export interface Rideable extends Omit<Seat, 'turnId'> {
  /** Which of its element's points it is, from 0. */
  readonly nth: number;
  /** What the use it is on is called, unlike any other. */
  readonly name: string;
}

/** All followed points of the elements on planes, once for each use where an element has several. */
export const rideables = (doc: ShotDocument): Rideable[] => {
  const placed = placedElements(doc);
  return placed.flatMap(({ element, placement }) => {
    const isOnly = placed.filter((other) => other.element.id === element.id).length === 1;
    const [onElementId, onUseId] = [element.id, isOnly ? null : placement.id];
    const name = labelOfUse(doc, placement);
    return element.traces.map(({ id: traceId }, nth) => ({ onElementId, onUseId, traceId, nth, name }));
  });
};

const NOWHERE: CarriedSpace = { x: 0, y: 0, angle: 0 };

/** Where a point is on a frame of its element: on its last drawing that has it, up to there; else on the first. */
function pointOn(doc: ShotDocument, element: Element, trace: Trace, frame: number, length: number): Point | null {
  const timed = timedLayers(doc, element).find(({ layer }) => layer.id === trace.layerId);
  if (!timed) return null;
  const slot = shownOn(timed, frame, length)?.slot;
  const here = slot ? trace.points[slot] : undefined;
  const known = Object.entries(trace.points).flatMap(([each, point]) => {
    const at = frameOfSlot(doc, trace.layerId, each);
    return at === null ? [] : [{ at, point }];
  });
  known.sort((a, b) => a.at - b.at);
  const found = here ?? known.findLast(({ at }) => at <= frame)?.point ?? known[0]?.point;
  return found ? apply(shiftAt(timed, element.anchor, frame, roundOf(element, length)), found) : null;
}

/** A point of an element on a plane, and the direction to a second one, in the shot. */
function seatOn(
  doc: ShotDocument,
  { onElementId, onUseId, traceId, turnId }: Seat,
  shotFrame: number,
): { at: Point; angle: number | null } | null {
  const uses = placedElements(doc).filter(({ element }) => element.id === onElementId);
  const placed = uses.find(({ placement }) => placement.id === onUseId) ?? uses[0];
  if (!placed) return null;
  const { element, placement } = placed;
  const length = elementLength(doc, element);
  const always = { ...placement, before: 'first', after: 'last' } as const;
  const moment = momentOn(always, element, length, shotFrame);
  if (!moment) return null;
  // What it rides on may itself ride: then that stays where it stands, so that no ring of riders is gone round.
  const matrix = placementMatrix(doc, placement, element, moment);
  const point = (id: string | null): Point | null => {
    const trace = element.traces.find((each) => each.id === id);
    const on = trace && pointOn(doc, element, trace, moment.frame, length);
    return on ? apply(matrix, on) : null;
  };
  const [at, to] = [point(traceId), point(turnId)];
  return at && { at, angle: to ? Math.atan2(to.y - at.y, to.x - at.x) : null };
}

/** How far what a placement rides on has carried it since its start, its anchor going round the point; the placement lies on a plane. */
export function riddenBy(
  doc: ShotDocument,
  placement: Placement,
  element: Element,
  { since }: Pick<Moment, 'since'>,
): CarriedSpace {
  const { seat, start, holderId, x, y, shift } = placement;
  if (!seat || holderId !== null || seat.onElementId === element.id || !find(doc, 'element', seat.onElementId))
    return NOWHERE;
  const [from, to] = [seatOn(doc, seat, start), seatOn(doc, seat, start + since)];
  if (!from || !to) return NOWHERE;
  const angle = from.angle === null || to.angle === null ? 0 : to.angle - from.angle;
  const anchor = anchorOf(placement, element);
  const off = {
    x: x + anchor.x + valueAt(shift.x, since, null) - from.at.x,
    y: y + anchor.y + valueAt(shift.y, since, null) - from.at.y,
  };
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return {
    x: to.at.x - from.at.x + off.x * cos - off.y * sin - off.x,
    y: to.at.y - from.at.y + off.x * sin + off.y * cos - off.y,
    angle,
  };
}
