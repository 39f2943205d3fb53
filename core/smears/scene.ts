/** What a smear is computed from, and what a kind of smear says of itself. All places are element space, px. */
import type { Control, Settings } from '../controls/index.ts';
import type { Id, Mark, NewId, SmearForm } from '../document/index.ts';
import type { Point } from '../geometry/index.ts';
import type { Flow } from './flow.ts';
import type { Silhouette } from './silhouette.ts';

/** A layer of the subject: what it shows where it left and where it arrives. */
export interface SubjectLayer {
  readonly layerId: Id;
  readonly before: readonly Mark[];
  readonly after: readonly Mark[];
}

/** Where the subject was on a drawing, and the two points of it that a swath follows. */
export interface Stop {
  readonly middle: Point;
  readonly tip: Point;
  readonly root: Point;
  /** Frames since the drawing before. */
  readonly frames: number;
}

export interface SmearScene {
  readonly layers: readonly SubjectLayer[];
  readonly left: Silhouette;
  readonly arrived: Silhouette;
  readonly flow: Flow;
  /** Drawings from the earliest that counts to the one that arrives; two at least. */
  readonly stops: readonly Stop[];
  /** The ways between the stops, one fewer. */
  readonly flows: readonly Flow[];
  /** The line it goes along, where it goes along one: it may begin earlier and go on farther. */
  readonly line: readonly Point[] | null;
  readonly settings: Settings;
  readonly seed: number;
  /** Marks that keep their form. */
  readonly rigid: ReadonlySet<Id>;
  /** What stops it: a line it does not go beyond. */
  readonly contact: readonly Point[] | null;
  /** Drawings after the one that arrives which it may go on over, and whether they lead back to the first. */
  readonly room: number;
  readonly cycle: boolean;
  /** The colour of what is made of the subject as a whole, and of lines. */
  readonly swatch: Id;
  readonly lineSwatch: Id;
}

/** What was computed: marks that the subject's own layers get, by layer, or marks behind it, on the drawing that arrives and on those after it. */
export interface Smeared {
  readonly own: ReadonlyMap<Id, readonly Mark[]>;
  readonly behind: readonly (readonly Mark[])[];
}

export interface SmearKind {
  readonly form: SmearForm;
  readonly name: string;
  /** What it lays, in a few words. */
  readonly says: string;
  /** Whether it takes the place of the subject for a frame, or lies behind it. */
  readonly lies: (settings: Settings) => 'in its place' | 'behind';
  readonly controls: readonly Control[];
  /** What it may lack where nothing comes of it, but for a way that is long enough; said to the user. */
  readonly lacks?: string;
  readonly draw: (scene: SmearScene, newId: NewId) => Smeared;
}

export const NOTHING_SMEARED: Smeared = { own: new Map(), behind: [] };
