import knexModule, { type Knex } from 'knex';
import { migrationSource } from './migrations.ts';

export const DATABASE = Symbol('database');

/** Opens a pool to the database. A lost database is noticed within seconds and found again by itself. */
export function openDatabase(url: string, most = 8): Knex {
  return knexModule({
    client: 'pg',
    connection: { connectionString: url, connectionTimeoutMillis: 2500 },
    pool: { min: 0, max: most, acquireTimeoutMillis: 4000, createRetryIntervalMillis: 150, propagateCreateError: true },
    acquireConnectionTimeout: 4000,
  });
}

/** Brings the tables up to date. */
export async function migrate(database: Knex): Promise<void> {
  await database.migrate.latest({ migrationSource });
}

const LOST = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
  '53300',
]);

/** Whether an error means that the database could not be reached, rather than that it refused. */
export function isLost(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code, errors } = error as { code?: unknown; errors?: unknown[] };
  if (Array.isArray(errors) && errors.some(isLost)) return true;
  return (
    (typeof code === 'string' && LOST.has(code)) ||
    /Connection terminated|Timeout acquiring a connection|timeout expired|Client has encountered a connection error/i.test(
      error.message,
    )
  );
}
