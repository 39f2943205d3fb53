/** What is to be known of a kind of settings that stand on the shelf beside effects. */
import type { z } from 'zod';

export interface KeptKind<T> {
  /** As several are called. */
  readonly label: string;
  readonly schema: z.ZodType<T>;
  /** What they are for: names are told apart within it. */
  readonly of: (what: T) => string;
}

/** A kind of settings, with what they are told by their check. */
export const keptKind = <T>(kind: KeptKind<T>): KeptKind<T> => kind;
