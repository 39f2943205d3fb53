/** Work of the main thread that can wait. */

/** Comes when neither pen nor picture needs the main thread. @param atLast ms after which it comes all the same. */
export const whenIdle = (atLast?: number): Promise<void> =>
  new Promise((next) => {
    requestIdleCallback(
      () => {
        next();
      },
      atLast === undefined ? {} : { timeout: atLast },
    );
  });

let last: Promise<unknown> = Promise.resolve();
const LATEST_MS = 400;

/** Does small pieces of work one at a time, so that many together never hold up the page. */
export function inIdleTurn(work: () => void): void {
  last = last.then(() => whenIdle(LATEST_MS)).then(work);
}
