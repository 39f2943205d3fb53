/** A plane of depth, with the placements that stand on it. */
import { z } from 'zod';
import { id, name, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, list, withFields, type Pointer } from './kind.ts';

export interface Plane {
  readonly kind: 'plane';
  readonly id: Id;
  readonly name: string;
  /** 0 is the picture plane, positive is farther. */
  readonly depth: number;
  /** Placement ids, topmost first. */
  readonly placements: readonly Id[];
}

const PLACEMENTS: Pointer = { field: 'placements', to: 'placement', bond: 'lists' };

export const plane = kindOf<Plane>({
  kind: 'plane',
  version: 1,
  schema: z.strictObject({
    kind: z.literal('plane'),
    id,
    name,
    depth: z.number().min(-1000).max(1000),
    placements: uniqueIds,
  }),
  merge: { placements: 'order' },
  points: ['placement'],
  mapIds: (plane, of) => withFields(plane, { placements: list(plane.placements, of, PLACEMENTS) }),
});
