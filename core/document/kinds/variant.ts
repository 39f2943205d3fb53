/** The timing and drawings of an element or of some of its layers, kept to be compared. */
import { z } from 'zod';
import { id, name, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, OF_ELEMENT, one, each, list, record, withFields, type Pointer, type IdMap } from './kind.ts';
import { runList, type RunList } from './runlist.ts';

/** The timing and drawings of some layers. */
export interface HeldTake {
  readonly lists: readonly RunList[];
  readonly layers: readonly {
    readonly layerId: Id;
    readonly runListId: Id;
    readonly slots: Readonly<Record<Id, Id>>;
  }[];
}

/** A variant of the timing and drawings of an element or of some of its layers, kept to be compared. */
export interface Variant {
  readonly kind: 'variant';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  /** The layers it is about. */
  readonly scope: readonly Id[];
  /** What is kept, or null for the variant the layers show now. */
  readonly held: HeldTake | null;
}

const slots = z.record(id, id);
// What a kept variant is about may be gone by now.
const SCOPE: Pointer = { field: 'scope', to: 'layer', bond: 'seeks' };
const LISTS: Pointer = { field: 'held.lists', to: 'runlist', bond: 'holds' };
const LIST_OWNER: Pointer = { field: 'held.lists.elementId', to: 'element', bond: 'seeks' };
const LAYERS: Pointer = { field: 'held.layers', to: 'layer', bond: 'seeks' };
const RUNS: Pointer = { field: 'held.layers.runListId', to: 'runlist', bond: 'seeks' };
const SLOTS: Pointer = { field: 'held.layers.slots', to: 'drawing', bond: 'seeks', keeps: true };

const takeIds = (take: HeldTake, of: IdMap): HeldTake =>
  withFields(take, {
    lists: each(take.lists, (runs) =>
      withFields(runs, { id: one(runs.id, of, LISTS), elementId: one(runs.elementId, of, LIST_OWNER) }),
    ),
    layers: each(take.layers, (layer) => {
      const layerId = of(layer.layerId, LAYERS);
      if (layerId === null) return null;
      return withFields(layer, {
        layerId,
        runListId: one(layer.runListId, of, RUNS),
        slots: record(layer.slots, of, SLOTS),
      });
    }),
  });

export const variant = kindOf<Variant>({
  kind: 'variant',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('variant'),
      id,
      elementId: id,
      name,
      scope: uniqueIds,
      held: z
        .strictObject({
          lists: z.array(runList.schema).max(1000),
          layers: z.array(z.strictObject({ layerId: id, runListId: id, slots })).max(1000),
        })
        .nullable(),
    }),
  merge: { scope: 'order', held: 'value' },
  points: ['element', 'layer', 'runlist', 'drawing'],
  mapIds: (variant, of) =>
    withFields(variant, {
      elementId: one(variant.elementId, of, OF_ELEMENT),
      scope: list(variant.scope, of, SCOPE),
      held: variant.held && takeIds(variant.held, of),
    }),
});
