/** What is to be known of a kind of settings that stand on the shelf beside effects. */
import type { z } from 'zod';

export interface KeptKind<T> {
  /** As several are called. */
  readonly label: string;
  readonly schema: z.ZodType<T>;
  /** What they are for: names are unique within it. */
  readonly of: (what: T) => string;
}

/** A kind of settings, and the check that reads them. */
export const keptKind = <T>(kind: KeptKind<T>): KeptKind<T> => kind;
