/** The page's one compute worker, started on first use. */
import { wrap, type Remote } from 'comlink';
import type { Compute } from './compute.ts';

let remote: Remote<Compute> | null = null;

export function compute(): Remote<Compute> {
  remote ??= wrap<Compute>(new Worker(new URL('./compute.ts', import.meta.url), { type: 'module' }));
  return remote;
}
