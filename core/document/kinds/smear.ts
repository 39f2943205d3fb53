/** A fast move drawn by computation: what is smeared, from which drawing to which, and how. */
import { z } from 'zod';
import { encodeColumn } from '../columns.ts';
import { column, FAR, frames, id, place, fingerprint, uniqueIds } from '../fields.ts';
import { type Id } from '../id.ts';
import { seed } from '../mark-check.ts';
import { POSES, type Pose } from './runlist.ts';
import { entries, kindOf, list, maybe, OF_ELEMENT, one, withFields, type Pointer } from './kind.ts';

/** Drawn out, swept by tip and root, left behind, several at once, speed lines. */
const SMEAR_FORMS = ['stretch', 'swath', 'trail', 'copies', 'lines'] as const;

export type SmearForm = (typeof SMEAR_FORMS)[number];

/** Which way the subject goes: as its drawings tell, straight, along a path of the plan, or along a line drawn for it. */
const SMEAR_WAYS = ['as drawn', 'straight', 'path', 'line'] as const;

export type SmearWay = (typeof SMEAR_WAYS)[number];

/** Where its frame comes from: the hold before, the drawing before (which it replaces), a frame more, or none, as it lies behind. */
const SMEAR_TIMES = ['hold', 'replace', 'longer', 'behind'] as const;

export type SmearTime = (typeof SMEAR_TIMES)[number];

/** How far a subject may be stretched, of what its speed asks for. */
export const REACHES = ['stiff', 'some', 'far'] as const;

export type SmearReach = (typeof REACHES)[number];

/** How a subject is smeared unless said otherwise. */
export interface Smearing {
  readonly reach: SmearReach;
  readonly form: SmearForm | null;
}

/** A drawing whose place a smear has taken, so that it comes back when the smear goes. */
export interface Replaced {
  readonly slot: Id;
  /** What each layer showed in it. */
  readonly drawings: Readonly<Record<Id, Id>>;
  /** What it was in the timing, and its number on the sheet, where it had one. */
  readonly pose?: Pose;
  readonly number?: number;
}

export interface Smear {
  readonly kind: 'smear';
  readonly id: Id;
  readonly elementId: Id;
  /** The layer it was laid from, and all layers of the subject, that one among them. */
  readonly layerId: Id;
  readonly layers: readonly Id[];
  readonly form: SmearForm;
  /** Slots of the drawings from the earliest that counts to the one that arrives; that alone where it comes from nowhere but its line. */
  readonly stops: readonly Id[];
  /** The name of the piece that is smeared, or the marks of the arriving drawing that are; all that moved where neither is said. */
  readonly piece: string | null;
  readonly marks: readonly Id[];
  /** Marks that keep their form. */
  readonly rigid: readonly Id[];
  readonly way: SmearWay;
  readonly pathId: Id | null;
  /** The line it goes along, as `x y` pairs. */
  readonly line: Float32Array | null;
  /** Radians by which its way bends aside. */
  readonly bend: number;
  /** A guide that stops it, or a mark that does. */
  readonly guideId: Id | null;
  readonly stopMarkId: Id | null;
  /** Numbers by name, each within the range its form states. */
  readonly settings: Readonly<Record<string, number>>;
  readonly seed: number;
  readonly time: SmearTime;
  /** Laid to be traced: on a layer of its own that is for work. */
  readonly asGuide: boolean;
  /** The slot that was made for it, or null. */
  readonly slot: Id | null;
  /** The drawing that its frame took the place of, if it did. */
  readonly replaced?: Replaced;
  /** The layer behind the subject that it lies on, or null. */
  readonly behindId: Id | null;
  /** Fingerprints of laid drawings, by layer and slot. */
  readonly laid: Readonly<Record<Id, Readonly<Record<Id, string>>>>;
  /** Fingerprint of all it was laid from. */
  readonly hangsOn: string;
}

