/** Marks that ride on a point followed from drawing to drawing, turned by a second one. */
import { z } from 'zod';
import { id, fingerprint } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, maybe, OF_ELEMENT, one, withFields, type Pointer } from './kind.ts';

export interface Ride {
  readonly kind: 'ride';
  readonly id: Id;
  readonly elementId: Id;
  /** The layer that rides, and the slot whose drawing is carried to all others. */
  readonly layerId: Id;
  readonly base: Id;
  /** The element whose points it rides on, the point it goes with, and the one that turns it or null. */
  readonly onElementId: Id;
  /** The uses of both by which they lie to each other; null for the first of each. */
  readonly useId: Id | null;
  readonly onUseId: Id | null;
  readonly traceId: Id;
  readonly turnId: Id | null;
  /** For each slot of the layer that of the drawing its points are on. */
  readonly slots: Readonly<Record<Id, Id>>;
  /** Fingerprints of laid drawings, by slot. */
  readonly laid: Readonly<Record<Id, string>>;
  /** Fingerprint of all it was laid from. */
  readonly hangsOn: string;
}

const LAYER: Pointer = { field: 'layerId', to: 'layer', bond: 'follows' };
const ON: Pointer = { field: 'onElementId', to: 'element', bond: 'seeks' };
const USE: Pointer = { field: 'useId', to: 'placement', bond: 'seeks' };
const ON_USE: Pointer = { field: 'onUseId', to: 'placement', bond: 'seeks' };

export const ride = kindOf<Ride>({
  kind: 'ride',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('ride'),
      id,
      elementId: id,
      layerId: id,
      base: id,
      onElementId: id,
      useId: id.nullable().default(null),
      onUseId: id.nullable().default(null),
      traceId: id,
      turnId: id.nullable(),
      slots: z.record(id, id),
      laid: z.record(id, fingerprint),
      hangsOn: fingerprint,
    }),
  merge: { slots: 'record', laid: 'value' },
  points: ['element', 'layer', 'placement'],
  mapIds: (ride, of) =>
    withFields(ride, {
      elementId: one(ride.elementId, of, OF_ELEMENT),
      layerId: one(ride.layerId, of, LAYER),
      onElementId: one(ride.onElementId, of, ON),
      useId: maybe(ride.useId, of, USE),
      onUseId: maybe(ride.onUseId, of, ON_USE),
    }),
});
