/** Where backups are made from and go to: the database's addresses, its programs, and the files of a backup. */
import { openDatabase } from '../db/database.ts';
import { spawn } from 'node:child_process';
import { dirname, join } from 'node:path';
import type { Knex } from 'knex';

/** A database of PostgreSQL, and who may make others beside it. */
export interface BackupPlace {
  /** The application's database. */
  readonly url: string;
  /** The same server, as somebody who may make and drop databases. */
  readonly adminUrl: string;
  /** Folder of PostgreSQL's programs. */
  readonly bin: string;
}

/** The files of one backup. Pictures and sounds are kept once, by their hash, for all backups of a folder. */
export const filesOf = (file: string) => ({
  dump: file,
  manifest: `${file}.json`,
  assets: join(dirname(file), 'assets'),
});

/** The address of another database of the same server. */
export function beside(url: string, database: string): string {
  const address = new URL(url);
  address.pathname = `/${database}`;
  return address.href;
}

export const nameOf = (url: string): string => new URL(url).pathname.slice(1);
const userOf = (url: string): string => new URL(url).username;

/** Opens a database for one piece of work. */
export async function liesWithin<T>(url: string, work: (database: Knex) => Promise<T>): Promise<T> {
  const database = openDatabase(url, 2);
  try {
    return await work(database);
  } finally {
    await database.destroy();
  }
}

/** Any number: whoever asks the server for this lock has it alone. */
const ALONE = 7_211_301;

/** Does what only one program at a time may do on this server; others wait for it. */
export const alone = <T>(place: BackupPlace, work: () => Promise<T>): Promise<T> =>
  liesWithin(place.adminUrl, (database) =>
    database.transaction(async (tx) => {
      await tx.raw('set local idle_in_transaction_session_timeout = 0');
      await tx.raw('select pg_advisory_xact_lock(?)', [ALONE]);
      return work();
    }),
  );

/**
 * Runs one of PostgreSQL's programs on a database. The password goes by the environment: arguments can be read by
 * everybody on the machine. @throws with what it said when it fails.
 */
export async function runProgram(
  { bin }: BackupPlace,
  name: string,
  url: string,
  args: readonly string[],
): Promise<void> {
  const { hostname, port, username, password } = new URL(url);
  const child = spawn(join(bin, name), ['-h', hostname, '-p', port, '-U', username, '-d', nameOf(url), ...args], {
    stdio: ['ignore', 'ignore', 'pipe'],
    env: { ...process.env, PGPASSWORD: decodeURIComponent(password) },
  });
  let said = '';
  child.stderr.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-2000)));
  const code = await new Promise<number | null>((done, failed) => {
    child.once('close', done);
    child.once('error', failed);
  });
  if (code !== 0) throw new Error(`${name}: ${said.trim() || `code ${code}`}`);
}

/** An empty database beside the application's, of the same owner; one of that name that was there is dropped. */
export async function emptyDatabase({ url, adminUrl }: BackupPlace, name: string): Promise<string> {
  await liesWithin(adminUrl, async (admin) => {
    await admin.raw('drop database if exists ??', [name]);
    await admin.raw('create database ?? owner ??', [name, userOf(url)]);
  });
  return beside(url, name);
}

export const dropDatabase = ({ adminUrl }: BackupPlace, name: string): Promise<void> =>
  liesWithin(adminUrl, async (admin) => {
    await admin.raw('drop database if exists ??', [name]);
  });
