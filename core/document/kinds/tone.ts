/** Shade and light cut from a body by the element’s light. */
import { z } from 'zod';
import { id, fraction, uniqueIds, fingerprint } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, OF_ELEMENT, one, list, entries, record, withFields, type Pointer } from './kind.ts';

/** The tone shapes a layer can get, in the order in which they lie on the body. */
export const TONE_KEYS = ['shade', 'deep', 'light'] as const;

export type ToneKey = (typeof TONE_KEYS)[number];

/** Shade and light cut from a body by the element's light. */
export interface Tone {
  readonly kind: 'tone';
  readonly id: Id;
  readonly elementId: Id;
  readonly bodyId: Id;
  /** Layers whose lines crease the body. */
  readonly details: readonly Id[];
  /** How far in from the outline it is round, px. */
  readonly depth: number;
  /** How much of what faces away is in shade, and of what faces the light lit, 0 to 1. */
  readonly shade: number;
  readonly light: number;
  /** Hard, or the shade stepped in two. */
  readonly steps: 1 | 2;
  /** px kept off the outline. */
  readonly rim: number;
  /** Whether every drawing of the body has it, those that come later too; else only those it was laid on. */
  readonly everywhere: boolean;
  readonly layers: Readonly<Partial<Record<ToneKey, Id>>>;
  readonly swatches: Readonly<Partial<Record<ToneKey, Id>>>;
  /** Fingerprints of laid drawings, by layer and slot. */
  readonly laid: Readonly<Record<Id, Readonly<Record<Id, string>>>>;
  /** Fingerprints of what each slot was laid from. */
  readonly hangsOn: Readonly<Record<Id, string>>;
}

const toneKey = () => z.enum(TONE_KEYS);
const BODY: Pointer = { field: 'bodyId', to: 'layer', bond: 'follows' };
const DETAILS: Pointer = { field: 'details', to: 'layer', bond: 'seeks' };
const LAYERS: Pointer = { field: 'layers', to: 'layer', bond: 'seeks' };
const SWATCHES: Pointer = { field: 'swatches', to: 'swatch', bond: 'seeks', use: 'look' };
const LAID: Pointer = { field: 'laid', to: 'layer', bond: 'seeks' };

export const tone = kindOf<Tone>({
  kind: 'tone',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('tone'),
      id,
      elementId: id,
      bodyId: id,
      details: uniqueIds,
      depth: z.number().min(2).max(2000),
      shade: fraction,
      light: fraction,
      steps: z.union([z.literal(1), z.literal(2)]),
      rim: z.number().min(0).max(400),
      everywhere: z.boolean().default(false),
      layers: z.partialRecord(toneKey(), id),
      swatches: z.partialRecord(toneKey(), id),
      laid: z.record(id, z.record(id, fingerprint)),
      hangsOn: z.record(id, fingerprint),
    }),
  merge: { details: 'order', layers: 'record', swatches: 'record', laid: 'records', hangsOn: 'record' },
  points: ['element', 'layer', 'swatch'],
  mapIds: (tone, of) =>
    withFields(tone, {
      elementId: one(tone.elementId, of, OF_ELEMENT),
      bodyId: one(tone.bodyId, of, BODY),
      details: list(tone.details, of, DETAILS),
      layers: record(tone.layers, of, LAYERS),
      swatches: record(tone.swatches, of, SWATCHES),
      laid: entries(tone.laid, (layerId, prints) => {
        const next = of(layerId, LAID);
        return next === null ? null : [next, prints];
      }),
    }),
});
