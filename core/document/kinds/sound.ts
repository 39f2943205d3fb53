/** A sound of the shot: a stretch of a recording, from a frame on. */
import { z } from 'zod';
import { asset, FAR, id, name, fraction } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf } from './kind.ts';
import type { AssetId } from './plate.ts';

export interface Sound {
  readonly kind: 'sound';
  readonly id: Id;
  readonly name: string;
  readonly asset: AssetId;
  /** Length of the whole recording, s. */
  readonly seconds: number;
  /** Where in the shot it begins to be heard, frames; between two frames too. */
  readonly start: number;
  /** What is heard of the recording, s from its beginning. */
  readonly part: { readonly from: number; readonly to: number };
  /** Over how many seconds it comes and goes. */
  readonly fadeIn: number;
  readonly fadeOut: number;
  /** 1 is as it was recorded. */
  readonly loudness: number;
  /** How faint a hit is still found, 0 to 1. */
  readonly hits: number;
  readonly heard: boolean;
}

/** Seconds of a recording at most, the shortest stretch of one that can be heard, and how loud it can be made. */
export const SOUND_LIMITS = { seconds: 600, shortest: 0.01, loudness: 4 } as const;

const seconds = () => z.number().min(0).max(SOUND_LIMITS.seconds);

export const sound = kindOf<Sound>({
  kind: 'sound',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('sound'),
      id,
      name,
      asset,
      seconds: seconds().min(SOUND_LIMITS.shortest),
      start: z.number().min(-FAR).max(FAR),
      part: z
        .strictObject({ from: seconds(), to: seconds() })
        .refine(({ from, to }) => from < to, 'must end after it has begun'),
      fadeIn: seconds(),
      fadeOut: seconds(),
      loudness: z.number().min(0).max(SOUND_LIMITS.loudness),
      hits: fraction,
      heard: z.boolean(),
    }),
  merge: { part: 'value' },
  points: [],
  assets: ({ asset: own }) => [own],
  mapIds: (sound) => sound,
});