const LAYER: Pointer = { field: 'layerId', to: 'layer', bond: 'follows' };
const LAYERS: Pointer = { field: 'layers', to: 'layer', bond: 'seeks' };
const PATH: Pointer = { field: 'pathId', to: 'path', bond: 'seeks' };
const GUIDE: Pointer = { field: 'guideId', to: 'guide', bond: 'seeks' };
const BEHIND: Pointer = { field: 'behindId', to: 'layer', bond: 'seeks' };
const IN_PLACE_OF: Pointer = { field: 'replaced.drawings', to: 'layer', bond: 'seeks' };
const REPLACED: Pointer = { field: 'replaced.drawings', to: 'drawing', bond: 'seeks', keeps: true };
const LAID: Pointer = { field: 'laid', to: 'layer', bond: 'seeks' };

/** How subjects are smeared, by the name of the piece; the element as a whole under ''. */
export const smearings = z.lazy(() =>
  z.record(z.string().max(200), z.strictObject({ reach: z.enum(REACHES), form: z.enum(SMEAR_FORMS).nullable() })),
);

export const smear = kindOf<Smear>({
  kind: 'smear',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('smear'),
      id,
      elementId: id,
      layerId: id,
      layers: uniqueIds,
      form: z.enum(SMEAR_FORMS),
      stops: uniqueIds.min(1, 'must name a slot').max(64),
      piece: z.string().min(1).max(200).nullable(),
      marks: uniqueIds,
      rigid: uniqueIds,
      way: z.enum(SMEAR_WAYS),
      pathId: id.nullable(),
      line: column
        .refine((l) => l.length >= 4 && l.length % 2 === 0 && l.length <= 4000, 'must hold 2 to 2000 points')
        .refine((l) => l.every((v) => Math.abs(v) <= FAR), `must lie within ${FAR} px`)
        .nullable(),
      bend: z.number().min(-3).max(3),
      guideId: id.nullable(),
      stopMarkId: id.nullable(),
      settings: z.record(z.string().regex(/^[a-z][a-zA-Z0-9]{0,31}$/, 'must be a short plain name'), place),
      seed,
      time: z.enum(SMEAR_TIMES),
      asGuide: z.boolean(),
      slot: id.nullable(),
      replaced: z
        .strictObject({
          slot: id,
          drawings: z.record(id, id),
          pose: z.enum(POSES).optional(),
          number: frames(1).optional(),
        })
        .optional(),
      behindId: id.nullable(),
      laid: z.record(id, z.record(id, fingerprint)),
      hangsOn: fingerprint,
    }),
  merge: {
    layers: 'order',
    stops: 'value',
    marks: 'order',
    rigid: 'order',
    settings: 'fields',
    replaced: 'value',
    laid: 'value',
  },
  points: ['element', 'layer', 'path', 'guide', 'drawing'],
  mapIds: (smear, of) =>
    withFields(smear, {
      elementId: one(smear.elementId, of, OF_ELEMENT),
      layerId: one(smear.layerId, of, LAYER),
      layers: list(smear.layers, of, LAYERS),
      pathId: maybe(smear.pathId, of, PATH),
      guideId: maybe(smear.guideId, of, GUIDE),
      behindId: maybe(smear.behindId, of, BEHIND),
      ...(smear.replaced
        ? {
            replaced: withFields(smear.replaced, {
              drawings: entries(smear.replaced.drawings, (layerId, drawingId) => {
                const [layer, drawing] = [of(layerId, IN_PLACE_OF), of(drawingId, REPLACED)];
                return layer === null || drawing === null ? null : [layer, drawing];
              }),
            }),
          }
        : {}),
      laid: entries(smear.laid, (layerId, prints) => {
        const next = of(layerId, LAID);
        return next === null ? null : [next, prints];
      }),
    }),
  encode: (smear) => ({ ...smear, line: smear.line && encodeColumn(smear.line) }),
});
