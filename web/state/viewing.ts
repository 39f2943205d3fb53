/** Looking at the picture: zooming, turning, holding it, and seeing nothing but it. */
import { shotOf } from '@tallow/core/document';
import { desk, setDesk } from './desk.ts';
import { viewAbout } from './view.ts';
import { useDocument } from './document.ts';

export const shotSize = (): { width: number; height: number } => {
  const { doc } = useDocument.getState();
  return doc ? shotOf(doc) : { width: 1, height: 1 };
};
const middle = () => ({ x: desk().area.width / 2, y: desk().area.height / 2 });
export const zoomBy = (factor: number) => () => {
  const { view, area } = desk();
  setDesk({ fitted: false, view: viewAbout(view, area, middle(), factor) });
};
export const turnBy = (degrees: number) => () => {
  const { view, area } = desk();
  setDesk({ fitted: false, view: viewAbout(view, area, middle(), 1, (degrees * Math.PI) / 180) });
};
export const holding = (which: 'pan' | 'turn' | 'width') => ({
  run: () => {
    setDesk({ holding: which });
  },
  release: () => {
    setDesk({ holding: null });
  },
});

/** The picture over the whole screen, playing or not, without controls. */
export function toggleFull(): void {
  const full = !desk().full;
  setDesk({ full, fitted: true });
  // Where the browser gives no full screen, the picture fills the page.
  if (full) void document.documentElement.requestFullscreen().catch(() => undefined);
  else if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined);
}
