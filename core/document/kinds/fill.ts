/** What was filled on a layer, with what is needed to fill it again. */
import { z } from 'zod';
import { id, place, fingerprint, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, OF_ELEMENT, one, each, list, entries, withFields, type Pointer } from './kind.ts';

/** One filled region of a drawing. */
export interface FilledRegion {
  readonly markId: Id;
  /** A point well inside it, element space, px. */
  readonly x: number;
  readonly y: number;
  readonly swatch: Id;
  /** The shape's fingerprint as it was filled: another one was changed by hand. */
  readonly print: string;
}

/** The filled regions of one slot, and the fingerprint of the lines they were filled from. */
export interface FilledSlot {
  readonly hangsOn: string;
  readonly regions: readonly FilledRegion[];
  /** Gaps up to this many px were closed here, where it is not as many as in the others. */
  readonly gap?: number;
}

/** What was filled on a layer. */
export interface Fill {
  readonly kind: 'fill';
  readonly id: Id;
  readonly elementId: Id;
  /** The layer the shapes lie on. */
  readonly layerId: Id;
  /** Layers whose lines bound the regions. */
  readonly bounds: readonly Id[];
  /** Gaps up to this many px are closed. */
  readonly gap: number;
  /** px that fills reach under the line, or null for its middle. */
  readonly under: number | null;
  readonly slots: Readonly<Record<Id, FilledSlot>>;
}

const LAYER: Pointer = { field: 'layerId', to: 'layer', bond: 'follows' };
const BOUNDS: Pointer = { field: 'bounds', to: 'layer', bond: 'seeks' };
const REGIONS: Pointer = { field: 'slots', to: 'swatch', bond: 'seeks' };

export const fill = kindOf<Fill>({
  kind: 'fill',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('fill'),
      id,
      elementId: id,
      layerId: id,
      bounds: uniqueIds,
      gap: z.number().min(0).max(200),
      under: z.number().min(0).max(400).nullable(),
      slots: z.record(
        id,
        z.strictObject({
          hangsOn: fingerprint,
          gap: z.number().min(0).max(200).optional(),
          regions: z
            .array(z.strictObject({ markId: id, x: place, y: place, swatch: id, print: fingerprint }))
            .max(20_000),
        }),
      ),
    }),
  merge: { bounds: 'order', slots: 'record' },
  points: ['element', 'layer', 'swatch'],
  mapIds: (fill, of) =>
    withFields(fill, {
      elementId: one(fill.elementId, of, OF_ELEMENT),
      layerId: one(fill.layerId, of, LAYER),
      bounds: list(fill.bounds, of, BOUNDS),
      slots: entries(fill.slots, (slot, filled) => [
        slot,
        withFields(filled, {
          regions: each(filled.regions, (region) => withFields(region, { swatch: one(region.swatch, of, REGIONS) })),
        }),
      ]),
    }),
});
