/** What brushes are drawn on, made in a worker when the page opens, so that no first stroke has to wait for it. */
import { takeGrounds } from '@tallow/core/brush';
import { besideCompute } from '../workers/compute-client.ts';

let here: Promise<void> | null = null;

/** Comes when the grounds of brushes are here; where the worker could not make them, strokes make their own. */
export function prepareBrushes(): Promise<void> {
  here ??= besideCompute()
    .grounds()
    .then(takeGrounds, () => undefined);
  return here;
}
