/** How a worker tells of long work in its row: how far it is, that it is alive, and hears that it was stopped. */
import type { Knex } from 'knex';

const TELL_MS = 150;
/** ms between two signs of life while there is no news: packing a sheet or the end of a film takes its time. */
const ALIVE_MS = 5000;

/** Tells how much is done. @returns whether the work is still wanted. */
export type Tell = (done: number, isLast?: boolean) => Promise<boolean>;

/** Work that was stopped meanwhile: what it has made is to be let go. */
export class Stopped extends Error {}

/** Tables of long work; their rows have `state`, `done` and `heard_at`. */
type Table = 'exports' | 'archives';

export function teller(database: Knex, table: Table, id: string): Tell {
  let told = 0;
  return async (done, isLast = false) => {
    if (Date.now() - told < TELL_MS && !isLast) return true;
    told = Date.now();
    const still = await database(table).where({ id, state: 'running' }).update({ done, heard_at: database.fn.now() });
    return still > 0;
  };
}

/** Gives signs of life until it is ended. @returns what ends it. */
export function staysAlive(database: Knex, table: Table, id: string): () => void {
  const alive = setInterval(() => {
    database(table)
      .where({ id, state: 'running' })
      .update({ heard_at: database.fn.now() })
      .catch(() => undefined);
  }, ALIVE_MS);
  return () => {
    clearInterval(alive);
  };
}
