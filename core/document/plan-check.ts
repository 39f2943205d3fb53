/** What the parts of an element's plan must be. */
import { z } from 'zod';
import { eachOnce, frames, id, name, notTwice, place } from './fields.ts';
import { MOVES } from './plan-types.ts';

export const base = z.lazy(() =>
  z.strictObject({
    id,
    name,
    x: place,
    y: place,
    notes: z
      .array(z.strictObject({ id, move: z.enum(MOVES), from: frames(0), length: frames(1) }))
      .max(200)
      .refine(eachOnce, notTwice),
  }),
);
