/** One use of an element on a plane. */
import { z } from 'zod';
import { frames, id, place } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, OF_ELEMENT, one, withFields } from './kind.ts';

/** One use of an element on a plane. */
export interface Placement {
  readonly kind: 'placement';
  readonly id: Id;
  readonly elementId: Id;
  /** Shot frame on which the element's time begins. */
  readonly start: number;
  /** Turns of a cycle, or null for as many as reach the end of the shot. */
  readonly repeats: number | null;
  /** Where the element's origin stands in the shot, px. */
  readonly x: number;
  readonly y: number;
}

export const placement = kindOf<Placement>({
  kind: 'placement',
  version: 1,
  schema: z.strictObject({
    kind: z.literal('placement'),
    id,
    elementId: id,
    start: frames(0),
    repeats: frames(1).nullable(),
    x: place,
    y: place,
  }),
  merge: {},
  points: ['element'],
  mapIds: (placement, of) => withFields(placement, { elementId: one(placement.elementId, of, OF_ELEMENT) }),
});
