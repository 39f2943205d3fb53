/** The engine that shows the picture of the open page, if there is one. */
import type { Engine } from './engine.ts';

let engine: Engine | null = null;

export const openEngine = (): Engine | null => engine;
export const setEngine = (next: Engine | null): void => {
  engine = next;
};

const BUSY_MS = 30;

/** Comes when the picture that is drawn on waits for nothing: it comes before all that can wait. @param longest ms after which it comes all the same. */
export async function pictureFirst(longest = Infinity): Promise<void> {
  const late = performance.now() + longest;
  while (openEngine()?.isBusy && performance.now() < late) await new Promise((next) => setTimeout(next, BUSY_MS));
}

/** The same; what plays is whole before it comes, too. */
export async function framesFirst(): Promise<void> {
  const needsAll = (engine: Engine | null) => engine !== null && (engine.isBusy || engine.player.ahead.isBehind);
  while (needsAll(openEngine())) await new Promise((next) => setTimeout(next, BUSY_MS));
}
