/** A plate: pictures from outside that a shot is drawn over. */
import { z } from 'zod';
import { cut, type CutBy } from '../cut.ts';
import { asset, FAR, frames, id, name, fraction, spot } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, one, withFields, type Pointer } from './kind.ts';

/** A picture's content, by the SHA-256 of its bytes in lower-case hex. The server keeps each once. */
export type AssetId = string;

/** Frames at most in one sequence. */
export const PLATE_FRAMES = 2000;

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** A still picture, or one for each frame, held behind everything or beside the picture. */
export interface Plate {
  readonly kind: 'plate';
  readonly id: Id;
  readonly name: string;
  /** One for a still, else one per frame at the shot's rate. */
  readonly assets: readonly AssetId[];
  /** Size of its picture, px. */
  readonly width: number;
  readonly height: number;
  /** Where its middle lies, shot px. */
  readonly x: number;
  readonly y: number;
  /** 1 is a px of the picture on a px of the shot. */
  readonly scale: number;
  /** Radians, clockwise. */
  readonly angle: number;
  /** Where the corners of its picture lie on a tilted plane, px of it, from the top left clockwise; null where it lies flat. */
  readonly corners: readonly [Spot, Spot, Spot, Spot] | null;
  /** 0 to 1. */
  readonly opacity: number;
  /** Guides are for working and are never taken away; other plates are part of the picture. */
  readonly guide: boolean;
  /** A target picture stands beside the picture instead of under it, and is a guide. */
  readonly beside: boolean;
  readonly visible: boolean;
  readonly locked: boolean;
  /** Another thing of the shot that it is seen within, or hidden by; null for none. */
  readonly cut: CutBy | null;
  /** Frames of the shot on which it is seen; null is throughout. A sequence begins with the first of them. */
  readonly span: { readonly from: number; readonly length: number } | null;
}

const CUT: Pointer = { field: 'cut.by', to: 'placement', bond: 'seeks' };

export const plate = kindOf<Plate>({
  kind: 'plate',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('plate'),
      id,
      name,
      assets: z.array(asset).min(1).max(PLATE_FRAMES),
      width: z.int().min(1).max(100_000),
      height: z.int().min(1).max(100_000),
      x: z.number().min(-FAR).max(FAR),
      y: z.number().min(-FAR).max(FAR),
      scale: z.number().min(0.0001).max(1000),
      angle: z.number().min(-1000).max(1000),
      corners: z.tuple([spot, spot, spot, spot]).nullable().default(null),
      opacity: fraction,
      guide: z.boolean(),
      beside: z.boolean(),
      visible: z.boolean(),
      locked: z.boolean(),
      cut,
      span: z.strictObject({ from: frames(0), length: frames(1) }).nullable(),
    }),
  merge: { assets: 'value', corners: 'value', span: 'value', cut: 'value' },
  points: ['placement'],
  assets: ({ assets }) => assets,
  mapIds: (plate, of) =>
    withFields(plate, { cut: plate.cut && withFields(plate.cut, { by: one(plate.cut.by, of, CUT) }) }),
});
