/** Plays the ticks of a path as a row, at the shot's rate, before anything is stamped. */
import { find, shotOf, type Id } from '@tallow/core/document';
import { useDocument } from '../shot/document.ts';
import { plan, setPlanning } from './plan.ts';

let running = 0;

export function stopRow(): void {
  running += 1;
  setPlanning({ rowTick: null });
}

/** Plays a path's ticks round and round; its settings may change meanwhile. Again, stops. */
export function playRow(pathId: Id): void {
  if (plan().rowTick !== null) {
    stopRow();
    return;
  }
  running += 1;
  const own = running;
  const began = performance.now();
  const step = (): void => {
    const { doc } = useDocument.getState();
    const path = doc && find(doc, 'path', pathId);
    if (own !== running || !doc || !path) return;
    const frames = ((performance.now() - began) / 1000) * shotOf(doc).rate;
    const tick = Math.floor(frames / path.hold) % path.ticks;
    if (plan().rowTick !== tick) setPlanning({ rowTick: tick });
    requestAnimationFrame(step);
  };
  setPlanning({ rowTick: 0 });
  requestAnimationFrame(step);
}
