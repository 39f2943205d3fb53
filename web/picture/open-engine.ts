/** The engine that shows the picture of the open page, if there is one. */
import type { Engine } from './engine.ts';

let engine: Engine | null = null;

export const openEngine = (): Engine | null => engine;
export const setEngine = (next: Engine | null): void => {
  engine = next;
};
