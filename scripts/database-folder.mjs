/** Where a home's database lies, and who it belongs to. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chownSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { CannotHeal } from './keep-running.mjs';

const isRoot = () => process.getuid?.() === 0;

/** The command with which a program runs as the database's user and dies with us. */
export function asDatabaseUser(program, args, dieWithParent) {
  const options = dieWithParent ? ['--pdeathsig', 'INT'] : [];
  if (isRoot()) options.unshift('--reuid=postgres', '--regid=postgres', '--init-groups');
  return options.length === 0 ? [program, args] : ['setpriv', [...options, program, ...args]];
}

/** Gives a folder, with all in it, to the database's user: PostgreSQL refuses to run as root. */
export function giveToDatabase(path) {
  if (isRoot()) execFileSync('chown', ['-R', 'postgres:postgres', path]);
}

/** Makes a folder for a cluster. Nothing in it changes hands. */
function makeFolder(path) {
  mkdirSync(path, { recursive: true, mode: 0o700 });
  if (!isRoot()) return;
  const idOf = (which) => Number(execFileSync('id', [which, 'postgres']));
  chownSync(path, idOf('-u'), idOf('-g'));
}

/**
 * The folder for the cluster: in the home if the database's user can reach it, else one under /var/lib, which the home
 * names from then on and so keeps when it is moved. @throws CannotHeal where a database lies that cannot be reached:
 * beginning an empty one beside it would look as if all work were lost.
 */
export function databaseFolder(home, say = console.log) {
  const named = join(home, 'database-folder');
  if (existsSync(named)) return readFileSync(named, 'utf8').trim();
  const wished = join(home, 'database');
  const isThere = existsSync(join(wished, 'data', 'PG_VERSION'));
  makeFolder(wished);
  if (!isRoot()) return wished;
  const [program, args] = asDatabaseUser('test', ['-w', wished], false);
  if (spawnSync(program, args).status === 0) return wished;
  if (isThere)
    throw new CannotHeal(
      `The database's user cannot reach the database in ${wished}. Let it through the folders above (chmod o+x), or move the home.`,
    );
  const other = `/var/lib/tallow-${createHash('sha256').update(resolve(home)).digest('hex').slice(0, 12)}`;
  makeFolder(other);
  writeFileSync(named, other, { mode: 0o600 });
  say(`The database's user cannot reach ${wished}; the database is in ${other}.`);
  return other;
}

/** The id of a server that already runs on the data, or null. */
export function runningOn(data) {
  const file = join(data, 'postmaster.pid');
  if (!existsSync(file)) return null;
  const id = Number(readFileSync(file, 'utf8').split('\n')[0]);
  const name = existsSync(`/proc/${id}/comm`) ? readFileSync(`/proc/${id}/comm`, 'utf8').trim() : '';
  return name === 'postgres' ? id : null;
}
