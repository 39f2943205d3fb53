/** The shot itself: its format and what is in it, in order. */
import { z } from 'zod';
import { colour, id, name, uniqueIds, within } from '../fields.ts';
import { type Id } from '../id.ts';
import { camera, type Camera } from '../camera.ts';
import { kindOf, list, maybe, one, withFields, type Pointer } from './kind.ts';

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
  readonly lights: readonly Id[];
  readonly sounds: readonly Id[];
  readonly camera: Camera;
  /** px from which the picture is seen: a plane this far behind the picture is seen half as large. Null is the width of the picture. */
  readonly focal: number | null;
  /** What planes turn towards the farther they are: a swatch, and px of depth at which half of it has come; null for clear air. */
  readonly air: { readonly swatch: Id; readonly reach: number } | null;
}

/** px from which a picture is seen, and of depth at which half of the air has come. */
export const FOCAL_LIMITS = { min: 10, max: 1_000_000 } as const;
export const AIR_LIMITS = { min: 1, max: 1_000_000 } as const;

export const SHOT_LIMITS = {
  size: { min: 16, max: 8192 },
  rate: { min: 1, max: 120 },
  length: { min: 1, max: 10_000 },
} as const;

const holds = (field: string, to: string): Pointer => ({ field, to, bond: 'lists' });
const LISTS = {
  planes: holds('planes', 'plane'),
  elements: holds('elements', 'element'),
  swatches: holds('swatches', 'swatch'),
  guides: holds('guides', 'guide'),
  plates: holds('plates', 'plate'),
  lights: holds('lights', 'light'),
  sounds: holds('sounds', 'sound'),
};
const CAMERA_PATH: Pointer = { field: 'camera.pathId', to: 'path', bond: 'seeks' };
const AIR: Pointer = { field: 'air.swatch', to: 'swatch', bond: 'needs', use: 'air' };

export const shot = kindOf<Shot>({
  kind: 'shot',
  version: 1,
  schema: () =>
    z.strictObject({
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
      lights: uniqueIds.default([]),
      sounds: uniqueIds.default([]),
      camera,
      focal: z.number().min(FOCAL_LIMITS.min).max(FOCAL_LIMITS.max).nullable().default(null),
      air: z
        .strictObject({ swatch: id, reach: z.number().min(AIR_LIMITS.min).max(AIR_LIMITS.max) })
        .nullable()
        .default(null),
    }),
  merge: {
    planes: 'order',
    elements: 'order',
    swatches: 'order',
    guides: 'order',
    plates: 'order',
    lights: 'order',
    sounds: 'order',
    camera: 'fields',
    air: 'value',
  },
  points: ['plane', 'element', 'swatch', 'guide', 'plate', 'light', 'sound', 'path'],
  mapIds: (shot, of) =>
    withFields(shot, {
      camera: withFields(shot.camera, { pathId: maybe(shot.camera.pathId, of, CAMERA_PATH) }),
      air: shot.air && withFields(shot.air, { swatch: one(shot.air.swatch, of, AIR) }),
      planes: list(shot.planes, of, LISTS.planes),
      elements: list(shot.elements, of, LISTS.elements),
      swatches: list(shot.swatches, of, LISTS.swatches),
      guides: list(shot.guides, of, LISTS.guides),
      plates: list(shot.plates, of, LISTS.plates),
      lights: list(shot.lights, of, LISTS.lights),
      sounds: list(shot.sounds, of, LISTS.sounds),
    }),
  mapValues: (shot, change) => ({
    ...shot,
    camera: {
      ...shot.camera,
      x: change(shot.camera.x),
      y: change(shot.camera.y),
      zoom: change(shot.camera.zoom),
      angle: change(shot.camera.angle),
    },
  }),
});
