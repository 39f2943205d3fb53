/** The words of time beyond runs: poses, kept variants, in-betweens that were computed, traced points. */
import type { Id, RunList } from './types.ts';

/** What a slot is for in working from pose to pose; one that is neither is an in-between. */
export const POSES = ['key', 'breakdown'] as const;
export type Pose = (typeof POSES)[number];

/** The timing and drawings of some layers. */
export interface HeldTake {
  readonly lists: readonly RunList[];
  readonly layers: readonly {
    readonly layerId: Id;
    readonly runListId: Id;
    readonly slots: Readonly<Record<Id, Id>>;
  }[];
}

/** A variant of the timing and drawings of an element or of some of its layers, kept to be compared. */
export interface Variant {
  readonly kind: 'variant';
  readonly id: Id;
  readonly elementId: Id;
  readonly name: string;
  /** The layers it is about. */
  readonly scope: readonly Id[];
  /** What is kept, or null for the variant the layers show now. */
  readonly held: HeldTake | null;
}

/** How points go from one drawing to the next. */
export const WAYS = ['straight', 'arc', 'path'] as const;
export type Way = (typeof WAYS)[number];

/** Two marks said to be one, or (with null) a mark that vanishes or appears. */
export interface Tie {
  readonly from: Id | null;
  readonly to: Id | null;
}

/** In-betweens that were computed, with what is needed to compute them again. */
export interface Between {
  readonly kind: 'between';
  readonly id: Id;
  readonly elementId: Id;
  readonly layerId: Id;
  /** The slots they lie between. Where they lead across the seam, `to` is the first. */
  readonly from: Id;
  readonly to: Id;
  /** Slots of the in-betweens in order, and where each lies on the way, 0 to 1, rising. */
  readonly slots: readonly Id[];
  readonly shares: readonly number[];
  readonly way: Way;
  /** The path along which marks go, for `path`. */
  readonly pathId: Id | null;
  readonly ties: readonly Tie[];
  /** Prints of what was laid, by slot: a drawing with another print was touched by hand. */
  readonly laid: Readonly<Record<Id, string>>;
  /** Prints of the two drawings it was laid from. */
  readonly hangsOn: readonly [string, string];
}

/** One point followed from drawing to drawing. */
export interface Trace {
  readonly id: Id;
  readonly layerId: Id;
  /** Where it is on each slot's drawing, element space; with `aim` where it is to be when that is drawn anew. */
  readonly points: Readonly<Record<Id, { readonly x: number; readonly y: number; readonly aim: boolean }>>;
}
