import { z } from 'zod';
import { EFFECTS } from '../../document/index.ts';
import { keptKind } from './kept-kind.ts';

/** Settings of a starter. */
export const preset = keptKind({
  label: 'Presets',
  schema: z.strictObject({
    effect: z.enum(EFFECTS),
    settings: z.record(z.string().regex(/^[a-z][a-zA-Z0-9]{0,31}$/), z.number()),
    /** Frames; as its starter usually has them without. */
    length: z.int().min(1).max(2000).optional(),
    hold: z.int().min(1).max(100).optional(),
  }),
  of: ({ effect }) => effect,
});
