/** Layers put together: shown, locked, faded, moved and seen in looks as one. */
import { z } from 'zod';
import { id, name, fraction, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { finishes, lookIds, lookValues } from '../look-check.ts';
import { type AppliedLook } from '../look-types.ts';
import { shiftAtHome, shiftValues, type Shift } from '../shift.ts';
import { value } from '../value-check.ts';
import { type Value } from '../value.ts';
import { kindOf, OF_ELEMENT, one, list, withFields, type Pointer } from './kind.ts';

/** Folders hold layers only. */
export interface Folder {
  readonly kind: 'folder';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  readonly visible: boolean;
  readonly locked: boolean;
  /** Below 1 its layers are laid on one another first and faded as one picture. */
  readonly opacity: Value;
  /** Layer ids, topmost first. */
  readonly layers: readonly Id[];
  /** Where all of it is put, over time, on top of where each of its layers is put. */
  readonly shift: Shift;
  /** How its layers are seen put together, in the order in which they are worked out. */
  readonly finishes: readonly AppliedLook[];
}

const LAYERS: Pointer = { field: 'layers', to: 'layer', bond: 'lists' };

export const folder = kindOf<Folder>({
  kind: 'folder',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('folder'),
      id,
      elementId: id,
      name,
      visible: z.boolean(),
      locked: z.boolean(),
      opacity: value(fraction),
      layers: uniqueIds,
      shift: shiftAtHome,
      finishes: finishes.default([]),
    }),
  merge: { opacity: 'value', layers: 'order', shift: 'fields', finishes: 'things' },
  points: ['element', 'layer', 'swatch'],
  mapIds: (folder, of) =>
    withFields(folder, {
      elementId: one(folder.elementId, of, OF_ELEMENT),
      layers: list(folder.layers, of, LAYERS),
      finishes: lookIds(folder.finishes, of),
    }),
  mapValues: (folder, change) => ({
    ...folder,
    opacity: change(folder.opacity),
    shift: shiftValues(folder.shift, change),
    finishes: lookValues(folder.finishes, change),
  }),
});
