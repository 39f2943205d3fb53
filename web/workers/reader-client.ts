/** The page's one reader of bodies, started on first use. */
import { wrap, type Remote } from 'comlink';
import { gate } from './painter-client.ts';
import type { ReadApart, Reader } from './reader.ts';

let remote: Remote<Reader> | null = null;
/** Comes when the worker cannot be had: what it was asked would never be answered. */
let failing: Promise<null> = new Promise(() => undefined);

function started(): Remote<Reader> | null {
  if (typeof Worker === 'undefined') return null;
  if (remote) return remote;
  const worker = new Worker(new URL('./reader.ts', import.meta.url), { type: 'module' });
  failing = new Promise((done) => {
    worker.addEventListener('error', () => {
      done(null);
    });
  });
  remote = wrap<Reader>(worker);
  void remote.waitAt(gate);
  return remote;
}

/**
 * Reads bodies in the worker.
 * @param canWait whether pen and picture come first.
 * @returns null where there is no worker, or it has failed: then they are read here.
 */
export async function readApart(bodies: readonly unknown[], canWait: boolean): Promise<readonly ReadApart[] | null> {
  const reader = started();
  return reader ? Promise.race([reader.read(bodies, canWait), failing]) : null;
}
