/** Rides: drawings carried along points that are followed. */
import { find, type Id, type Ride, type ShotDocument, type Trace } from '../document/index.ts';
import type { Derived } from './derived.ts';
import { outlinesOf, textPrint } from './print.ts';

/** The points a ride goes with and is turned by; null where the first is gone. */
export function ridden(
  doc: ShotDocument,
  ride: Pick<Ride, 'onElementId' | 'traceId' | 'turnId'>,
): [Trace, Trace | null] | null {
  const traces = find(doc, 'element', ride.onElementId)?.traces ?? [];
  const point = traces.find(({ id }) => id === ride.traceId);
  return point ? [point, traces.find(({ id }) => id === ride.turnId) ?? null] : null;
}

/** The print of all that a ride is laid from, or null while it can not be told. */
export function ridePrint(doc: ShotDocument, ride: Omit<Ride, 'laid' | 'hangsOn'>): string | null {
  const base = find(doc, 'drawing', find(doc, 'layer', ride.layerId)?.slots[ride.base]);
  const points = ridden(doc, ride);
  if (!base || !points) return null;
  const slots = Object.values(ride.slots);
  const told = points.map((trace) => trace && slots.map((slot) => trace.points[slot] ?? null));
  return `${outlinesOf([base])} ${textPrint(JSON.stringify(told))}`;
}

const laidSlots = (doc: ShotDocument, { layerId, laid }: Ride): [Id, string, Id | undefined][] => {
  const slots = find(doc, 'layer', layerId)?.slots ?? {};
  return Object.entries(laid).map(([slot, print]) => [slot, print, slots[slot]]);
};

export const ride: Derived<Ride> = {
  kind: 'ride',
  again: 'by itself',
  laid: (doc, entity) =>
    laidSlots(doc, entity).flatMap(([slot, print, drawingId]) =>
      drawingId ? [{ slot, drawingId, markId: null, print }] : [],
    ),
  sources: (doc, entity) => {
    const now = ridePrint(doc, entity);
    const base = find(doc, 'layer', entity.layerId)?.slots[entity.base];
    return now === null || !base
      ? []
      : [{ part: 'points', was: entity.hangsOn, now, hangsOn: [entity.onElementId, base] }];
  },
  withPrints: (doc, entity, renewed) => ({
    ...entity,
    laid: Object.fromEntries(
      laidSlots(doc, entity).map(([slot, print, drawingId]) => [slot, renewed(print, drawingId)]),
    ),
  }),
};
