/** The tips strokes are drawn with: all that tells one from another. A stroke keeps the version of the tip it was drawn with. */
import type { BrushKind, BrushSettings } from '../document/index.ts';

/** Flecks strewn along a stroke. */
interface Flecks {
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
   * Samples per chunk; neighbouring chunks share the sample between them. Until a chunk is finished it is drawn anew at
   * every event of the pen, so chunks of what takes long are short.
   */
  readonly chunk: number;
  /** How far its marks may lie outside its width, in half widths. */
  readonly stray: number;
  /** What a chunk is drawn as: its outline filled, flecks, soft stamps one over another, or what a rough ground takes of it. */
  readonly lays: 'outline' | 'flecks' | 'stamps' | 'ground';
  readonly flecks: Flecks | null;
  /** Whether a sample of it is drawn by a leaning pen. */
  readonly leans: boolean;
}

/** Each kind's versions, the oldest first. */
export const TIPS: Readonly<Record<BrushKind, readonly [Tip, ...Tip[]]>> = {
  ink: [{ lightest: 0.1, chunk: 32, stray: 1, lays: 'outline', flecks: null, leans: false }],
  pencil: [
    {
      lightest: 0.6,
      chunk: 6,
      stray: 1.35,
      lays: 'flecks',
      flecks: { density: 120, sizes: [0.05, 0.13], corners: 4, lightest: 0.16 },
      leans: true,
    },
    { lightest: 0.5, chunk: 8, stray: 1.1, lays: 'ground', flecks: null, leans: true },
  ],
  grain: [
    {
      lightest: 0.8,
      chunk: 6,
      stray: 1.35,
      lays: 'flecks',
      flecks: { density: 420, sizes: [0.008, 0.05], corners: 6, lightest: 0.05 },
      leans: true,
    },
    { lightest: 0.75, chunk: 8, stray: 1.3, lays: 'ground', flecks: null, leans: true },
  ],
  haze: [{ lightest: 1, chunk: 16, stray: 1.4, lays: 'stamps', flecks: null, leans: true }],
};

/** The version that new strokes of a kind are drawn with; versions count from 1. */
export const newestVersion = (kind: BrushKind): number => TIPS[kind].length;

/** The tip of a stroke. One made by a later program than this is drawn with the newest that is known. */
export const tipOf = ({ kind, version = 1 }: Pick<BrushSettings, 'kind' | 'version'>): Tip =>
  TIPS[kind][version - 1] ?? TIPS[kind].at(-1)!;
