/**
 * The words of planning: where an effect grows from, which way it goes, how fast and in which
 * phases, and the computations that lay its under-drawing. Lengths are px of element space.
 */
import type { Id } from './types.ts';

/** The tone of an effect, which style of shape, timing and colour follow. */
export const MOODS = ['calm', 'crackling', 'angry', 'menacing'] as const;
export type Mood = (typeof MOODS)[number];

/** A named span of an element's time. Phases follow one another from frame 0. */
export interface Phase {
  readonly id: Id;
  readonly name: string;
  /** Frames, at least 1. */
  readonly length: number;
  /** The usual hold of its drawings, frames. */
  readonly hold: number;
}

/** What a part of an effect does next. */
export const MOVES = ['sway', 'puff', 'merge', 'break off', 'fade'] as const;
export type Move = (typeof MOVES)[number];

export interface MoveNote {
  readonly id: Id;
  readonly move: Move;
  /** Element frame it begins on. */
  readonly from: number;
  readonly length: number;
}

/** A named place that a tongue or part grows from. */
export interface Base {
  readonly id: Id;
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly notes: readonly MoveNote[];
}

/** A stretch of a path on which what follows it slows. */
export interface SlowPlace {
  readonly id: Id;
  /** Where on the way, 0 to 1 of its length. */
  readonly at: number;
  /** How far it reaches to either side, in shares of the way. */
  readonly width: number;
  /** How slow, 0 to 1: what is taken off the speed in its middle. Only 1 stops. */
  readonly amount: number;
}

export const STAND_IN_FORMS = ['disc', 'ellipse', 'shape'] as const;

/** The simple form seen on every tick of a path. */
export interface StandIn {
  readonly form: (typeof STAND_IN_FORMS)[number];
  /** A drawn form as a ring about its own middle, or null. */
  readonly shape: Float32Array | null;
  /** Full length along its own axis, px, at the first and last tick. */
  readonly sizeStart: number;
  readonly sizeEnd: number;
  /** Width over length of the ellipse, 0.05 to 1. */
  readonly aspect: number;
  readonly turn: 'along' | 'fixed';
  /** Radians, added to its direction. */
  readonly angle: number;
  /** How much speed stretches it, 0 to 1; its area stays. */
  readonly stretch: number;
  readonly opacityStart: number;
  readonly opacityEnd: number;
}

/** A way that something goes, with a tick for every drawing. */
export interface Path {
  readonly kind: 'path';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  /** Nodes as in a ring, six numbers each; closed only if `closed`. */
  readonly nodes: Float32Array;
  readonly closed: boolean;
  /** Element frame of the first tick. */
  readonly from: number;
  /** At least 2. */
  readonly ticks: number;
  /** Frames from one tick to the next. */
  readonly hold: number;
  /** How gently it leaves and arrives, 0 to 1. */
  readonly softStart: number;
  readonly softEnd: number;
  readonly slows: readonly SlowPlace[];
  /** Whether speed follows size: near is large and fast, far is small and slow. */
  readonly perspective: boolean;
  /** Ticks put somewhere by hand: share of the way by index of the tick. */
  readonly placed: Readonly<Record<string, number>>;
  readonly standIn: StandIn;
  readonly visible: boolean;
  readonly locked: boolean;
}

export const GUIDE_FORMS = ['level', 'plumb', 'line', 'grid'] as const;
export type GuideForm = (typeof GUIDE_FORMS)[number];

/** A line to draw by: of one element, or of the whole shot. Never part of the picture. */
export interface Guide {
  readonly kind: 'guide';
  readonly id: Id;
  /** Whose it is; null for the whole shot. Its points are in that element's space, or in shot px. */
  readonly elementId: Id | null;
  readonly name: string;
  readonly form: GuideForm;
  /** A point it runs through; of a grid, its vanishing point. */
  readonly x: number;
  readonly y: number;
  /** Another point of a line; of a grid, the near corner of its first square. */
  readonly toX: number;
  readonly toY: number;
  readonly visible: boolean;
  readonly locked: boolean;
  /** Frames on which it is seen, of the element or the shot: from, and how many; null is throughout. */
  readonly span: { readonly from: number; readonly length: number } | null;
}

export const EFFECTS = [
  'fire',
  'smoke',
  'bolt',
  'burst',
  'liquid',
  'sparks',
  'ring',
  'ripple',
  'speed',
  'wave',
  'tied',
  'impact',
] as const;
export type Effect = (typeof EFFECTS)[number];

/** One drawing a starter laid: on which of its outputs, and what it looked like then. */
export interface LaidDrawing {
  readonly drawingId: Id;
  readonly slot: Id;
  /** A fingerprint of its marks as they were laid. */
  readonly print: string;
}

/** A seeded computation kept with the layers it laid. */
export interface Starter {
  readonly kind: 'starter';
  readonly id: Id;
  readonly elementId: Id;
  readonly effect: Effect;
  readonly seed: number;
  /** Where it stands in element space. */
  readonly x: number;
  readonly y: number;
  /** Numbers by name, each within the range its effect states. */
  readonly settings: Readonly<Record<string, number>>;
  /** A line drawn for it, as `x y` pairs from where it stands: the base of a fire, say. */
  readonly line: Float32Array | null;
  /** The path it follows. */
  readonly pathId: Id | null;
  /** Element frame it begins on, and how many frames it takes. */
  readonly from: number;
  readonly length: number;
  /** Frames each drawing is held, or null for the holds of the element's phases. */
  readonly hold: number | null;
  /** Layer of each output by the output's name. */
  readonly layers: Readonly<Record<string, Id>>;
  /** Swatch of each paint by the paint's name. */
  readonly paints: Readonly<Record<string, Id>>;
  /** What was laid, by output, in order. */
  readonly laid: Readonly<Record<string, readonly LaidDrawing[]>>;
}
