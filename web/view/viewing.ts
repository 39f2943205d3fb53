/** Looking at the picture: zooming, turning, holding it, and seeing nothing but it. */
import { shotOf } from '@tallow/core/document';
import { setViewed, viewed } from './viewed.ts';
import { onScreen, setScreen } from '../screen/screen.ts';
import { viewAbout } from './view.ts';
import { useDocument } from '../shot/document.ts';

export const shotSize = (): { width: number; height: number } => {
  const { doc } = useDocument.getState();
  return doc ? shotOf(doc) : { width: 1, height: 1 };
};
const middle = () => ({ x: viewed().area.width / 2, y: viewed().area.height / 2 });
export const zoomBy = (factor: number) => () => {
  const { view, area } = viewed();
  setViewed({ fitted: false, view: viewAbout(view, area, middle(), factor) });
};
export const turnBy = (degrees: number) => () => {
  const { view, area } = viewed();
  setViewed({ fitted: false, view: viewAbout(view, area, middle(), 1, (degrees * Math.PI) / 180) });
};
export const holding = (which: 'pan' | 'turn' | 'width') => ({
  run: () => {
    setViewed({ holding: which });
  },
  release: () => {
    setViewed({ holding: null });
  },
});

/** The picture over the whole screen, playing or not, without controls. */
export function toggleFull(): void {
  const full = !onScreen().full;
  setScreen({ full });
  setViewed({ fitted: true });
  // Where the browser gives no full screen, the picture fills the page.
  if (full) void document.documentElement.requestFullscreen().catch(() => undefined);
  else if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined);
}
