/** The shot itself: its format and what is in it, in order. */
import { z } from 'zod';
import { colour, id, name, uniqueIds, within } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, list, withFields, type Pointer } from './kind.ts';

export interface Shot {
  readonly kind: 'shot';
  readonly id: Id;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** Frames per second. */
  readonly rate: number;
  /** Frames. */
  readonly length: number;
  /** `#rrggbb`, or null for transparent. */
  readonly background: string | null;
  /** Plane ids, nearest first. */
  readonly planes: readonly Id[];
  readonly elements: readonly Id[];
  readonly swatches: readonly Id[];
  readonly guides: readonly Id[];
  /** Plate ids, the nearest first. */
  readonly plates: readonly Id[];
}

export const SHOT_LIMITS = {
  size: { least: 16, most: 8192 },
  rate: { least: 1, most: 120 },
  length: { least: 1, most: 10_000 },
} as const;

const holds = (field: string, to: string): Pointer => ({ field, to, bond: 'lists' });
const LISTS = {
  planes: holds('planes', 'plane'),
  elements: holds('elements', 'element'),
  swatches: holds('swatches', 'swatch'),
  guides: holds('guides', 'guide'),
  plates: holds('plates', 'plate'),
};

export const shot = kindOf<Shot>({
  kind: 'shot',
  version: 1,
  schema: z.strictObject({
    kind: z.literal('shot'),
    id,
    name,
    width: within(SHOT_LIMITS.size, 'px'),
    height: within(SHOT_LIMITS.size, 'px'),
    rate: within(SHOT_LIMITS.rate, 'frames per second'),
    length: within(SHOT_LIMITS.length, 'frames'),
    background: colour.nullable(),
    planes: uniqueIds,
    elements: uniqueIds,
    swatches: uniqueIds,
    guides: uniqueIds.default([]),
    plates: uniqueIds.default([]),
  }),
  merge: { planes: 'order', elements: 'order', swatches: 'order', guides: 'order', plates: 'order' },
  points: ['plane', 'element', 'swatch', 'guide', 'plate'],
  mapIds: (shot, of) =>
    withFields(shot, {
      planes: list(shot.planes, of, LISTS.planes),
      elements: list(shot.elements, of, LISTS.elements),
      swatches: list(shot.swatches, of, LISTS.swatches),
      guides: list(shot.guides, of, LISTS.guides),
      plates: list(shot.plates, of, LISTS.plates),
    }),
});
