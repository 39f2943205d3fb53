/** Carrying: marks laid on every drawing where a followed point is, as they lie to it on one of them. */
import {
  dropEntities,
  entitiesOf,
  find,
  marksInOrder,
  newLayer,
  putEntities,
  type Drawing,
  type Id,
  type Layer,
  type Mark,
  type NewId,
  type Ride,
  type Run,
  type ShotDocument,
  type Trace,
} from '../document/index.ts';
import { isAsLaid, fingerprintOf, ridden, rideFingerprint, usesOfBoth } from '../derived/index.ts';
import { multiply, translation, type Matrix, type Point } from '../geometry/index.ts';
import { transformed } from '../marks/index.ts';
import { drawingOf } from '../starters/index.ts';
import { exposureAt, placeOf, shownOn, slotsInOrder } from '../timing/index.ts';
import { listOf } from './layers.ts';

export const rideOfLayer = (doc: ShotDocument, layerId: Id): Ride | undefined =>
  entitiesOf(doc, 'ride').find((each) => each.layerId === layerId);

/** Where something rides, as a place and a direction. */
interface Seat {
  readonly at: Point;
  readonly angle: number;
}

function seatOn([point, turn]: readonly [Trace, Trace | null], slot: Id, off: Point): Seat | null {
  const at = point.points[slot];
  if (!at) return null;
  const to = turn?.points[slot];
  // Without the second point on a drawing it keeps its direction there.
  return { at: { x: at.x + off.x, y: at.y + off.y }, angle: to ? Math.atan2(to.y - at.y, to.x - at.x) : NaN };
}

/** From one seat to another: moved with the point, turned with the second. */
function carried(from: Seat, to: Seat): Matrix {
  const turn = to.angle - from.angle;
  const [cos, sin] = Number.isNaN(turn) ? [1, 0] : [Math.cos(turn), Math.sin(turn)];
  return multiply([cos, sin, -sin, cos, to.at.x, to.at.y], translation(-from.at.x, -from.at.y));
}

/** Lays a ride on all slots its points are on; drawings that a hand has changed, and those that were there, stay. */
export function relayRide(doc: ShotDocument, rideId: Id, newId: NewId): ShotDocument {
  const ride = find(doc, 'ride', rideId);
  const layer = find(doc, 'layer', ride?.layerId);
  const base = ride && find(doc, 'drawing', layer?.slots[ride.base]);
  const points = ride && ridden(doc, ride);
  if (!ride || !layer || !base || !points) return doc;
  const { off } = usesOfBoth(doc, ride);
  const seat = seatOn(points, ride.slots[ride.base] ?? '', off);
  if (!seat) return doc;
  const slots: Record<Id, Id> = { ...layer.slots };
  const laid: Record<Id, string> = {};
  const made: Drawing[] = [];
  for (const [slot, on] of Object.entries(ride.slots)) {
    const there = slot === ride.base ? null : seatOn(points, on, off);
    const had = slots[slot];
    const print = ride.laid[slot];
    if (!there || (had && (print === undefined || !isAsLaid(doc, { drawingId: had, markId: null, print })))) {
      if (print !== undefined && had) laid[slot] = print;
      continue;
    }
    const matrix = carried(seat, there);
    const marks = marksInOrder(base).map((mark): Mark => ({ ...transformed(mark, matrix), id: newId() }));
    const drawing = drawingOf(had ?? newId(), marks);
    made.push(drawing);
    slots[slot] = drawing.id;
    laid[slot] = fingerprintOf(drawing);
  }
  const next = putEntities(doc, ...made, { ...layer, slots }, { ...ride, laid });
  return putEntities(next, { ...ride, laid, hangsOn: rideFingerprint(next, ride) ?? ride.hangsOn });
}

/** What is to ride on what. */
export interface RideAsked {
  /** The active layer, and the frame of its element one stands on. */
  readonly layerId: Id;
  readonly frame: number;
  /** Marks of the drawing shown that ride; all of the layer where there are none. */
  readonly marks: readonly Id[];
  readonly onElementId: Id;
  /** The uses by which both lie to each other; the first of each if left out. */
  readonly useId?: Id | null;
  readonly onUseId?: Id | null;
  readonly traceId: Id;
  readonly turnId: Id | null;
}

/** The layer a point is on, and the slot that shows there with a frame of the active element. */
function under(
  doc: ShotDocument,
  asked: RideAsked,
): { trace: Trace; layer: Layer; slot: Id | null; away: number } | null {
  const trace = find(doc, 'element', asked.onElementId)?.traces.find(({ id }) => id === asked.traceId);
  const layer = find(doc, 'layer', trace?.layerId);
  const own = find(doc, 'layer', asked.layerId);
  if (!trace || !layer || !own) return null;
  const { away } = usesOfBoth(doc, { ...asked, elementId: own.elementId });
  const { timed, turn } = placeOf(doc, layer.id);
  // A point of a plate is on a slot with nothing drawn.
  return { trace, layer, slot: exposureAt(timed.list, asked.frame - away, turn)?.run.slot ?? null, away };
}

