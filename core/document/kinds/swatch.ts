/** A named colour or gradient of the palette. */
import { z } from 'zod';
import { colour, id, name } from '../fields.ts';
import { type Id } from '../id.ts';
import { gradient } from '../look-check.ts';
import { type Gradient } from '../look-types.ts';
import { kindOf, one, each, withFields, type Pointer } from './kind.ts';

export const SWATCH_ROLES = ['outline', 'body', 'core', 'light', 'shade', 'hole'] as const;

export type SwatchRole = (typeof SWATCH_ROLES)[number];

export interface Swatch {
  readonly kind: 'swatch';
  readonly id: Id;
  readonly name: string;
  readonly role: SwatchRole;
  /** `#rrggbb`, lower case. Of a gradient, what is seen where no gradient can be. */
  readonly colour: string;
  /** Colours of other swatches running into each other, or null for the one colour. */
  readonly gradient: Gradient | null;
}

const STOPS: Pointer = { field: 'gradient', to: 'swatch', bond: 'needs', use: 'gradient' };

export const swatch = kindOf<Swatch>({
  kind: 'swatch',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('swatch'),
      id,
      name,
      role: z.enum(SWATCH_ROLES),
      colour,
      gradient: gradient.nullable().default(null),
    }),
  merge: { gradient: 'value' },
  points: ['swatch'],
  mapIds: (swatch, of) => {
    const { gradient } = swatch;
    if (!gradient) return swatch;
    const stops = each(gradient.stops, (stop) => withFields(stop, { swatch: one(stop.swatch, of, STOPS) }));
    return stops === gradient.stops ? swatch : { ...swatch, gradient: { ...gradient, stops } };
  },
});
