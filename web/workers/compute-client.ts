/** The page's compute workers, started on first use. */
import { wrap, type Remote } from 'comlink';
import type { Compute } from './compute.ts';

const started: Remote<Compute>[] = [];
const nth = (n: number): Remote<Compute> =>
  (started[n] ??= wrap<Compute>(new Worker(new URL('./compute.ts', import.meta.url), { type: 'module' })));

/** What is waited for. */
export const compute = (): Remote<Compute> => nth(0);

/** What is found out by itself meanwhile: it never stands in the way of the other. */
export const besideCompute = (): Remote<Compute> => nth(1);
