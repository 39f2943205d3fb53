/** Points followed from drawing to drawing: clicked on each, dragged to where they should be. */
import { find, putEntities, type Id, type ShotDocument, type Trace } from '../document/index.ts';
import { runStart, placeOf, slotsInOrder } from '../timing/index.ts';

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
export interface TraceTick {
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
