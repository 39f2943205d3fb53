/** One use of an element: on a plane or inside another element, in time and space. */
import { z } from 'zod';
import { cut, type CutBy } from '../cut.ts';
import { frames, id, name, place, fraction, spot, uniqueIds, within } from '../fields.ts';
import { type Id } from '../id.ts';
import { finishes, lookIds, lookValues } from '../look-check.ts';
import { type AppliedLook } from '../look-types.ts';
import { shiftAtHome, shiftValues, type Shift } from '../shift.ts';
import { value } from '../value-check.ts';
import { type Value } from '../value.ts';
import { kindOf, list, maybe, OF_ELEMENT, one, withFields, type Pointer } from './kind.ts';

/** What is seen of an element before its use begins and after it ends. */
export const OUTSIDES = ['nothing', 'first', 'last'] as const;
export type Outside = (typeof OUTSIDES)[number];

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** How an element lies on a tilted plane: where the corners of a box lie on it, from the top left clockwise. Element space, px. */
export interface Corners {
  readonly box: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };
  readonly at: readonly [Spot, Spot, Spot, Spot];
}

/** A followed point of another element that is ridden on, by the use of it that is meant; null is its first. */
export interface Seat {
  readonly onElementId: Id;
  readonly onUseId: Id | null;
  readonly traceId: Id;
  readonly turnId: Id | null;
}

/** One use of an element. */
export interface Placement {
  readonly kind: 'placement';
  readonly id: Id;
  readonly elementId: Id;
  /** The element in whose list it lies; null on a plane. */
  readonly holderId: Id | null;
  /** Null is that of its element. */
  readonly name: string | null;
  /** Layers of the element that are seen; null is all of them. */
  readonly layers: readonly Id[] | null;
  readonly visible: boolean;
  readonly locked: boolean;
  /** Frame of the shot, or of the element it lies in, on which it begins. */
  readonly start: number;
  /** Turns of a cycle, or null for as many as there is room for. */
  readonly repeats: number | null;
  /** Frames it is seen for at most, or null for all there are. */
  readonly lasts: number | null;
  readonly before: Outside;
  readonly after: Outside;
  /** The element frame it begins with. */
  readonly phase: number;
  /** So many frames of the element to so many of the shot. */
  readonly speed: { readonly over: number; readonly of: number };
  /** Where the element's origin stands, px. */
  readonly x: number;
  readonly y: number;
  /** Where it is put beside that, over the frames since its start: scaled and turned about its anchor. */
  readonly shift: Shift;
  readonly mirror: boolean;
  /** Leaning over sideways, radians. */
  readonly skew: number;
  /** px it goes farther on each turn. */
  readonly drift: Spot;
  /** What it is turned and scaled about, element space; null is the element's own. */
  readonly anchor: Spot | null;
  readonly corners: Corners | null;
  /** A path its anchor goes along, tick by tick, and whether it turns with it. */
  readonly way: { readonly pathId: Id; readonly turned: boolean } | null;
  /** A followed point of another element that it goes with, and one that turns it. */
  readonly seat: Seat | null;
  readonly opacity: Value;
  /** The swatch in which all of it is seen, or null for its own. */
  readonly tint: Id | null;
  /** The recolouring of its element it is seen in, or null for what the element is seen in. */
  readonly recolour: Id | null;
  /** How it is seen as a whole, beside the looks of its element. */
  readonly finishes: readonly AppliedLook[];
  /** Another thing of the shot that it is seen within, or hidden by; null for none. */
  readonly cut: CutBy | null;
  /** The scattering that made it, if one did. */
  readonly scatterId: Id | null;
}

const HOLDER: Pointer = { field: 'holderId', to: 'element', bond: 'follows' };
const LAYERS: Pointer = { field: 'layers', to: 'layer', bond: 'lists' };
const TINT: Pointer = { field: 'tint', to: 'swatch', bond: 'needs', use: 'tint' };
const WAY: Pointer = { field: 'way.pathId', to: 'path', bond: 'seeks' };
const SEAT: Pointer = { field: 'seat.onElementId', to: 'element', bond: 'seeks' };
const SEAT_USE: Pointer = { field: 'seat.onUseId', to: 'placement', bond: 'seeks' };
const CUT: Pointer = { field: 'cut.by', to: 'placement', bond: 'seeks' };
const SCATTER: Pointer = { field: 'scatterId', to: 'scatter', bond: 'seeks' };

