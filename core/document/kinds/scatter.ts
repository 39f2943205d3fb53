/** Copies of a placement scattered in time and space by a seed. */
import { z } from 'zod';
import { encodeColumn } from '../columns.ts';
import { id, place, fingerprint, fraction, within } from '../fields.ts';
import { type Id } from '../id.ts';
import { ring, seed } from '../mark-check.ts';
import { entries, kindOf, maybe, one, withFields, type Pointer } from './kind.ts';

/** From the least to the most. The names are stored ones: others come only with a version of the body. */
export interface Range {
  readonly least: number;
  readonly most: number;
}

export interface Scatter {
  readonly kind: 'scatter';
  readonly id: Id;
  /** The placement that is copied. */
  readonly sourceId: Id;
  readonly count: number;
  readonly seed: number;
  /** Frames over which copies of what does not loop begin; cycles are spread over their turn. */
  readonly over: number;
  /** A drawn region they lie in, in the space the placement lies in; null for round about it. */
  readonly region: Float32Array | null;
  /** A path they lie along, in place of a region. */
  readonly pathId: Id | null;
  /** px round about it, where there is neither. */
  readonly reach: number;
  /** 1 is as large as what is copied. */
  readonly size: Range;
  /** Radians. */
  readonly turn: Range;
  /** 1 is as fast as what is copied. */
  readonly speed: Range;
  /** How many of them are mirrored, 0 to 1. */
  readonly mirrored: number;
  /** Fingerprints of the placements as they were laid. */
  readonly copies: Readonly<Record<Id, string>>;
}

const SOURCE: Pointer = { field: 'sourceId', to: 'placement', bond: 'follows' };
const WAY: Pointer = { field: 'pathId', to: 'path', bond: 'seeks' };
const COPIES: Pointer = { field: 'copies', to: 'placement', bond: 'entry' };

const COPIES_LIMITS = { min: 1, max: 200 } as const;
const range = (min: number, max: number) =>
  z
    .strictObject({ least: z.number().min(min).max(max), most: z.number().min(min).max(max) })
    .refine((own) => own.most >= own.least, 'must not end below where it begins');

export const scatter = kindOf<Scatter>({
  kind: 'scatter',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('scatter'),
      id,
      sourceId: id,
      count: within(COPIES_LIMITS, 'copies'),
      seed,
      over: within({ min: 0, max: 10_000 }, 'frames'),
      region: ring.nullable(),
      pathId: id.nullable(),
      reach: place,
      size: range(0.01, 100),
      turn: range(-10, 10),
      speed: range(0.05, 20),
      mirrored: fraction,
      copies: z.record(id, fingerprint),
    }),
  merge: { size: 'value', turn: 'value', speed: 'value', copies: 'value' },
  points: ['placement', 'path'],
  mapIds: (scatter, of) =>
    withFields(scatter, {
      sourceId: one(scatter.sourceId, of, SOURCE),
      pathId: maybe(scatter.pathId, of, WAY),
      copies: entries(scatter.copies, (placementId, made) => {
        const next = of(placementId, COPIES);
        return next === null ? null : [next, made];
      }),
    }),
  encode: (scatter) => ({ ...scatter, region: scatter.region && encodeColumn(scatter.region) }),
});
