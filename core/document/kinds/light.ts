/** A light: it shines from a plane or from a use of an element, and falls on what lies round it. */
import { z } from 'zod';
import { frames, id, name, place, fraction, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { value } from '../value-check.ts';
import { type Value } from '../value.ts';
import { kindOf, list, maybe, one, withFields, type Pointer } from './kind.ts';

/** What a light falls on. */
export interface LitThings {
  readonly planes: readonly Id[];
  readonly placements: readonly Id[];
  readonly plates: readonly Id[];
}

export interface Light {
  readonly kind: 'light';
  readonly id: Id;
  readonly name: string;
  /** The use it shines from; null for a light that stands on its plane. */
  readonly sourceId: Id | null;
  /** The plane it stands on; null for one that shines from a use, which is on that one's plane. */
  readonly planeId: Id | null;
  /** What of a use it follows: its anchor, or the middle of what is drawn. */
  readonly at: 'anchor' | 'middle';
  /** px off what it follows; of one that stands on a plane, px of the plane. Over the frames of its use's element, or of the shot. */
  readonly x: Value;
  readonly y: Value;
  /** Its colour. */
  readonly swatch: Id;
  /** px of its plane from its middle to where it has died away. */
  readonly radius: Value;
  /** 1 is its colour in full. */
  readonly strength: Value;
  /** How it dies away towards its rim: 1 evenly, more the sooner. */
  readonly dies: number;
  /** How much of its strength goes by what is drawn: area times brightness, 0 to 1. */
  readonly follows: number;
  /** Frames to each side that this is smoothed over. */
  readonly smooth: number;
  /** px of depth at which half of it is left. */
  readonly reach: number;
  /** How much brighter the side towards it is, 0 to 1. */
  readonly side: number;
  readonly blend: 'screen' | 'add';
  /** Chosen things, or null for all but what it shines from. */
  readonly fallsOn: LitThings | null;
  readonly visible: boolean;
}

export const LIGHT_LIMITS = {
  radius: { min: 1, max: 100_000 },
  strength: { min: 0, max: 4 },
  dies: { min: 1, max: 6 },
  smooth: { min: 0, max: 48 },
  reach: { min: 1, max: 1_000_000 },
} as const;

const SOURCE: Pointer = { field: 'sourceId', to: 'placement', bond: 'follows' };
const PLANE: Pointer = { field: 'planeId', to: 'plane', bond: 'follows' };
const COLOUR: Pointer = { field: 'swatch', to: 'swatch', bond: 'needs', use: 'light' };
const falls = (field: keyof LitThings, to: string): Pointer => ({ field: `fallsOn.${field}`, to, bond: 'lists' });
const FALLS = {
  planes: falls('planes', 'plane'),
  placements: falls('placements', 'placement'),
  plates: falls('plates', 'plate'),
};

const from = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);

export const light = kindOf<Light>({
  kind: 'light',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('light'),
      id,
      name,
      sourceId: id.nullable(),
      planeId: id.nullable(),
      at: z.enum(['anchor', 'middle']),
      x: value(place),
      y: value(place),
      swatch: id,
      radius: value(from(LIGHT_LIMITS.radius)),
      strength: value(from(LIGHT_LIMITS.strength)),
      dies: from(LIGHT_LIMITS.dies),
      follows: fraction,
      smooth: frames(0),
      reach: from(LIGHT_LIMITS.reach),
      side: fraction,
      blend: z.enum(['screen', 'add']),
      fallsOn: z.strictObject({ planes: uniqueIds, placements: uniqueIds, plates: uniqueIds }).nullable(),
      visible: z.boolean(),
    }),
  merge: { x: 'value', y: 'value', radius: 'value', strength: 'value', fallsOn: 'value' },
  points: ['placement', 'plane', 'plate', 'swatch'],
  mapIds: (light, of) =>
    withFields(light, {
      sourceId: maybe(light.sourceId, of, SOURCE),
      planeId: maybe(light.planeId, of, PLANE),
      swatch: one(light.swatch, of, COLOUR),
      fallsOn:
        light.fallsOn &&
        withFields(light.fallsOn, {
          planes: list(light.fallsOn.planes, of, FALLS.planes),
          placements: list(light.fallsOn.placements, of, FALLS.placements),
          plates: list(light.fallsOn.plates, of, FALLS.plates),
        }),
    }),
  mapValues: (light, change) => ({
    ...light,
    x: change(light.x),
    y: change(light.y),
    radius: change(light.radius),
    strength: change(light.strength),
  }),
});
