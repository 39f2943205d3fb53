/** What the painter is asked for, and what it hands over. */
import type { Blend, Entity, Id, Mark } from '@tallow/core/document';
import type { Box, Matrix } from '@tallow/core/geometry';
import type { DrawOptions } from '@tallow/core/render';

/** A drawing shown as a ghost. */
export interface Ghost {
  readonly drawingId: Id;
  readonly colour: string;
  readonly broken: boolean;
  /** 0 to 1. */
  readonly strength: number;
  /** How filled drawings are shown. */
  readonly look: 'outline' | 'full';
  /** Only the marks of this piece, or null for all. */
  readonly piece: string | null;
  /** Where it is seen in place of where its drawing is, element space to element space. */
  readonly shift: Matrix | null;
  /** The frame of the shot on which it is seen where the thing stood then, or null where it rides on the thing. */
  readonly stood: number | null;
}

export interface PaintRequest {
  readonly width: number;
  readonly height: number;
  /** Shot px to device pixels. */
  readonly view: Matrix;
  readonly shotFrame: number;
  readonly activeLayerId: Id | null;
  /** The use of an element that is drawn on. */
  readonly place: string | null;
  readonly ghosts: readonly Ghost[];
  /** Device pixels per CSS pixel. */
  readonly pixel: number;
  readonly options: DrawOptions;
  /** While something moves, looks are worked out coarser. */
  readonly rough: boolean;
  /** A colour in place of the background. */
  readonly backdrop: string | null;
}

/** Some marks shown apart from the rest. */
export interface FloatRequest {
  readonly width: number;
  readonly height: number;
  /** Shot px to device pixels. */
  readonly view: Matrix;
  readonly shotFrame: number;
  readonly layerId: Id;
  /** The use of its element that is worked on. */
  readonly place: string | null;
  /** Other layers that have some of the marks; with any, both pictures are of the whole frame. */
  readonly others: readonly Id[];
  readonly markIds: readonly Id[];
  readonly options: DrawOptions;
  readonly backdrop: string | null;
}

/** A layer's drawing with some of its marks as they would be. */
export interface ReshapeRequest {
  readonly width: number;
  readonly height: number;
  /** Shot px to device pixels. */
  readonly view: Matrix;
  readonly shotFrame: number;
  readonly layerId: Id;
  /** The use of its element that is worked on. */
  readonly place: string | null;
  readonly drawingId: Id;
  readonly marks: readonly Mark[];
}

/** A picture laid over others with its layer's blend. */
export interface Laid {
  readonly bitmap: ImageBitmap;
  readonly blend: Blend;
  readonly opacity: number;
}

/** A picture that clips to the active layer, or the light that its own looks lay on it. */
export interface Clipped extends Laid {
  /** Whether it shows only where the active layer and the stroke are; light goes beyond. */
  readonly isCut: boolean;
}

/** The picture in bitmaps that the stroke under the pen fits between. */
export interface DeskPicture {
  readonly below: ImageBitmap;
  /** The active layer's drawing, without its opacity and blend. */
  readonly active: ImageBitmap;
  /** The light of the active layer's own looks: it lies on that layer and under what clips to it. */
  readonly lights: readonly Laid[];
  /** What lies right above and clips to the active layer, lowest first, not cut yet. */
  readonly clipped: readonly Clipped[];
  /** What the active layer's drawing cuts these by, where its looks show it in another shape; null is as it is shown. */
  readonly base: ImageBitmap | null;
  /** What lies above, lowest first, with the ghosts on top. */
  readonly above: readonly Laid[];
  /** Where the active layer shows: in what it clips to, and where no matte hides it. Null is everywhere. */
  readonly mask: ImageBitmap | null;
  /** What lies in the active layer's faded folder, below and above it. */
  readonly folder: { readonly below: ImageBitmap; readonly above: readonly Laid[]; readonly opacity: number } | null;
}

/** Every bitmap of a painted picture, for handing over and for closing. */
export function bitmapsOf({ below, active, lights, above, clipped, base, folder, mask }: DeskPicture): ImageBitmap[] {
  return [
    below,
    active,
    ...(mask ? [mask] : []),
    ...(base ? [base] : []),
    ...[...lights, ...clipped, ...above].map((laid) => laid.bitmap),
    ...(folder ? [folder.below, ...folder.above.map((laid) => laid.bitmap)] : []),
  ];
}

/** An entity that changed, or a drawing that was asked for. */
export interface Updated {
  readonly id: Id;
  /** Null for deleted; `later` for a drawing that is not sent until it is asked for, or that the page does not have yet. */
  readonly entity: Entity | 'later' | null;
  /** A drawing that is the one sent before with marks added on top. */
  readonly grew: boolean;
  /** Whether it was asked for, and is as it was. */
  readonly asked?: boolean;
}

/** What a painter asks the page for. */
export interface Wanted {
  readonly wanted: readonly Id[];
  /** Only when nothing else is to do. */
  readonly low: boolean;
}

export interface MiniatureRequest {
  /** Drawings lowest first, with their opacity and where their layer is put. */
  readonly items: readonly { readonly drawingId: Id; readonly opacity: number; readonly shift?: Matrix }[];
  /** The part of element space that is shown. */
  readonly box: Box;
  readonly width: number;
  readonly height: number;
}