const corners = () =>
  z.strictObject({
    box: z
      .strictObject({ left: place, top: place, right: place, bottom: place })
      .refine(({ left, top, right, bottom }) => right > left && bottom > top, 'must be a box that holds something'),
    at: z.tuple([spot, spot, spot, spot]),
  });

export const SPEED_LIMITS = { min: 1, max: 100 } as const;
const speedPart = () => within(SPEED_LIMITS, 'frames');
const outside = () => z.enum(OUTSIDES).default('nothing');

/** What a placement is unless it is said otherwise. */
export const AS_DRAWN = {
  holderId: null,
  name: null,
  layers: null,
  visible: true,
  locked: false,
  lasts: null,
  before: 'nothing',
  after: 'nothing',
  phase: 0,
  speed: { over: 1, of: 1 },
  shift: { x: { constant: 0 }, y: { constant: 0 }, scale: { constant: 1 }, angle: { constant: 0 } },
  mirror: false,
  skew: 0,
  drift: { x: 0, y: 0 },
  anchor: null,
  corners: null,
  way: null,
  seat: null,
  opacity: { constant: 1 },
  tint: null,
  recolour: null,
  finishes: [],
  cut: null,
  scatterId: null,
} as const satisfies Partial<Placement>;

export const placement = kindOf<Placement>({
  kind: 'placement',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('placement'),
      id,
      elementId: id,
      holderId: id.nullable().default(null),
      name: name.nullable().default(null),
      layers: uniqueIds.nullable().default(null),
      visible: z.boolean().default(true),
      locked: z.boolean().default(false),
      start: z.int('must be a whole number of frames').min(-100_000).max(100_000),
      repeats: frames(1).nullable(),
      lasts: frames(1).nullable().default(null),
      before: outside(),
      after: outside(),
      phase: frames(0).default(0),
      speed: z.strictObject({ over: speedPart(), of: speedPart() }).default({ over: 1, of: 1 }),
      x: place,
      y: place,
      shift: shiftAtHome,
      mirror: z.boolean().default(false),
      skew: z.number().min(-1.5).max(1.5).default(0),
      drift: spot.default({ x: 0, y: 0 }),
      anchor: spot.nullable().default(null),
      corners: corners().nullable().default(null),
      way: z.strictObject({ pathId: id, turned: z.boolean() }).nullable().default(null),
      seat: z
        .strictObject({ onElementId: id, onUseId: id.nullable().default(null), traceId: id, turnId: id.nullable() })
        .nullable()
        .default(null),
      opacity: value(fraction).default({ constant: 1 }),
      tint: id.nullable().default(null),
      recolour: id.nullable().default(null),
      finishes: finishes.default([]),
      cut,
      scatterId: id.nullable().default(null),
    }),
  merge: {
    layers: 'value',
    speed: 'value',
    shift: 'fields',
    drift: 'value',
    anchor: 'value',
    corners: 'value',
    way: 'value',
    seat: 'value',
    opacity: 'value',
    finishes: 'things',
    cut: 'value',
  },
  points: ['element', 'layer', 'path', 'swatch', 'placement', 'scatter'],
  mapIds: (placement, of) => {
    const { way, seat, cut: by } = placement;
    return withFields(placement, {
      elementId: one(placement.elementId, of, OF_ELEMENT),
      holderId: maybe(placement.holderId, of, HOLDER),
      layers: placement.layers && list(placement.layers, of, LAYERS),
      way: way && withFields(way, { pathId: one(way.pathId, of, WAY) }),
      seat:
        seat &&
        withFields(seat, {
          onElementId: one(seat.onElementId, of, SEAT),
          onUseId: maybe(seat.onUseId, of, SEAT_USE),
        }),
      tint: maybe(placement.tint, of, TINT),
      finishes: lookIds(placement.finishes, of),
      cut: by && withFields(by, { by: one(by.by, of, CUT) }),
      scatterId: maybe(placement.scatterId, of, SCATTER),
    });
  },
  mapValues: (placement, change) => ({
    ...placement,
    shift: shiftValues(placement.shift, change),
    opacity: change(placement.opacity),
    finishes: lookValues(placement.finishes, change),
  }),
});
