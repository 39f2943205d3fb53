/** What tells whether two databases hold the same: of each table its rows, counted and summed. */
import type { Knex } from 'knex';

export interface Fingerprint {
  readonly rows: number;
  /** Sum over the rows of the first 60 bits of their MD5: the order they lie in does not matter. */
  readonly sum: string;
}

/** Kept beside dumps, by their own hashes. */
export const ASSETS = 'assets';

/** Fingerprints of all tables but that of assets, whose contents a dump does not hold. */
export async function fingerprintsOf(database: Knex): Promise<Record<string, Fingerprint>> {
  // Times read alike wherever the two are.
  await database.raw("set local timezone to 'UTC'");
  const tables = await database('pg_tables')
    .where({ schemaname: 'public' })
    .whereNot({ tablename: ASSETS })
    .orderBy('tablename')
    .pluck<string[]>('tablename');
  const found: Record<string, Fingerprint> = {};
  for (const table of tables) {
    const { rows } = await database.raw<{ rows: Fingerprint[] }>(
      `select count(*)::int as rows,
         coalesce(sum(('x' || left(md5(each::text), 15))::bit(60)::bigint), 0)::text as sum from ?? as each`,
      [table],
    );
    found[table] = rows[0]!;
  }
  return found;
}

/** The first table in which two databases differ, in words; null where they are the same. */
export function differenceOf(
  wanted: Readonly<Record<string, Fingerprint>>,
  found: Readonly<Record<string, Fingerprint>>,
): string | null {
  for (const table of new Set([...Object.keys(wanted), ...Object.keys(found)])) {
    const [a, b] = [wanted[table], found[table]];
    if (a?.rows !== b?.rows) return `${table} has ${b?.rows ?? 'no'} rows in place of ${a?.rows ?? 'none'}`;
    if (a?.sum !== b?.sum) return `rows of ${table} are not what they were`;
  }
  return null;
}
