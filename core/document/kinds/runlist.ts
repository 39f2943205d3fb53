/** A run list: which slot is shown for how long. */
import { z } from 'zod';
import { frames, id } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, OF_ELEMENT, one, withFields } from './kind.ts';

/** What a slot is for in working from pose to pose; one that is neither is an in-between. */
export const POSES = ['key', 'breakdown'] as const;

export type Pose = (typeof POSES)[number];

/** A stretch of frames that shows one slot, or nothing. */
export interface Run {
  readonly id: Id;
  readonly slot: Id | null;
  /** Frames, at least 1. */
  readonly length: number;
}

export interface RunList {
  readonly kind: 'runlist';
  readonly id: Id;
  readonly elementId: Id;
  readonly runs: readonly Run[];
  /** The list's own repeat in frames, or null when it runs with its element. 1 is a still layer. */
  readonly period: number | null;
  /** Frames by which the list starts later, wrapping on a cycle. */
  readonly offset: number;
  /** Slots that are keys or breakdowns; the others are in-betweens. */
  readonly poses: Readonly<Record<Id, Pose>>;
  /** Numbers of slots that keep theirs though the order has changed; the others are numbered as they follow. */
  readonly numbers: Readonly<Record<Id, number>>;
}

const run = () => z.strictObject({ id, slot: id.nullable(), length: frames(1) });

export const runList = kindOf<RunList>({
  kind: 'runlist',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('runlist'),
      id,
      elementId: id,
      runs: z
        .array(run())
        .max(20_000)
        .refine((runs) => new Set(runs.map((r) => r.id)).size === runs.length, 'must not name a run twice'),
      period: frames(1).nullable(),
      offset: frames(-100_000),
      // Bodies from before slots had poses and numbers are read as plain ones.
      poses: z.record(id, z.enum(POSES)).default({}),
      numbers: z.record(id, frames(1)).default({}),
    }),
  merge: { runs: 'things', poses: 'record', numbers: 'record' },
  points: ['element'],
  mapIds: (runs, of) => withFields(runs, { elementId: one(runs.elementId, of, OF_ELEMENT) }),
});
