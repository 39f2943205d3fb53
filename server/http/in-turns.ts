/** Long work in one process with the answers: after each stretch of it whoever waits is answered. */
import { setImmediate as turn } from 'node:timers/promises';

/** ms that others wait at most, but for what a single thing takes. */
const STRETCH_MS = 15;

/** The same things one after the other, with a turn of the event loop whenever a stretch has gone by. */
export async function* inTurns<T>(things: Iterable<T>): AsyncGenerator<T> {
  let began = performance.now();
  for (const thing of things) {
    yield thing;
    if (performance.now() - began < STRETCH_MS) continue;
    await turn();
    began = performance.now();
  }
}
