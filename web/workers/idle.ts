/** Work of the main thread that can wait. */

/** Comes in a task of its own, right after the one that asks, also in a tab that nobody looks at. */
export const nextTask = (): Promise<void> =>
  new Promise((next) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      next();
    };
    port2.postMessage(null);
  });

/** Comes when neither pen nor picture needs the main thread. @param atLast ms after which it comes all the same. */
export const whenIdle = (atLast?: number): Promise<void> =>
  new Promise((next) => {
    const come = (): void => {
      next();
    };
    if (typeof requestIdleCallback !== 'function') setTimeout(come);
    else requestIdleCallback(come, atLast === undefined ? {} : { timeout: atLast });
  });

const LATEST_MS = 400;
const waiting = new Set<() => void>();
let isRunning = false;

async function run(): Promise<void> {
  isRunning = true;
  while (waiting.size > 0) {
    await whenIdle(LATEST_MS);
    const [work] = waiting;
    if (!work) continue;
    waiting.delete(work);
    try {
      work();
    } catch (error) {
      reportError(error);
    }
  }
  isRunning = false;
}

/**
 * Does small pieces of work one at a time, so that many together never hold up the page.
 * @returns how to take it back: what is overtaken waits for nothing.
 */
export function inIdleTurn(work: () => void): () => void {
  waiting.add(work);
  if (!isRunning) void run();
  return () => {
    waiting.delete(work);
  };
}
