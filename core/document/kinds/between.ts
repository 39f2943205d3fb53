/** In-betweens that were computed, with what is needed to compute them again. */
import { z } from 'zod';
import { id, fraction, uniqueIds, fingerprint } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, OF_ELEMENT, one, maybe, withFields, type Pointer } from './kind.ts';

/** How points go from one drawing to the next: straight, about what the mark turns about, along a path, or straight with crests that run along the line. */
export const WAYS = ['straight', 'arc', 'path', 'along'] as const;

export type WayKind = (typeof WAYS)[number];

/** Two marks said to be one, or (with null) a mark that vanishes or appears. */
export interface Tie {
  readonly from: Id | null;
  readonly to: Id | null;
}

/** In-betweens that were computed, with what is needed to compute them again. */
export interface Between {
  readonly kind: 'between';
  readonly id: Id;
  readonly elementId: Id;
  readonly layerId: Id;
  /** The slots they lie between. Where they lead across the seam, `to` is the first. */
  readonly from: Id;
  readonly to: Id;
  /** Slots of the in-betweens in order, and where each lies on the way, 0 to 1, rising. */
  readonly slots: readonly Id[];
  readonly shares: readonly number[];
  readonly way: WayKind;
  /** The path along which marks go, for `path`. */
  readonly pathId: Id | null;
  readonly ties: readonly Tie[];
  /** Fingerprints of what was laid, by slot: a drawing with another fingerprint was touched by hand. */
  readonly laid: Readonly<Record<Id, string>>;
  /** Fingerprints of the two drawings it was laid from. */
  readonly hangsOn: readonly [string, string];
  /** Fingerprint of the path they were laid along, or null where there was none, or none was kept. */
  readonly along: string | null;
}

const tie = z
  .strictObject({ from: id.nullable(), to: id.nullable() })
  .refine((t) => t.from !== null || t.to !== null, 'must name a mark');
const LAYER: Pointer = { field: 'layerId', to: 'layer', bond: 'follows' };
const PATH: Pointer = { field: 'pathId', to: 'path', bond: 'seeks' };

export const between = kindOf<Between>({
  kind: 'between',
  version: 2,
  upgrades: [(body) => ({ ...body, along: null })],
  schema: () =>
    z
      .strictObject({
        kind: z.literal('between'),
        id,
        elementId: id,
        layerId: id,
        from: id,
        to: id,
        slots: uniqueIds.min(1).max(200),
        shares: z
          .array(fraction)
          .max(200)
          .refine((all) => all.every((each, i) => i === 0 || each >= all[i - 1]!), 'must rise'),
        way: z.enum(WAYS),
        pathId: id.nullable(),
        ties: z.array(tie).max(5000),
        laid: z.record(id, fingerprint),
        hangsOn: z.tuple([fingerprint, fingerprint]),
        along: fingerprint.nullable(),
      })
      .refine((b) => b.shares.length === b.slots.length, { path: ['shares'], message: 'must be as many as slots' }),
  // The slots, where they lie and what they were laid from belong together.
  merge: { slots: 'value', shares: 'value', ties: 'value', laid: 'value', hangsOn: 'value' },
  points: ['element', 'layer', 'path'],
  mapIds: (between, of) =>
    withFields(between, {
      elementId: one(between.elementId, of, OF_ELEMENT),
      layerId: one(between.layerId, of, LAYER),
      pathId: maybe(between.pathId, of, PATH),
    }),
});
