/** A seeded computation kept with the layers it laid. */
import { z } from 'zod';
import { encodeColumn } from '../columns.ts';
import { FAR, frames, id, place, within, column, fingerprint } from '../fields.ts';
import { type Id } from '../id.ts';
import { seed } from '../mark-check.ts';
import { kindOf, OF_ELEMENT, one, maybe, each, entries, record, withFields, type Pointer } from './kind.ts';

export const EFFECTS = [
  'fire',
  'smoke',
  'bolt',
  'burst',
  'liquid',
  'sparks',
  'ring',
  'ripple',
  'speed',
  'wave',
  'tied',
  'impact',
  'cover',
] as const;

export type Effect = (typeof EFFECTS)[number];

/** One drawing a starter laid: on which of its outputs, and what it looked like then. */
export interface LaidDrawing {
  readonly drawingId: Id;
  readonly slot: Id;
  /** A fingerprint of its marks as they were laid. */
  readonly print: string;
}

/** A seeded computation kept with the layers it laid. */
export interface Starter {
  readonly kind: 'starter';
  readonly id: Id;
  readonly elementId: Id;
  readonly effect: Effect;
  readonly seed: number;
  /** Where it stands in element space. */
  readonly x: number;
  readonly y: number;
  /** Numbers by name, each within the range its effect states. */
  readonly settings: Readonly<Record<string, number>>;
  /** A line drawn for it, as `x y` pairs from where it stands: the base of a fire, say. */
  readonly line: Float32Array | null;
  /** The path it follows. */
  readonly pathId: Id | null;
  /** Element frame it begins on, and how many frames it takes. */
  readonly from: number;
  readonly length: number;
  /** Frames each drawing is held, or null for the holds of the element's phases. */
  readonly hold: number | null;
  /** Layer of each output by the output's name. */
  readonly layers: Readonly<Record<string, Id>>;
  /** Swatch of each paint by the paint's name. */
  readonly paints: Readonly<Record<string, Id>>;
  /** What was laid, by output, in order. */
  readonly laid: Readonly<Record<string, readonly LaidDrawing[]>>;
  /** Fingerprint of the path it was laid along, or null where there was none, or none was kept. */
  readonly along: string | null;
}

const plain = z.string().regex(/^[a-z][a-zA-Z0-9]{0,31}$/, 'must be a short plain name');
const laid = () => z.strictObject({ drawingId: id, slot: id, print: fingerprint });
// It outlives layers, drawings, swatches and paths it once laid or followed.
const PATH: Pointer = { field: 'pathId', to: 'path', bond: 'seeks' };
const LAYERS: Pointer = { field: 'layers', to: 'layer', bond: 'seeks' };
const PAINTS: Pointer = { field: 'paints', to: 'swatch', bond: 'seeks', use: 'starter' };
const LAID: Pointer = { field: 'laid', to: 'drawing', bond: 'seeks' };

export const starter = kindOf<Starter>({
  kind: 'starter',
  version: 2,
  upgrades: [(body) => ({ ...body, along: null })],
  schema: () =>
    z.strictObject({
      kind: z.literal('starter'),
      id,
      elementId: id,
      effect: z.enum(EFFECTS),
      seed,
      x: place,
      y: place,
      settings: z.record(plain, place),
      line: column
        .refine((l) => l.length >= 4 && l.length % 2 === 0 && l.length <= 2000, 'must hold 2 to 1000 points')
        .refine((l) => l.every((v) => Math.abs(v) <= FAR), `must lie within ${FAR} px`)
        .nullable(),
      pathId: id.nullable(),
      from: frames(0),
      length: within({ min: 1, max: 2000 }, 'frames'),
      hold: within({ min: 1, max: 100 }, 'frames').nullable(),
      layers: z.record(plain, id),
      paints: z.record(plain, id),
      laid: z.record(plain, z.array(laid()).max(2000)),
      along: fingerprint.nullable(),
    }),
  merge: { settings: 'fields', layers: 'record', paints: 'record', laid: 'record' },
  points: ['element', 'path', 'layer', 'swatch', 'drawing'],
  mapIds: (starter, of) =>
    withFields(starter, {
      elementId: one(starter.elementId, of, OF_ELEMENT),
      pathId: maybe(starter.pathId, of, PATH),
      layers: record(starter.layers, of, LAYERS),
      paints: record(starter.paints, of, PAINTS),
      laid: entries(starter.laid, (key, drawings) => [
        key,
        each(drawings, (laid) => {
          const drawingId = of(laid.drawingId, LAID);
          return drawingId === null ? null : withFields(laid, { drawingId });
        }),
      ]),
    }),
  encode: (starter) => ({ ...starter, line: starter.line && encodeColumn(starter.line) }),
});
