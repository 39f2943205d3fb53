/** What a value over time must be. */
import { z } from 'zod';
import { frames } from './fields.ts';
import { EASES } from './value.ts';

const rising = (keys: readonly { frame: number }[]) =>
  keys.every((key, i) => i === 0 || key.frame > keys[i - 1]!.frame);

/** One number throughout, or numbers at rising frames. */
export const value = (number: z.ZodNumber) =>
  z.union(
    [
      z.strictObject({ constant: number }),
      z.strictObject({
        keys: z
          .array(z.strictObject({ frame: frames(0), value: number, ease: z.enum(EASES) }))
          .min(1)
          .max(5000)
          .refine(rising, 'must name frames in rising order, each once'),
      }),
    ],
    `must be {"constant": n}, or {"keys": [{"frame", "value", "ease"}]} with rising frames, and within its range`,
  );
