/** A home goes to another folder, with its database. */
import { cpSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { databaseFolder, giveToDatabase, runningOn } from './database-folder.mjs';
import { isFilled } from './home.mjs';

const COPY = { recursive: true, preserveTimestamps: true };

/**
 * Copies it whole beside its new place, puts it there in one step, and only then takes the old one away. A database that
 * its user could not reach at the new place goes to where it can.
 * @throws when there is nothing to move, something in the way, or Tallow runs; nothing has changed then.
 */
export function moveHome(from, to) {
  if (!isFilled(from)) throw new Error(`There is nothing in ${from} to be moved.`);
  if (existsSync(to) && readdirSync(to).length > 0) throw new Error(`${to} is not empty.`);
  const database = databaseFolder(from);
  if (runningOn(join(database, 'data')) !== null) throw new Error(`Tallow is running from ${from}. Stop it first.`);
  mkdirSync(dirname(to), { recursive: true });
  const coming = `${to}.coming`;
  rmSync(coming, { recursive: true, force: true });
  const inside = join(from, 'database');
  cpSync(from, coming, { ...COPY, filter: (path) => path !== inside });
  // A database that lies elsewhere is named in the home, and stays there.
  if (database === inside) {
    const there = databaseFolder(coming);
    cpSync(database, there, COPY);
    giveToDatabase(there);
  }
  rmSync(to, { recursive: true, force: true });
  renameSync(coming, to);
  rmSync(from, { recursive: true, force: true });
}
