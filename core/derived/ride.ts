/** Rides: drawings carried along points that are followed. */
import { find, type Id, type Ride, type ShotDocument, type Trace } from '../document/index.ts';
import { placedElements } from '../timing/index.ts';
import type { Derived } from './derived.ts';
import { outlinesOf, textFingerprint } from './fingerprint.ts';

/** The points a ride goes with and is turned by; null where the first is gone. */
export function ridden(
  doc: ShotDocument,
  ride: Pick<Ride, 'onElementId' | 'traceId' | 'turnId'>,
): [Trace, Trace | null] | null {
  const traces = find(doc, 'element', ride.onElementId)?.traces ?? [];
  const point = traces.find(({ id }) => id === ride.traceId);
  return point ? [point, traces.find(({ id }) => id === ride.turnId) ?? null] : null;
}

/** Two elements by the uses that are meant; the first of each where none is. */
interface Two {
  readonly elementId: Id;
  readonly useId?: Id | null;
  readonly onElementId: Id;
  readonly onUseId?: Id | null;
}

/** How two uses lie to each other: when the second begins, in frames of the first, and what takes its places into the first's space. */
export function usesOfBoth(doc: ShotDocument, { elementId, useId, onElementId, onUseId }: Two) {
  // Within one element all its drawings lie as they are drawn.
  if (elementId === onElementId) return { away: 0, off: { x: 0, y: 0 }, ids: [] };
  const placed = placedElements(doc);
  const at = (id: Id, use: Id | null | undefined) => {
    const uses = placed.filter(({ element }) => element.id === id).map(({ placement }) => placement);
    return uses.find((each) => each.id === use) ?? uses[0];
  };
  const [here, there] = [at(elementId, useId), at(onElementId, onUseId)];
  if (!here || !there) return { away: 0, off: { x: 0, y: 0 }, ids: [] };
  return {
    away: there.start - here.start,
    off: { x: there.x - here.x, y: there.y - here.y },
    ids: [here.id, there.id],
  };
}

/** The fingerprint of all that a ride is laid from, or null while it can not be told. */
export function rideFingerprint(doc: ShotDocument, ride: Omit<Ride, 'laid' | 'hangsOn'>): string | null {
  const base = find(doc, 'drawing', find(doc, 'layer', ride.layerId)?.slots[ride.base]);
  const points = ridden(doc, ride);
  if (!base || !points) return null;
  const slots = Object.values(ride.slots);
  const told = points.map((trace) => trace && slots.map((slot) => trace.points[slot] ?? null));
  const lies = ride.elementId === ride.onElementId ? [] : [usesOfBoth(doc, ride).off];
  return `${outlinesOf([base])} ${textFingerprint(JSON.stringify([...told, ...lies]))}`;
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
    const now = rideFingerprint(doc, entity);
    const base = find(doc, 'layer', entity.layerId)?.slots[entity.base];
    return now === null || !base
      ? []
      : [
          {
            part: 'points',
            was: entity.hangsOn,
            now,
            hangsOn: [entity.onElementId, base, ...usesOfBoth(doc, entity).ids],
          },
        ];
  },
  withPrints: (doc, entity, renewed) => ({
    ...entity,
    laid: Object.fromEntries(
      laidSlots(doc, entity).map(([slot, print, drawingId]) => [slot, renewed(print, drawingId)]),
    ),
  }),
};
