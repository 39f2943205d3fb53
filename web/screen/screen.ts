/** What of the interface is on the screen. Never saved with the shot. */
import { create } from 'zustand';
import { atOpening } from '../shot/opening.ts';

/** What the column shows in place of the layers. */
export const PANELS = [
  'timing',
  'between',
  'cycle',
  'variants',
  'values',
  'piece',
  'palette',
  'finishes',
  'tone',
] as const;
export type PanelName = (typeof PANELS)[number];

export interface OnScreen {
  /** What of time the column shows, or null for the layers. */
  readonly panel: PanelName | null;
  /** Whether column, strip and tray are there. */
  readonly panels: boolean;
  /** Nothing but the picture. */
  readonly full: boolean;
  readonly keysShown: boolean;
  /** Whether the sheet shows pictures of the drawings. */
  readonly sheetPictures: boolean;
  /** Where the wheel's first frame is turned to, radians clockwise from the top. */
  readonly wheelTurn: number;
}

/** As it is when a shot opens. */
const FRESH = {
  panel: null,
  full: false,
  wheelTurn: 0,
} as const satisfies Partial<OnScreen>;

export const useScreen = create<OnScreen>(() => ({
  ...FRESH,
  panels: true,
  keysShown: false,
  sheetPictures: false,
}));
export const onScreen = useScreen.getState;
export const setScreen = useScreen.setState;

atOpening(() => {
  setScreen(FRESH);
});
