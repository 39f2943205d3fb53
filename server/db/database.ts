import knexModule, { type Knex } from 'knex';
import type { PoolConfig } from 'pg';
import { migrationSource } from './migrations.ts';

export const DATABASE = Symbol('database');

/** Nobody waits for ever for somebody who has gone away with a lock, ms. */
const PATIENCE: Pick<PoolConfig, 'lock_timeout' | 'idle_in_transaction_session_timeout'> = {
  lock_timeout: 20_000,
  idle_in_transaction_session_timeout: 60_000,
};

/** Opens a pool to the database. A lost database is noticed within seconds and found again by itself. */
export function openDatabase(url: string, max = 8): Knex {
  return knexModule({
    client: 'pg',
    connection: { connectionString: url, connectionTimeoutMillis: 2500, ...PATIENCE },
    pool: { min: 0, max, acquireTimeoutMillis: 4000, createRetryIntervalMillis: 150, propagateCreateError: true },
    acquireConnectionTimeout: 4000,
  });
}

/** The database has been used by a version of Tallow that knows more than this one. */
export class NewerDatabase extends Error {}

/** Brings the tables up to date. @throws NewerDatabase, having changed nothing. */
export async function migrate(database: Knex): Promise<void> {
  const known = new Set(await migrationSource.getMigrations([]));
  const done = (await database.schema.hasTable('knex_migrations'))
    ? await database<{ name: string }>('knex_migrations').pluck('name')
    : [];
  const newer = done.filter((name) => !known.has(name)).sort();
  if (newer.length > 0)
    throw new NewerDatabase(
      `This work was made with a newer Tallow (its database has ${newer.join(', ')}). Update this clone, or set TALLOW_HOME to another folder. Nothing was changed.`,
    );
  await database.migrate.latest({ migrationSource });
}

/** Codes that say that the database could not be reached. */
const LOST = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '57P05',
  '08006',
  '08001',
  '08003',
]);

/** Codes that say that it, or its machine, has run out of something. PostgreSQL, appendix A, and errno. */
const SHORT: Readonly<Record<string, string>> = {
  '53100': 'The disk of the server is full',
  ENOSPC: 'The disk of the server is full',
  EDQUOT: 'The disk of the server is full',
  '53200': 'The database has run out of memory',
  '53300': 'The database has no connection left',
  '55P03': 'The database is busy',
  '25P03': 'The database is busy',
  '58030': 'The disk of the server cannot be written',
  EIO: 'The disk of the server cannot be written',
};

function said(error: unknown, is: (code: string | undefined, message: string) => string | null): string | null {
  if (typeof error !== 'object' || error === null) return null;
  const { code, message, errors, cause } = error as Record<'code' | 'message' | 'errors' | 'cause', unknown>;
  const own = is(typeof code === 'string' ? code : undefined, typeof message === 'string' ? message : '');
  if (own !== null) return own;
  for (const each of [...(Array.isArray(errors) ? (errors as unknown[]) : []), cause]) {
    const inner = said(each, is);
    if (inner !== null) return inner;
  }
  return null;
}

const LOST_WORDS =
  /Connection terminated|Timeout acquiring a connection|timeout expired|Client has encountered a connection error/i;

/**
 * Why the database or the disk cannot serve for now, said to the user, or null when the error is none that passes: the
 * same request may well succeed later.
 */
export const whyLater = (error: unknown): string | null =>
  said(error, (code, message) => {
    if (code !== undefined && code in SHORT) return SHORT[code]!;
    if (/No space left on device/i.test(message)) return SHORT['53100']!;
    return (code !== undefined && LOST.has(code)) || LOST_WORDS.test(message) ? 'The database cannot be reached' : null;
  });
