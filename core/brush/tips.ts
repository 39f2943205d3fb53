/** The tips strokes are drawn with: all that tells one from another. */
import type { BrushKind } from '../document/index.ts';

/** Flecks strewn along a stroke. */
export interface Tooth {
  /** Flecks on a stretch as long as the brush is wide, at full pressure. */
  readonly density: number;
  /** Smallest and largest fleck, as shares of the width. */
  readonly sizes: readonly [number, number];
  readonly corners: number;
  /** What the lightest touch leaves of the flecks. */
  readonly lightest: number;
}

export interface Tip {
  /** What the lightest touch leaves of the width, 0 to 1. */
  readonly lightest: number;
  /**
   * Samples per chunk; neighbouring chunks share the sample between them. Chunks of flecks are short: until a
   * chunk is finished it is drawn anew at every event of the pen, and flecks take long.
   */
  readonly chunk: number;
  /** How far its marks may lie outside its width, in half widths. */
  readonly stray: number;
  /** What a chunk is drawn as: its outline filled, flecks, or soft stamps one over another. */
  readonly lays: 'outline' | 'flecks' | 'stamps';
  readonly tooth: Tooth | null;
  /** Whether a sample of it is drawn by a leaning pen. */
  readonly leans: boolean;
}

export const TIPS: Readonly<Record<BrushKind, Tip>> = {
  ink: { lightest: 0.1, chunk: 32, stray: 1, lays: 'outline', tooth: null, leans: false },
  pencil: {
    lightest: 0.6,
    chunk: 6,
    stray: 1.35,
    lays: 'flecks',
    tooth: { density: 120, sizes: [0.05, 0.13], corners: 4, lightest: 0.16 },
    leans: true,
  },
  grain: {
    lightest: 0.8,
    chunk: 6,
    stray: 1.35,
    lays: 'flecks',
    tooth: { density: 420, sizes: [0.008, 0.05], corners: 6, lightest: 0.05 },
    leans: true,
  },
  haze: { lightest: 1, chunk: 16, stray: 1.4, lays: 'stamps', tooth: null, leans: true },
};
