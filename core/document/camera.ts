/** The camera of a shot: where it looks over the shot's time, how far it is off, and how it shakes. */
import { z } from 'zod';
import { frames, id, place, within } from './fields.ts';
import type { Id } from './id.ts';
import { value } from './value-check.ts';
import { constant, type Value } from './value.ts';

/** One shaking, begun by a hit and dying down until it is over. */
export interface Shake {
  readonly id: Id;
  /** Frame of the shot on which it begins. */
  readonly from: number;
  /** Frames until it has died down. */
  readonly lasts: number;
  /** px it goes off at most. */
  readonly amount: number;
  /** Radians it turns at most. */
  readonly turn: number;
  /** Swings a second. */
  readonly frequency: number;
  readonly seed: number;
}

/** What the camera does. At rest it changes nothing. */
export interface Camera {
  /** Where its middle is, px of the picture plane from the middle of the picture. */
  readonly x: Value;
  readonly y: Value;
  /** 2 shows things twice as large. */
  readonly zoom: Value;
  /** Radians, clockwise. */
  readonly angle: Value;
  /** A path it goes along from tick to tick, beside that; null for none. */
  readonly pathId: Id | null;
  readonly shakes: readonly Shake[];
}

export const CAMERA_AT_REST: Camera = {
  x: constant(0),
  y: constant(0),
  zoom: constant(1),
  angle: constant(0),
  pathId: null,
  shakes: [],
};

/** What a shaking may be. */
export const SHAKE_LIMITS = {
  amount: { min: 0, max: 1000 },
  turn: { min: 0, max: 0.5 },
  frequency: { min: 0.5, max: 30 },
} as const;
export const ZOOM_LIMITS = { min: 0.05, max: 50 } as const;

const from = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);

const shake = () =>
  z.strictObject({
    id,
    from: frames(-100_000),
    lasts: frames(1),
    amount: from(SHAKE_LIMITS.amount),
    turn: from(SHAKE_LIMITS.turn),
    frequency: from(SHAKE_LIMITS.frequency),
    seed: within({ min: 0, max: 0xffffffff }, ''),
  });

/** The field of a body; where it is absent, the camera is at rest. */
export const camera = z.lazy(() =>
  z
    .strictObject({
      x: value(place),
      y: value(place),
      zoom: value(from(ZOOM_LIMITS)),
      angle: value(z.number().min(-1000).max(1000)),
      pathId: id.nullable(),
      shakes: z.array(shake()).max(200),
    })
    .default(() => structuredClone(CAMERA_AT_REST) as never),
);
