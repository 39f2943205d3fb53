/** Marks: what a drawing is made of. Coordinates are in element space (origin at the element's anchor, y down), px. */
import type { Id } from './id.ts';

/** Five columns of equal length, one entry per pen sample. */
export interface Samples {
  /** Element space, px. */
  readonly x: Float32Array;
  readonly y: Float32Array;
  /** 0 to 1. */
  readonly pressure: Float32Array;
  /** Angle between pen and surface, radians, 0 (flat) to pi/2 (upright). */
  readonly altitude: Float32Array;
  /** Direction the pen leans to, radians, 0 to 2 pi. */
  readonly azimuth: Float32Array;
}

/** Ink is solid and smooth, pencil catches on the tooth of paper, grain is a dry brush, haze is soft and builds up. */
export const BRUSH_KINDS = ['ink', 'pencil', 'grain', 'haze'] as const;

export type BrushKind = (typeof BRUSH_KINDS)[number];

/** How a brush was set when a stroke was made. */
export interface BrushSettings {
  readonly kind: BrushKind;
  /** Which version of the brush drew it, from 1; the first without it. What was drawn keeps its look when brushes get better. */
  readonly version?: number;
  /** Full width in px of element space. */
  readonly width: number;
  /** 0 to 1, of the stroke as a whole: crossing itself does not darken it. */
  readonly opacity: number;
  /** Whether pressure changes what the brush lays; without it the line is constant. */
  readonly pressure: boolean;
  /** How much of haze one pass lays, above 0 to 1; 1 without it. */
  readonly flow?: number;
  /** Lengths over which the stroke grows from nothing and goes back to nothing, px of element space. */
  readonly taper?: readonly [number, number];
  /** How far a leaning pen broadens the stroke, 0 (not at all, as without it) to 1. */
  readonly tilt?: number;
}

/** Where a mark goes on what its drawing holds already: over it, unless said otherwise. */
export const LAYS = ['behind', 'inside'] as const;

export type Lays = (typeof LAYS)[number];

export interface Stroke {
  readonly kind: 'stroke';
  readonly id: Id;
  readonly swatch: Id;
  readonly brush: BrushSettings;
  readonly seed: number;
  readonly samples: Samples;
  readonly lays?: Lays;
  /** A line that closes a gap for filling: it bounds regions and is never part of the picture. */
  readonly unseen?: true;
  /** The piece it belongs to, kept from drawing to drawing: one lick, one drop. */
  readonly piece?: string;
}

/** A stroke that takes away what is under it in its own drawing. */
export interface RubOut {
  readonly kind: 'rub';
  readonly id: Id;
  readonly brush: BrushSettings;
  readonly seed: number;
  readonly samples: Samples;
}

/**
 * A closed curve of cubic pieces: six numbers per node, `x y inX inY outX outY`, all absolute, the
 * handles leading into and out of the node.
 */
export type Ring = Float32Array;

/** Which areas rings enclose: computed ones hold holes, one drawn by hand is filled wherever it crosses itself. */
export const SHAPE_RULES = ['evenodd', 'nonzero'] as const;

type ShapeRule = (typeof SHAPE_RULES)[number];

/** A filled area. */
export interface Shape {
  readonly kind: 'shape';
  readonly id: Id;
  readonly swatch: Id;
  readonly rings: readonly Ring[];
  readonly rule: ShapeRule;
  /** 0 to 1. */
  readonly opacity: number;
  readonly lays?: Lays;
  readonly piece?: string;
}

export type Mark = Stroke | RubOut | Shape;
