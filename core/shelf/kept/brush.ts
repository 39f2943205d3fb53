import { z } from 'zod';
import { BRUSH_KINDS } from '../../document/index.ts';
import { FINISHES } from '../../brush/index.ts';
import { keptKind } from './kept-kind.ts';

const share = z.number().min(0).max(1);
const length = z.number().min(0).max(10_000);

/** A brush as it is set. */
export const brush = keptKind({
  label: 'Brushes',
  schema: z.strictObject({
    /** The brush of the tray it is a variant of. */
    tool: z.string().min(1).max(40),
    brush: z.strictObject({
      width: z.number().min(0.1).max(10_000),
      opacity: share,
      pressure: z.boolean(),
      steadying: share,
      flow: share,
      taper: z.tuple([length, length]),
      tilt: share,
      response: z.tuple([share, share, share, share, share]),
      tip: z.enum(BRUSH_KINDS),
      finish: z.enum(FINISHES),
      tolerance: length,
    }),
  }),
  of: ({ tool }) => tool,
});
