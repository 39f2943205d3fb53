/** What items are drawn with, and what comes of one: pictures with their places. */
import type { MakeSurface, Picture } from '../canvas/index.ts';
import type { Blend } from '../document/index.ts';
import type { Matrix } from '../geometry/index.ts';
import type { Part } from '../looks/index.ts';
import type { DrawItem } from './draw-item.ts';
import type { AssetPicture } from './plates.ts';

/** A picture and the device pixel where its first one lies. */
export interface Placed {
  readonly picture: Picture;
  readonly left: number;
  readonly top: number;
  /** What it is mapped by from there, of a picture that is not as it is seen. */
  readonly rest?: Matrix;
}

/**
 * Gives the plain picture of an item's drawing at a view, of what of it lies on a surface of the given size. A cache may stand
 * behind it.
 */
export type PictureOf = (item: DrawItem, matrix: Matrix, width: number, height: number) => Placed;

/** A picture to be laid, and how it meets what is there. */
export interface ShownPart extends Placed {
  readonly blend: Blend;
  readonly opacity: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Parts that looks came to, with the place of their first pixel. */
export type PlacedPart = Part & Pick<ShownPart, 'left' | 'top'>;

/** What items are drawn with. */
export interface RenderContext {
  readonly pictureOf: PictureOf;
  /** Surfaces for what is worked out on the way; they may be used again once a frame is laid. */
  readonly make: MakeSurface;
  /** Keeps what looks come to, by everything they were worked out from; without it they are worked out each time. */
  readonly kept?: (item: DrawItem, key: string, make: () => readonly PlacedPart[]) => readonly PlacedPart[];
  /** Does a piece of work at whose end surfaces it made may be used again. */
  readonly during?: <T>(work: () => T) => T;
  /** While something moves, looks are worked out coarser. */
  readonly rough?: boolean;
  /** While something is moved and the shot plays, pictures of drawings and of their looks are of the nearest of few scales, and laid. */
  readonly near?: boolean;
  /** Pictures of plates that lie between uses of elements. */
  readonly assets?: AssetPicture;
}
