/**
 * The words of colour and looks: gradients, recolouring, and finishes, which change how a layer or an
 * element is seen and never what was drawn.
 */
import type { Id } from './id.ts';
import type { Value } from './value.ts';

export const GRADIENT_FORMS = ['linear', 'radial'] as const;
/** What a gradient runs in: the bounds of its own shape, from the element's anchor to its tip, or the whole picture. */
export const GRADIENT_RUNS = ['shape', 'axis', 'picture'] as const;

/** A place of a gradient, 0 to 1 on its way, that has the colour of another swatch. */
export interface GradientStop {
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

export const FINISH_KINDS = [
  'glow',
  'tint',
  'blur',
  'waver',
  'fade',
  'feather',
  'inner glow',
  'texture',
  'line colour',
] as const;
export type FinishKind = (typeof FINISH_KINDS)[number];

/** A look of a layer or an element, worked out anew from what is drawn; numbers may change over time. */
export interface Finish {
  readonly id: Id;
  readonly kind: FinishKind;
  readonly on: boolean;
  /** By the keys of the kind's fields. */
  readonly numbers: Readonly<Record<string, Value>>;
  /** By the keys of the kind's choices. */
  readonly choices: Readonly<Record<string, string>>;
  /** A colour of its own, or null for the colours of what it lies on. */
  readonly swatch: Id | null;
  readonly seed: number;
}

export interface FinishField {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly usual: number;
  readonly step?: number;
}
export interface FinishChoice {
  readonly key: string;
  readonly label: string;
  readonly options: readonly string[];
}
export interface FinishWords {
  readonly name: string;
  /** What it does, in a few words. */
  readonly does: string;
  readonly fields: readonly FinishField[];
  readonly choices: readonly FinishChoice[];
  /** Whether it has a colour of its own, may have one, or has none. */
  readonly colour: 'own' | 'may' | 'none';
}

const percent = (key: string, label: string, usual: number, most = 100, least = 0): FinishField => ({
  key,
  label,
  unit: '%',
  least,
  most,
  usual,
});
const px = (key: string, label: string, usual: number, most: number, least = 0): FinishField => ({
  key,
  label,
  unit: 'px',
  least,
  most,
  usual,
});

/** What can be set of each kind of finish, with ranges; per cent are 0 to 100 here and in documents. */
export const FINISHES: Readonly<Record<FinishKind, FinishWords>> = {
  glow: {
    name: 'Glow',
    does: 'light around it',
    colour: 'may',
    fields: [
      px('radius', 'Radius', 36, 400, 1),
      percent('strength', 'Strength', 70, 300),
      { key: 'radii', label: 'Radii added', unit: '', least: 1, most: 4, usual: 2 },
      percent('bright', 'From brightness', 0, 95),
    ],
    choices: [{ key: 'blend', label: 'Blend', options: ['lighter', 'screen', 'color-dodge', 'normal'] }],
  },
  tint: {
    name: 'Tint',
    does: 'takes on a colour',
    colour: 'own',
    fields: [percent('strength', 'Strength', 50)],
    choices: [],
  },
  blur: {
    name: 'Blur',
    does: 'even, or along the motion',
    colour: 'none',
    fields: [
      px('radius', 'Radius', 8, 300),
      { key: 'angle', label: 'Angle', unit: '°', least: -3600, most: 3600, usual: 0 },
    ],
    choices: [{ key: 'along', label: 'Along', options: ['even', 'angle', 'motion'] }],
  },
  waver: {
    name: 'Waver',
    does: 'noise moves the outlines, round the cycle',
    colour: 'none',
    fields: [
      px('amount', 'Amount', 6, 120),
      px('scale', 'Scale', 120, 1200, 8),
      { key: 'churn', label: 'Churn', unit: '×', least: 0, most: 12, usual: 1 },
    ],
    choices: [],
  },
  fade: {
    name: 'Fade',
    does: 'see-through along the axis',
    colour: 'none',
    fields: [percent('from', 'Gone at', 0, 150, -50), percent('to', 'Whole at', 35, 150, -50)],
    choices: [],
  },
  feather: {
    name: 'Feather',
    does: 'a soft edge, inwards',
    colour: 'none',
    fields: [px('radius', 'Width', 16, 300, 1)],
    choices: [],
  },
  'inner glow': {
    name: 'Inner glow',
    does: 'colour from the edge or the base',
    colour: 'own',
    fields: [
      px('radius', 'Width', 30, 400, 1),
      percent('strength', 'Strength', 70),
      percent('reach', 'Reach from base', 40, 150, 5),
    ],
    choices: [{ key: 'where', label: 'From', options: ['edge', 'base'] }],
  },
  texture: {
    name: 'Texture',
    does: 'inside only, seeded',
    colour: 'own',
    fields: [
      percent('strength', 'Strength', 35),
      px('scale', 'Scale', 14, 300, 2),
      { key: 'every', label: 'New every', unit: 'f', least: 1, most: 48, usual: 2 },
      { key: 'angle', label: 'Angle', unit: '°', least: -3600, most: 3600, usual: 45 },
    ],
    choices: [
      { key: 'form', label: 'Form', options: ['grain', 'smoke', 'spatter', 'hatching'] },
      { key: 'moves', label: 'It', options: ['holds still', 'boils', 'drifts'] },
    ],
  },
  'line colour': {
    name: 'Line colour',
    does: 'lines take the colour of the fill beside them, darker',
    colour: 'none',
    fields: [percent('darker', 'Darker', 45)],
    choices: [],
  },
};

/** Something with finishes: a layer or an element. */
export type Finished = { readonly finishes: readonly Finish[] };