/** Why nothing can ride there, or null. */
export function whyNotRide(doc: ShotDocument, asked: RideAsked): string | null {
  const found = under(doc, asked);
  if (!found) return 'The point is gone.';
  if (!found.slot || !found.trace.points[found.slot]) return 'The point is not on this frame: click it here too.';
  const own = find(doc, 'layer', asked.layerId)!;
  const { timed, turn } = placeOf(doc, own.id);
  const shown = find(doc, 'drawing', shownOn(timed, asked.frame, turn)?.drawingId);
  if (!shown || shown.order.length === 0) return 'Nothing is drawn here that could ride.';
  if (asked.marks.length === 0 && own.id === found.layer.id)
    return 'A layer can not ride on a point of its own: pick up what is to ride, or stand on another layer.';
  return null;
}

/**
 * Lets marks, or a layer, ride on a point. They get a layer of their own, tied to that of the point, or of the same times where
 * that is another element's; a layer that is tied to it already rides itself.
 */
export function layRide(doc: ShotDocument, asked: RideAsked, newId: NewId): { doc: ShotDocument; layerId: Id } {
  const found = under(doc, asked);
  const own = find(doc, 'layer', asked.layerId);
  if (!found?.slot || !own || whyNotRide(doc, asked)) return { doc, layerId: asked.layerId };
  const { layer: lead, slot } = found;
  const { timed, turn } = placeOf(doc, own.id);
  const shown = find(doc, 'drawing', shownOn(timed, asked.frame, turn)?.drawingId)!;
  const isTied = lead.runListId === own.runListId;
  const selected = new Set(asked.marks);
  const isWhole = selected.size === 0;
  let next = doc;
  let layerId = own.id;
  let [base, slots] = [slot, {} as Record<Id, Id>];
  if (isWhole && isTied) {
    slots = Object.fromEntries(slotsInOrder(timed.list).map((each) => [each.slot, each.slot]));
  } else {
    const marks = marksInOrder(shown).filter(({ id }) => isWhole || selected.has(id));
    const made = newLayer(own.elementId, `${own.name.slice(0, 180).toWellFormed()} riding`, own.role, newId);
    const into = listOf(next, own.id) ?? find(next, 'element', own.elementId)!;
    const list = find(doc, 'runlist', lead.runListId)!;
    // Of another element the times are copied, as that element lies to this.
    const fresh = new Map(slotsInOrder(list).map((each) => [each.slot, newId()] as const));
    const runs: Run[] = list.runs.map((run) => ({
      ...run,
      id: newId(),
      slot: run.slot && (fresh.get(run.slot) ?? null),
    }));
    const lead0: Run[] = found.away > 0 ? [{ id: newId(), slot: null, length: found.away }] : [];
    const copied = { ...made.list, runs: [...lead0, ...runs], offset: 0 };
    slots = isTied
      ? Object.fromEntries(slotsInOrder(list).map((each) => [each.slot, each.slot]))
      : Object.fromEntries([...fresh].map(([on, each]) => [each, on]));
    base = isTied ? slot : fresh.get(slot)!;
    const drawing = drawingOf(newId(), isWhole ? marks.map((mark) => ({ ...mark, id: newId() })) : marks);
    const layer: Layer = {
      ...made.layer,
      runListId: isTied ? lead.runListId : copied.id,
      shift: own.shift,
      slots: { [base]: drawing.id },
    };
    const at = Math.max(0, into.layers.indexOf(own.id));
    const left = isWhole
      ? []
      : [
          {
            ...shown,
            marks: Object.fromEntries(Object.entries(shown.marks).filter(([id]) => !selected.has(id))),
            order: shown.order.filter((id) => !selected.has(id)),
          },
        ];
    next = putEntities(next, drawing, layer, ...left, { ...into, layers: into.layers.toSpliced(at, 0, layer.id) });
    if (!isTied) next = putEntities(next, copied);
    layerId = layer.id;
  }
  const ride: Ride = {
    kind: 'ride',
    id: newId(),
    elementId: own.elementId,
    layerId,
    base,
    onElementId: asked.onElementId,
    useId: asked.useId ?? null,
    onUseId: asked.onUseId ?? null,
    traceId: asked.traceId,
    turnId: asked.turnId,
    slots,
    laid: {},
    hangsOn: '',
  };
  return { doc: relayRide(putEntities(next, ride), ride.id, newId), layerId };
}

/** Turns a ride by another point, or by none. */
export function setRide(doc: ShotDocument, rideId: Id, changes: Pick<Ride, 'turnId'>, newId: NewId): ShotDocument {
  const ride = find(doc, 'ride', rideId);
  return ride ? relayRide(putEntities(doc, { ...ride, ...changes }), rideId, newId) : doc;
}

/** Lets what rides be: its drawings are like all others from now on. */
export const freeRide = (doc: ShotDocument, rideId: Id): ShotDocument => dropEntities(doc, [rideId]);
