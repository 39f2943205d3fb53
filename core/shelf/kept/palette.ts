import { z } from 'zod';
import { SWATCH_ROLES } from '../../document/index.ts';
import { keptKind } from './kept-kind.ts';

/** A palette; gradients are made anew from its swatches. */
export const palette = keptKind({
  label: 'Palettes',
  schema: z.strictObject({
    swatches: z
      .array(
        z.strictObject({
          name: z.string().min(1).max(120),
          role: z.enum(SWATCH_ROLES),
          colour: z.string().regex(/^#[0-9a-f]{6}$/),
        }),
      )
      .min(1)
      .max(256),
  }),
  of: () => '',
});
