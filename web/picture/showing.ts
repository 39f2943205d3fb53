/** What the picture shows beside the drawing itself: ghosts, layers left out, looks. Never saved with the shot. */
import { COLOUR_PAIRS, type ColourPair } from '@tallow/core/colour';
import type { Id } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { keptAs } from '../memory/memory.ts';
import { atOpening } from '../shot/opening.ts';

export interface Onion {
  readonly on: boolean;
  /** Drawings shown before and after, 0 to 5. */
  readonly before: number;
  readonly after: number;
  /** Filled drawings as their outline only, or tinted whole. */
  readonly look: 'outline' | 'full';
  /** Whether ghosts ride on a thing that is moved in the shot; else they stand where it was. */
  readonly rides: boolean;
  /** 0 to 1. */
  readonly strength: number;
  /** What each drawing farther away keeps of the strength of the one before, 0 to 1. */
  readonly fallOff: number;
  /** The pair of colours picked, or null for the one farthest from the element's swatches. */
  readonly colours: ColourPair | null;
}

export interface Showing {
  readonly onion: Onion;
  /** Drawings shown as ghosts wherever the playhead is. */
  readonly pinned: readonly Id[];
  /** Where ghosts of drawings are seen in place of where their drawings are, element space to element space. */
  readonly ghostShift: Readonly<Record<Id, Matrix>>;
  /** What a drag does to a ghost. */
  readonly shifting: 'move' | 'turn' | 'scale';
  /** The one layer that is shown. */
  readonly alone: Id | null;
  readonly dimOthers: boolean;
  /** Layers left out of the picture while what would replace them is previewed. */
  readonly without: readonly Id[];
  readonly silhouette: boolean;
  /** Whether finishes are seen on the desk. */
  readonly looks: boolean;
  /** Whether the picture shows what will be taken away: no guides, nothing for work, all looks. */
  readonly finished: boolean;
  /** While a look's setting is being dragged. */
  readonly rough: boolean;
  /** Colour in place of the background, for judging only. */
  readonly backdrop: string | null;
  /** Whether the pen plans rather than draws. */
  readonly planning: boolean;
  /** Whether the shot is assembled: the picture is seen as it will be, on the shot's own time. */
  readonly assembling: boolean;
  /** The one plane that is shown while the shot is assembled. */
  readonly planeAlone: Id | null;
  /** Whether one stands beside the camera while the shot is assembled: the picture is still, its frame goes. */
  readonly filming: boolean;
  /** Whether the safe areas of the frame are shown. */
  readonly safe: boolean;
  /** Whether Plan's marks are seen strongly while drawing, for as long as a key is held. */
  readonly planHeld: boolean;
  /** Shows the first drawing as the target in the last part of a cycle. */
  readonly leadsBack: boolean;
  /** Shows where pieces would be next. */
  readonly ahead: boolean;
  /** Layers that locking all others locked, to be unlocked by it again. */
  readonly lockedOthers: readonly Id[];
}

/** As it is when a shot opens. */
const FRESH = {
  pinned: [],
  ghostShift: {},
  alone: null,
  dimOthers: false,
  without: [],
  silhouette: false,
  finished: false,
  backdrop: null,
  planHeld: false,
  leadsBack: false,
  ahead: false,
  lockedOthers: [],
  planeAlone: null,
  filming: false,
} as const satisfies Partial<Showing>;

export const useShowing = create<Showing>()(
  persist(
    (): Showing => ({
      ...FRESH,
      onion: {
        on: true,
        before: 1,
        after: 1,
        look: 'outline',
        rides: true,
        strength: 1,
        fallOff: 0.6,
        colours: COLOUR_PAIRS[0]!,
      },
      shifting: 'move',
      looks: true,
      rough: false,
      planning: false,
      assembling: false,
      safe: false,
    }),
    keptAs<Showing>('tallow-showing', ['onion', 'looks'], (kept, preset) => ({
      ...kept,
      onion: { ...preset.onion, ...kept.onion },
    })),
  ),
);
export const showing = useShowing.getState;
export const setShowing = useShowing.setState;

atOpening(() => {
  setShowing(FRESH);
});
