/** What hides a placement or a plate, or is all that it is seen within. */
import { z } from 'zod';
import { id } from './fields.ts';
import type { Id } from './id.ts';

export interface CutBy {
  /** A placement on a plane, or a plate. */
  readonly by: Id;
  /** Seen within it alone, or all but that. */
  readonly within: boolean;
  /** By all that it has passed over so far, in place of what it is on the frame. */
  readonly passed: boolean;
}

/** The field of a body; where it is absent, nothing cuts it. */
export const cut = z.lazy(() =>
  z.strictObject({ by: id, within: z.boolean(), passed: z.boolean() }).nullable().default(null),
);
