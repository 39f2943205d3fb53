/**
 * The words of colour and looks: gradients, recolouring, and looks, which change how a layer or an
 * element is seen and never what was drawn.
 */
import type { LookKind } from '../looks/index.ts';

export type { LookKind };
import type { Id } from './id.ts';
import type { Value } from './value.ts';

export const GRADIENT_FORMS = ['linear', 'radial'] as const;
/** What a gradient runs in: the bounds of its own shape, from the element's anchor to its tip, or the whole picture. */
export const GRADIENT_RUNS = ['shape', 'axis', 'picture'] as const;

/** A place of a gradient, 0 to 1 on its way, that has the colour of another swatch. */
interface GradientStop {
  readonly at: number;
  readonly swatch: Id;
}

/**
 * Colours of other swatches running into each other. Its ends are in the unit square of what it runs in,
 * y down; along an axis y goes from 0 at the anchor to 1 at the tip.
 */
export interface Gradient {
  readonly form: (typeof GRADIENT_FORMS)[number];
  readonly run: (typeof GRADIENT_RUNS)[number];
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
  /** In rising order, two at least. */
  readonly stops: readonly GradientStop[];
}

/** An element seen in other swatches than it was drawn with. */
export interface Recolour {
  readonly id: Id;
  readonly name: string;
  /** The swatch seen in place of each. */
  readonly map: Readonly<Record<Id, Id>>;
}

/** A look of a layer or an element, worked out anew from what is drawn; numbers may change over time. */
export interface AppliedLook {
  readonly id: Id;
  readonly kind: LookKind;
  readonly on: boolean;
  /** By the keys of the kind's fields. */
  readonly numbers: Readonly<Record<string, Value>>;
  /** By the keys of the kind's choices. */
  readonly choices: Readonly<Record<string, string>>;
  /** A colour of its own, or null for the colours of what it lies on. */
  readonly swatch: Id | null;
  readonly seed: number;
}

/** Something with looks: a layer or an element. In stored bodies they have stood as `finishes` from the first. */
export type WithLooks = { readonly finishes: readonly AppliedLook[] };
