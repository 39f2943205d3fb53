/** How the picture is looked at: zoomed, turned, moved. Never saved with the shot. */
import { create } from 'zustand';
import { atOpening } from '../shot/opening.ts';
import { FIRST_VIEW, type Area, type View } from './view.ts';

interface Viewed {
  readonly view: View;
  /** Whether the view follows the size of the window. */
  readonly fitted: boolean;
  /** Size of the picture's area, CSS px. */
  readonly area: Area;
  /** A key held down for as long as something is moved: pan, turn or width. */
  readonly holding: 'pan' | 'turn' | 'width' | null;
}

/** As it is when a shot opens. */
const FRESH = {
  fitted: true,
} as const satisfies Partial<Viewed>;

export const useViewed = create<Viewed>(() => ({
  ...FRESH,
  view: FIRST_VIEW,
  area: { width: 0, height: 0 },
  holding: null,
}));
export const viewed = useViewed.getState;
export const setViewed = useViewed.setState;

atOpening(() => {
  setViewed(FRESH);
});
