/**
 * What a starter is: a seeded computation of drawings. Everything here is in the starter's own space:
 * px, its standing place at 0 0, y down. The same scene gives the same marks on every engine.
 */
import type { Blend, Effect, LayerRole, Mood, Ring, Samples, SwatchRole } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import type { MeasuredPath } from '../plan/index.ts';
import type { Control, Settings } from '../controls/index.ts';

/** A layer that a starter fills, named from the topmost down. */
interface Output {
  readonly key: string;
  readonly name: string;
  readonly role: LayerRole;
  /** How its layer meets what lies under it, if not plainly. */
  readonly blend?: Blend;
  /** Whether it is laid hidden. */
  readonly hidden?: true;
}

/** A swatch that a starter paints with: found in the palette by role and name, else added. */
export interface StarterPaint {
  readonly key: string;
  readonly name: string;
  readonly role: SwatchRole;
  readonly colour: string;
}

export interface Preset {
  readonly name: string;
  readonly settings: Settings;
  readonly length?: number;
  readonly hold?: number;
}

/** What a starter works from. */
export interface Scene {
  readonly settings: Settings;
  readonly seed: number;
  /** A drawn line, the base of a fire for instance. */
  readonly line: readonly Point[] | null;
  /** The path it follows, in its own space. */
  readonly way: MeasuredPath | null;
  /** How far along the path it is after a share of the time, 0 to 1: the path's own spacing. */
  readonly pace: (share: number) => number;
  /** Frames from the path's first tick to its last, or null where it follows none. */
  readonly travel: number | null;
  /** Whether its time runs round. */
  readonly cycle: boolean;
  /** Frames it takes. */
  readonly length: number;
  /** The frame each drawing begins on, the first being 0. */
  readonly starts: readonly number[];
}

/** A filled area that is to become a shape. */
export interface StarterFill {
  readonly paint: string;
  readonly rings: readonly Ring[];
  /** 0 to 1. */
  readonly opacity?: number;
}

/** A line that is to become an ink stroke. */
export interface StarterLine {
  readonly paint: string;
  readonly samples: Samples;
  /** Full width, px. */
  readonly width: number;
  readonly opacity?: number;
  /** The outline it is drawn along, if it is one: what is left out of one is left out of both. */
  readonly along?: Ring;
}

export type LaidMark = StarterFill | StarterLine;
export const isLine = (mark: LaidMark): mark is StarterLine => 'samples' in mark;

/** One drawing of every output. Outputs without marks have an empty drawing or none. */
export type LaidFrame = Readonly<Record<string, readonly LaidMark[]>>;

export interface StarterKind {
  readonly effect: Effect;
  readonly name: string;
  /** What it lays, in a few words. */
  readonly says: string;
  /** Whether it is offered at once, or among the rarer ones. */
  readonly offered: 'first' | 'more';
  /** Where in its time its little picture is taken, 0 to 1; else in the middle. */
  readonly telling?: number;
  /** Whether its time runs round with these settings; else it ends. */
  readonly cycles: (settings: Settings) => boolean;
  /** Whether it follows a path or a drawn line, if there is one. */
  readonly follows: 'path' | 'line' | 'nothing';
  /** Where it belongs: on a floor or a base, round its place, from edge to edge of the picture, or over all of it. */
  readonly stands: 'floor' | 'middle' | 'edges' | 'fills';
  /** Settings that are the picture's own width and height, where it has such. */
  readonly frame?: { readonly across: string; readonly down: string };
  /** Usual length and hold, frames. */
  readonly length: number;
  readonly hold: number;
  readonly controls: readonly Control[];
  readonly outputs: readonly Output[];
  readonly paints: readonly StarterPaint[];
  readonly presets: readonly Preset[];
  /** Colour its sample sheet lies on, where it is not seen well on the usual one. */
  readonly ground?: string;
  /** What a mood sets, where it sets anything. */
  readonly moods?: Readonly<Partial<Record<Mood, Settings>>>;
  /** The drawing with that index. */
  readonly draw: (scene: Scene, index: number) => LaidFrame;
  /** Fills of these outputs are looked through for pieces that live too short to be read. */
  readonly pieces?: readonly string[];
}

/** A fill of some rings, or none where there are none. */
export const starterFill = (paint: string, rings: readonly Ring[], opacity = 1): StarterFill[] =>
  rings.length > 0 ? [{ paint, rings, opacity }] : [];

/** The share of the whole time that has passed when a drawing begins, 0 up to 1. */
export const phaseOf = ({ starts, length }: Pick<Scene, 'starts' | 'length'>, index: number): number =>
  starts[index]! / length;

/** Drawings over which what a one-shot leaves shrinks away, and of short ones which part of them. */
const ENDING = 3;
const ENDING_PART = 0.25;

/**
 * How large what a one-shot leaves still is on a drawing: as it is, 1, but on its last three, where it shrinks away; nothing
 * of it pops off at the end.
 * @param earlier by how many such ends a part of it goes before the last one.
 */
export function leftOf({ starts }: Pick<Scene, 'starts'>, index: number, earlier = 0): number {
  const over = Math.max(1, Math.min(ENDING, starts.length * ENDING_PART));
  return Math.max(0, Math.min(1, (starts.length - index) / over - earlier));
}

/** The age of a one-shot on a drawing: 0 on the first, 1 on the last. */
export const ageOf = ({ starts }: Pick<Scene, 'starts'>, index: number): number =>
  starts.length < 2 ? 0 : starts[index]! / starts.at(-1)!;
