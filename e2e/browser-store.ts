/** What this browser keeps of unsaved work, looked at from outside. */
import type { Page } from '@playwright/test';

/** How many unsaved things this browser's store holds, of any tab; -1 when it cannot be read. */
export const leftInStore = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((done) => {
        const opening = indexedDB.open('tallow');
        // There is none: it is not for us to make it.
        opening.onupgradeneeded = () => {
          opening.transaction!.abort();
        };
        opening.onerror = () => {
          done(opening.error?.name === 'AbortError' ? 0 : -1);
        };
        opening.onsuccess = () => {
          const database = opening.result;
          const counting = database.transaction('pending').objectStore('pending').count();
          counting.onsuccess = () => {
            done(counting.result);
            database.close();
          };
          counting.onerror = () => {
            done(-1);
          };
        };
      }),
  );

/** Whether each tab that has something in this browser's store is alive, or its work is held by one that is. */
export const tabsInStoreAreHeld = (page: Page): Promise<boolean> =>
  page.evaluate(async () => {
    const keys = await new Promise<IDBValidKey[]>((done, failed) => {
      const opening = indexedDB.open('tallow');
      // There is none: it is not for us to make it.
      opening.onupgradeneeded = () => {
        opening.transaction!.abort();
      };
      opening.onerror = failed;
      opening.onsuccess = () => {
        const reading = opening.result.transaction('pending').objectStore('pending').getAllKeys();
        reading.onerror = failed;
        reading.onsuccess = () => {
          opening.result.close();
          done(reading.result);
        };
      };
    });
    const held = new Set((await navigator.locks.query()).held!.map(({ name }) => name));
    return keys.every((key) => held.has(`tallow-tab-${(key as string[])[1]!}`));
  });
