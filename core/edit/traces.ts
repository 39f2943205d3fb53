/** Points followed from drawing to drawing: clicked on each, dragged to where they should be; on a plate, from frame to frame. */
import {
  find,
  findAll,
  putEntities,
  shotOf,
  type Id,
  type NewId,
  type RunList,
  type ShotDocument,
  type Trace,
} from '../document/index.ts';
import { runStart, placeOf, slotsInOrder } from '../timing/index.ts';
import { addLayer } from './layers.ts';

/** Sets a traced point on a slot; a trace that is not there yet begins with it. @param aim where it should be, not where it is. */
export function putTracePoint(
  doc: ShotDocument,
  layerId: Id,
  traceId: Id,
  slot: Id,
  at: { x: number; y: number },
  aim: boolean,
): ShotDocument {
  const { element } = placeOf(doc, layerId);
  const known = element.traces.find(({ id }) => id === traceId);
  const trace: Trace = known ?? { id: traceId, layerId, points: {} };
  const next: Trace = { ...trace, points: { ...trace.points, [slot]: { x: at.x, y: at.y, aim } } };
  const traces = known ? element.traces.map((each) => (each.id === traceId ? next : each)) : [...element.traces, next];
  return putEntities(doc, { ...element, traces });
}

export function dropTrace(doc: ShotDocument, elementId: Id, traceId: Id): ShotDocument {
  const element = find(doc, 'element', elementId);
  return element ? putEntities(doc, { ...element, traces: element.traces.filter(({ id }) => id !== traceId) }) : doc;
}

/** A tick of a traced point: on which slot and frame it lies. */
interface TraceTick {
  readonly slot: Id;
  readonly frame: number;
  readonly x: number;
  readonly y: number;
  readonly aim: boolean;
}

/** The ticks of a trace in the order of time; slots that are gone are left out. */
export function traceTicks(doc: ShotDocument, trace: Trace): TraceTick[] {
  if (!find(doc, 'layer', trace.layerId)) return [];
  const { timed, turn } = placeOf(doc, trace.layerId);
  return slotsInOrder(timed.list)
    .flatMap(({ slot, index }): TraceTick[] => {
      const point = trace.points[slot];
      return point ? [{ slot, frame: runStart(timed.list, index, turn), ...point }] : [];
    })
    .sort((a, b) => a.frame - b.frame);
}

/** Why no points of a plate can be followed, or null. */
export const whyNotPlatePoints = (doc: ShotDocument): string | null =>
  findAll(doc, 'plate', shotOf(doc).plates).some(({ visible, beside }) => visible && !beside)
    ? null
    : 'There is no plate in the picture: bring one in first.';

/**
 * Gives an element a guide layer with a slot for each frame and nothing drawn: points that are clicked on a plate are kept on it.
 * @param length frames it gets. The edit says which id it got.
 */
export function addPlatePoints(
  doc: ShotDocument,
  elementId: Id,
  length: number,
  newId: NewId,
): { doc: ShotDocument; layerId: Id } {
  const added = addLayer(doc, elementId, 'Points of the plate', 'guide', null, newId);
  const list = find(added.doc, 'runlist', find(added.doc, 'layer', added.layerId)?.runListId)!;
  const runs: RunList['runs'] = Array.from({ length }, () => ({ id: newId(), slot: newId(), length: 1 }));
  return { ...added, doc: putEntities(added.doc, { ...list, runs }) };
}
