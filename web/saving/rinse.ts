/**
 * Makes this browser's store trustworthy again after it was lost. Measured in Chromium: once the disk was full, the
 * store opens again and acknowledges what is written, strictly durable, yet all of it is gone at the browser's next
 * start: its log has a torn record in the middle and goes on being written to. Once more has been written than its
 * buffers hold, twice over, a new log has begun and the torn one is no longer read.
 */
import { deleteDB, openDB } from 'idb';
import { recall, remember } from '../memory/memory.ts';

/** Another database of the same origin shares the log. */
const NAME = 'tallow-rinse';
/** Larger things are kept in files of their own, beside the log. */
const PIECE_BYTES = 50_000;
/** The log changes with every 4 MB. */
const ALL_BYTES = 12_000_000;
const AT_ONCE = 40;
/** Whether some tab has lost the store since it was last rinsed: a tab that opens it afresh cannot know otherwise. */
const LOST = 'tallow.store-lost';
let lostHere = false;

export function noteLost(): void {
  lostHere = true;
  remember(LOST, true);
}

/** Rinses the store if any tab has lost it. @throws when there is no room for it; the store is then not to be trusted. */
export async function rinseIfLost(): Promise<void> {
  if (!lostHere && recall(LOST) !== true) return;
  const piece = crypto.getRandomValues(new Uint8Array(PIECE_BYTES));
  const database = await openDB(NAME, 1, {
    upgrade(db) {
      db.createObjectStore('pieces');
    },
  });
  try {
    for (let bytes = 0; bytes < ALL_BYTES; bytes += AT_ONCE * PIECE_BYTES) {
      const tx = database.transaction('pieces', 'readwrite', { durability: 'strict' });
      await Promise.all([...Array.from({ length: AT_ONCE }, (_, i) => tx.store.put(piece, i)), tx.done]);
    }
  } finally {
    database.close();
  }
  await deleteDB(NAME);
  lostHere = false;
  remember(LOST, null);
}
