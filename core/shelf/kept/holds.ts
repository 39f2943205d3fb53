import { z } from 'zod';
import { keptKind } from './kept-kind.ts';

/** A pattern of holds: how long drawings are held one after another, again and again. */
export const holds = keptKind({
  label: 'Patterns of holds',
  schema: z.strictObject({ holds: z.array(z.int().min(1).max(10_000)).min(1).max(200) }),
  of: () => '',
});
