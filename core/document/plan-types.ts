/** The words of an element's own plan: where it grows from, in which phases and which mood. Lengths are px of element space. */
import type { Id } from './id.ts';

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

interface MoveNote {
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
