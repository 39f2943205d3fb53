/** A plane of depth, with the placements that stand on it. */
import { z } from 'zod';
import { id, name, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { finishes, lookIds, lookValues } from '../look-check.ts';
import { type AppliedLook } from '../look-types.ts';
import { kindOf, list, withFields, type Pointer } from './kind.ts';

export interface Plane {
  readonly kind: 'plane';
  readonly id: Id;
  readonly name: string;
  /** 0 is the picture plane, positive is farther. */
  readonly depth: number;
  readonly visible: boolean;
  /** Nothing on it is moved. */
  readonly locked: boolean;
  /** How all that stands on it is seen as a whole. */
  readonly finishes: readonly AppliedLook[];
  /** Ids of placements, and of plates that lie between them, topmost first. */
  readonly placements: readonly Id[];
}

/** px of depth. */
export const DEPTH_LIMITS = { min: -10_000, max: 100_000 } as const;

const PLACEMENTS: Pointer = { field: 'placements', to: 'placement', bond: 'lists' };

export const plane = kindOf<Plane>({
  kind: 'plane',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('plane'),
      id,
      name,
      depth: z.number().min(DEPTH_LIMITS.min).max(DEPTH_LIMITS.max),
      visible: z.boolean().default(true),
      locked: z.boolean().default(false),
      finishes: finishes.default([]),
      placements: uniqueIds,
    }),
  merge: { placements: 'order', finishes: 'things' },
  points: ['placement', 'swatch'],
  mapIds: (plane, of) =>
    withFields(plane, {
      placements: list(plane.placements, of, PLACEMENTS),
      finishes: lookIds(plane.finishes, of),
    }),
  mapValues: (plane, change) => ({ ...plane, finishes: lookValues(plane.finishes, change) }),
});
