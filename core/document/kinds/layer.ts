/** A sheet of an element: what its slots show, and how it is seen. */
import { z } from 'zod';
import { BLENDS, type Blend } from '../../canvas/index.ts';
import { id, name, fraction } from '../fields.ts';
import { type Id } from '../id.ts';
import { finishes, lookIds, lookValues } from '../look-check.ts';
import { type AppliedLook } from '../look-types.ts';
import { value } from '../value-check.ts';
import { type Value } from '../value.ts';
import { shiftAtHome, shiftValues, type Shift } from '../shift.ts';
import { kindOf, OF_ELEMENT, one, maybe, record, withFields, type Pointer } from './kind.ts';

export const LAYER_ROLES = ['guide', 'rough', 'line', 'body', 'tone', 'texture', 'glow', 'matte'] as const;

export type LayerRole = (typeof LAYER_ROLES)[number];

/** Colour marks that tell layers apart in the list; 0 is none. */
const LAYER_TAGS = 6;

export interface Layer {
  readonly kind: 'layer';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  readonly role: LayerRole;
  readonly visible: boolean;
  readonly locked: boolean;
  readonly opacity: Value;
  readonly blend: Blend;
  /** Whether the onion skin shows its neighbours while it is drawn on. */
  readonly onion: boolean;
  /** Colour mark, 0 (none) to `LAYER_TAGS`. */
  readonly tag: number;
  readonly runListId: Id;
  /** Which drawing each slot of the run list shows on this layer. */
  readonly slots: Readonly<Record<Id, Id>>;
  /** The starter that laid this layer, if one did. */
  readonly starterId: Id | null;
  /** Whether the pen draws only on what the layer holds already. */
  readonly inside: boolean;
  /** Whether the layer shows only where the one below it does. */
  readonly clip: boolean;
  /** The swatch in which all of the layer is seen, or null for each mark's own. */
  readonly tint: Id | null;
  /** Where the whole layer is put, over time. */
  readonly shift: Shift;
  /** How it is seen, in the order in which they are worked out. */
  readonly finishes: readonly AppliedLook[];
  /** For working only: not part of the finished look, nor of what is taken away. */
  readonly forWork: boolean;
  /** Of a matte: whether it hides what lies behind its element too, and whether it hides all but what it covers. */
  readonly matte: { readonly shot: boolean; readonly inverted: boolean };
}

const RUNS: Pointer = { field: 'runListId', to: 'runlist', bond: 'needs', keeps: true };
const SLOTS: Pointer = { field: 'slots', to: 'drawing', bond: 'lists', keeps: true };
const STARTER: Pointer = { field: 'starterId', to: 'starter', bond: 'needs' };
const TINT: Pointer = { field: 'tint', to: 'swatch', bond: 'needs', use: 'tint' };

export const layer = kindOf<Layer>({
  kind: 'layer',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('layer'),
      id,
      elementId: id,
      name,
      role: z.enum(LAYER_ROLES),
      visible: z.boolean(),
      locked: z.boolean(),
      opacity: value(fraction),
      blend: z.enum(BLENDS).default('normal'),
      onion: z.boolean().default(true),
      tag: z.int().min(0).max(LAYER_TAGS).default(0),
      runListId: id,
      slots: z.record(id, id),
      starterId: id.nullable().default(null),
      inside: z.boolean().default(false),
      clip: z.boolean().default(false),
      tint: id.nullable().default(null),
      shift: shiftAtHome,
      finishes: finishes.default([]),
      forWork: z.boolean().default(false),
      matte: z.strictObject({ shot: z.boolean(), inverted: z.boolean() }).default({ shot: false, inverted: false }),
    }),
  merge: { opacity: 'value', slots: 'record', shift: 'fields', finishes: 'things', matte: 'fields' },
  points: ['element', 'runlist', 'drawing', 'starter', 'swatch'],
  mapIds: (layer, of) =>
    withFields(layer, {
      elementId: one(layer.elementId, of, OF_ELEMENT),
      runListId: one(layer.runListId, of, RUNS),
      slots: record(layer.slots, of, SLOTS),
      starterId: maybe(layer.starterId, of, STARTER),
      tint: maybe(layer.tint, of, TINT),
      finishes: lookIds(layer.finishes, of),
    }),
  mapValues: (layer, change) => ({
    ...layer,
    opacity: change(layer.opacity),
    shift: shiftValues(layer.shift, change),
    finishes: lookValues(layer.finishes, change),
  }),
});
