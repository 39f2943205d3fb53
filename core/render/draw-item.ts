/** What lies in a frame, item by item, and how it is asked for. */
import type { HowLaid } from '../assembly/index.ts';
import type { Resolved } from '../compose/index.ts';
import type { AssetId, Blend, Drawing, Id } from '../document/index.ts';
import type { Box, Matrix, Point, Projection } from '../geometry/index.ts';
import type { Falling } from './lights.ts';

/** A drawing and where it lies. */
export interface Lying {
  readonly drawing: Drawing;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

/** How a layer or an element is seen beyond its opacity and blend. */
export interface ItemLook {
  readonly looks: readonly Resolved[];
  /** From anchor to tip, element space. */
  readonly axis: { readonly from: Point; readonly to: Point };
  /** How far what is drawn goes in one frame, px of element space. */
  readonly motion: Point;
  readonly colourOf: (swatch: Id) => string;
  /** Element space to shot px. */
  readonly matrix: Matrix;
}

/** A matte that hides part of an item, or all but a part. */
export interface Cut extends Lying {
  readonly layerId: Id;
  readonly place: string;
  readonly inverted: boolean;
}

/** An element that is put together first, as it is faded or has looks of its own as a whole. */
export interface Whole {
  readonly place: string;
  readonly opacity: number;
  readonly look: ItemLook | null;
  /** What falls on all of it, in the order it is laid, and how much of the air's colour lies before it. */
  readonly lights?: readonly Falling[];
  readonly air?: { readonly colour: string; readonly share: number } | null;
  /** What it is seen within, or hidden by, lowest first. */
  readonly matte?: { readonly items: readonly DrawItem[]; readonly within: boolean } | null;
}

/** One drawing as it lies in a frame. */
export interface DrawItem extends Lying {
  readonly layerId: Id;
  readonly elementId: Id;
  /** Which use of its element it is of. */
  readonly place: string;
  /** The picture it shows in place of a drawing, of a plate between uses of elements. */
  readonly asset?: AssetId;
  /** How large that picture is, and what its corners make of it; null where it lies flat. */
  readonly lies?: { readonly width: number; readonly height: number; readonly bend: Projection | null };
  /** What that picture takes up, px of its own. */
  readonly room?: Box;
  /** The looks of its layer, if it has any. */
  readonly look: ItemLook | null;
  /** What it is put together in, from the outside in. */
  readonly wholes: readonly Whole[];
  /** What hides it, lowest first. */
  readonly cuts: readonly Cut[];
  readonly opacity: number;
  readonly blend: Blend;
  /** The folder that is put together first, as it is faded or has looks, if it lies in such a one. */
  readonly group: { readonly id: Id; readonly opacity: number; readonly look: ItemLook | null } | null;
  /** The drawing this one shows within only, of the layer it clips to. */
  readonly within: Lying | null;
  /** The swatch in which all of it is seen, or null for each mark's own. */
  readonly tint: Id | null;
  /** The recolouring of its element it is seen in, or null for what the element is seen in. */
  readonly recolour: Id | null;
}

export interface DrawOptions extends HowLaid {
  /** Guides are for working: the picture on the desk has them, what is taken away never has. */
  readonly guides: boolean;
  /** Whether layers that are for work are shown though guides are not. */
  readonly forWork?: boolean;
  /** Shows nothing but this layer, be it hidden or not. */
  readonly alone?: Id | null;
  /** Shows nothing but this element. */
  readonly element?: Id | null;
  /** Shows nothing but this use of an element, with what lies in it. */
  readonly place?: string | null;
  /** Shows nothing but this plane. */
  readonly plane?: Id | null;
  /** Shows plates that are for working though layers that are guides are not. */
  readonly guidePlates?: boolean;
  /** Dims all but this use, with what lies in it. */
  readonly dimPlaceBut?: string | null;
  /** Layers left out. */
  readonly without?: readonly Id[];
  /** Dims every layer but this one. */
  readonly dimBut?: Id | null;
  /** A kept variant shown in place of what its layers show now. */
  readonly variant?: Id | null;
  /** Looks: all of them unless said otherwise; for drawing under the pen those that move no outline; or none. */
  readonly looks?: 'all' | 'for drawing' | 'none';
  /**
   * The layer under the pen. A matte is seen itself then; and where nothing is drawn on the layer yet it has an empty
   * drawing, so that what clips to it is in the list and shows as the stroke grows.
   */
  readonly penOn?: Id | null;
}

/** What dimming leaves of the other layers' opacity. */
export const DIMMED = 0.22;
