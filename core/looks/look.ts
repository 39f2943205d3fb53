/**
 * What a look is, all of it in the look's own file: what can be set, when it does anything, how it changes over a cycle,
 * how far it reaches, and how it is worked out on a picture or moves outlines. Schemas, panels and rendering go by this.
 */
import type { Blend, MakeSurface, Picture, Surface } from '../canvas/index.ts';
import type { Matrix, Point } from '../geometry/index.ts';

export interface LookField {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  readonly default: number;
  readonly step?: number;
}

export interface LookChoice {
  readonly key: string;
  readonly label: string;
  readonly options: readonly string[];
}

type Numbers = Readonly<Record<string, number>>;
type Choices = Readonly<Record<string, string>>;

/** A look on a frame. Numbers are in the units of its fields. */
export interface LookNow {
  readonly numbers: Numbers;
  readonly choices: Choices;
  /** A colour of its own, or null. */
  readonly swatch: string | null;
  readonly seed: number;
  /** What `at` said for the frame. */
  readonly at: number;
}

/** Where a look is worked out. */
export interface LookPlace {
  /** Element space to device pixels of the surface. */
  readonly matrix: Matrix;
  /** From anchor to tip, element space. */
  readonly axis: { readonly from: Point; readonly to: Point };
  readonly colourOf: (swatch: string) => string;
  /** How far what is drawn goes in one frame, px of element space. */
  readonly motion: Point;
  /** What lies under it in its element, of the surface's size; for lines that take the colour of fills. */
  readonly below: () => Picture | null;
  /** While something moves, coarser. */
  readonly rough: boolean;
  readonly make: MakeSurface;
}

/** A picture to be laid, of the surface's size. */
export interface Part {
  readonly picture: Surface;
  readonly blend: Blend;
  readonly opacity: number;
}

/** What was drawn, and the light that lies on it. */
export interface LookSource {
  readonly main: Surface;
  readonly lights: readonly Part[];
}

export interface Look {
  readonly name: string;
  /** What it does, in a few words. */
  readonly does: string;
  /** Whether it has a colour of its own, may have one, or has none. */
  readonly colour: 'own' | 'may' | 'none';
  /** The role of the swatch that its own colour is taken from first. */
  readonly role?: string;
  readonly fields: readonly LookField[];
  readonly choices: readonly LookChoice[];
  /** It is for layers alone: an element as a whole lies on nothing it could take from. */
  readonly forLayers?: true;
  /** Whether a seed tells it apart from its like. */
  readonly seeded?: true;
  /** Whether a field does anything with the choices made; all do without it. */
  readonly uses?: (key: string, choices: Choices) => boolean;
  /** Whether it runs along the element's axis with the choices made. */
  readonly runsAlongAxis?: (choices: Choices) => boolean;
  /** Whether it does anything with these numbers. */
  readonly acts: (numbers: Numbers) => boolean;
  /**
   * What of it changes from frame to frame beside its numbers: a share of the turn, 0 to 1, or which one of many.
   * Without it nothing does. @param turn frames of a cycle, or null where time ends.
   */
  readonly at?: (choices: Choices, numbers: Numbers, frame: number, turn: number | null) => number;
  /** How far beyond its picture it reaches, px of element space: what is drawn there matters. */
  readonly reach?: (numbers: Numbers, choices: Choices) => number;
  /** Whether what was drawn covers the same as before, to the pixel: only its colours change, or light is added. */
  readonly keepsShape?: true;
  /** Whether it takes what lies under it into account. */
  readonly takesBelow?: true;
  /** Where outlines go: done before anything is drawn. Outlines are cut in pieces of `piece` px at most. */
  readonly moves?: (now: LookNow) => { readonly move: (place: Point) => Point; readonly piece: number };
  /** How it is worked out on what is drawn. */
  readonly paint?: (looked: LookSource, now: LookNow, place: LookPlace) => LookSource;
}

/** Frames noise takes to come round where time ends. */
export const ONCE = 48;

export const percent = (key: string, label: string, preset: number, max = 100, min = 0): LookField => ({
  key,
  label,
  unit: '%',
  min,
  max,
  default: preset,
});
export const px = (key: string, label: string, preset: number, max: number, min = 0): LookField => ({
  key,
  label,
  unit: 'px',
  min,
  max,
  default: preset,
});

/** A look that changes only what was drawn. */
export const onMain =
  (change: (source: Surface, now: LookNow, place: LookPlace) => Surface): NonNullable<Look['paint']> =>
  ({ main, lights }, now, place) => ({ main: change(main, now, place), lights });

/** A look that changes what was drawn and its light alike. */
export const onAll =
  (change: (source: Surface, now: LookNow, place: LookPlace) => Surface): NonNullable<Look['paint']> =>
  ({ main, lights }, now, place) => ({
    main: change(main, now, place),
    lights: lights.map((part) => ({ ...part, picture: change(part.picture, now, place) })),
  });
