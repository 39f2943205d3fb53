/** What of the interface is on the screen. Never saved with the shot. */
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { keptAs } from '../memory/memory.ts';
import { atOpening } from '../shot/opening.ts';

/** What the column shows in place of the layers. */
export type PanelName =
  'timing' | 'between' | 'cycle' | 'variants' | 'values' | 'piece' | 'palette' | 'looks' | 'tone' | 'shelf';

interface OnScreen {
  /** What of time the column shows, or null for the layers. */
  readonly panel: PanelName | null;
  /** Whether column, strip and tray are there. */
  readonly panels: boolean;
  /** Nothing but the picture. */
  readonly full: boolean;
  readonly keysShown: boolean;
  /** Whether the sheet shows pictures of the drawings. */
  readonly sheetPictures: boolean;
  /** Buttons for the hand that does not draw: whether they are there, and where in the picture, CSS px. */
  readonly otherHand: { readonly shown: boolean; readonly x: number; readonly y: number };
  /** The wheel's size against its usual one, where it was set by hand. */
  readonly wheelScale: number | null;
  /** Where the wheel's first frame is turned to, radians clockwise from the top. */
  readonly wheelTurn: number;
}

/** As it is when a shot opens. */
const FRESH = {
  panel: null,
  full: false,
  wheelTurn: 0,
} as const satisfies Partial<OnScreen>;

export const useScreen = create<OnScreen>()(
  persist(
    (): OnScreen => ({
      ...FRESH,
      panels: true,
      keysShown: false,
      sheetPictures: false,
      wheelScale: null,
      otherHand: { shown: false, x: 12, y: 64 },
    }),
    keptAs<OnScreen>('tallow-screen', ['sheetPictures', 'otherHand', 'wheelScale']),
  ),
);
export const onScreen = useScreen.getState;
export const setScreen = useScreen.setState;

atOpening(() => {
  setScreen(FRESH);
});
