/** A way that something goes, with a tick for every drawing. */
import { z } from 'zod';
import { encodeColumn } from '../columns.ts';
import { eachOnce, frames, id, name, notTwice, fraction, size, within } from '../fields.ts';
import { type Id } from '../id.ts';
import { ring } from '../mark-check.ts';
import { kindOf, OF_ELEMENT, one, withFields } from './kind.ts';

/** A stretch of a path on which what follows it slows. */
interface SlowPlace {
  readonly id: Id;
  /** Where on the way, 0 to 1 of its length. */
  readonly at: number;
  /** How far it reaches to either side, in shares of the way. */
  readonly width: number;
  /** How slow, 0 to 1: what is taken off the speed in its middle. Only 1 stops. */
  readonly amount: number;
}

const STAND_IN_FORMS = ['disc', 'ellipse', 'shape'] as const;

/** The simple form seen on every tick of a path. */
export interface StandIn {
  readonly form: (typeof STAND_IN_FORMS)[number];
  /** A drawn form as a ring about its own middle, or null. */
  readonly shape: Float32Array | null;
  /** Full length along its own axis, px, at the first and last tick. */
  readonly sizeStart: number;
  readonly sizeEnd: number;
  /** Width over length of the ellipse, 0.05 to 1. */
  readonly aspect: number;
  readonly turn: 'along' | 'fixed';
  /** Radians, added to its direction. */
  readonly angle: number;
  /** How much speed stretches it, 0 to 1; its area stays. */
  readonly stretch: number;
  readonly opacityStart: number;
  readonly opacityEnd: number;
}

/** A way that something goes, with a tick for every drawing. */
export interface Path {
  readonly kind: 'path';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  /** Nodes as in a ring, six numbers each; closed only if `closed`. */
  readonly nodes: Float32Array;
  readonly closed: boolean;
  /** Element frame of the first tick. */
  readonly from: number;
  /** At least 2. */
  readonly ticks: number;
  /** Frames from one tick to the next. */
  readonly hold: number;
  /** How gently it leaves and arrives, 0 to 1. */
  readonly softStart: number;
  readonly softEnd: number;
  readonly slows: readonly SlowPlace[];
  /** Whether speed follows size: near is large and fast, far is small and slow. */
  readonly perspective: boolean;
  /** Ticks put somewhere by hand: share of the way by index of the tick. */
  readonly placed: Readonly<Record<string, number>>;
  readonly standIn: StandIn;
  readonly visible: boolean;
  readonly locked: boolean;
}

const standIn = () =>
  z.strictObject({
    form: z.enum(STAND_IN_FORMS),
    shape: ring.nullable(),
    sizeStart: size,
    sizeEnd: size,
    aspect: z.number().min(0.05).max(1),
    turn: z.enum(['along', 'fixed']),
    angle: z.number().min(-100).max(100),
    stretch: fraction,
    opacityStart: fraction,
    opacityEnd: fraction,
  });

export const path = kindOf<Path>({
  kind: 'path',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('path'),
      id,
      elementId: id,
      name,
      nodes: ring,
      closed: z.boolean(),
      from: frames(0),
      ticks: within({ min: 2, max: 1000 }, 'ticks'),
      hold: within({ min: 1, max: 100 }, 'frames'),
      softStart: fraction,
      softEnd: fraction,
      slows: z
        .array(z.strictObject({ id, at: fraction, width: z.number().min(0.01).max(1), amount: fraction }))
        .max(100)
        .refine(eachOnce, notTwice),
      perspective: z.boolean(),
      placed: z.record(z.string().regex(/^(0|[1-9][0-9]{0,3})$/, 'must be the number of a tick'), fraction),
      standIn: standIn(),
      visible: z.boolean(),
      locked: z.boolean(),
    }),
  merge: { slows: 'things', placed: 'record', standIn: 'fields' },
  points: ['element'],
  mapIds: (path, of) => withFields(path, { elementId: one(path.elementId, of, OF_ELEMENT) }),
  encode: (path) => {
    const { shape } = path.standIn;
    const standIn = { ...path.standIn, shape: shape && encodeColumn(shape) };
    return { ...path, nodes: encodeColumn(path.nodes), standIn };
  },
});
