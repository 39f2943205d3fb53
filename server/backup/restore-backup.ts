/** A backup put in the place of the database: looked at whole before anything is replaced. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { Knex } from 'knex';
import { migrationSource } from '../db/migrations.ts';
import { ASSETS, differenceOf, fingerprintsOf } from './fingerprints.ts';
import { hashOf, readBackupManifest, type Manifest } from './manifest.ts';
import { dropDatabase, emptyDatabase, filesOf, nameOf, runProgram, liesWithin, type BackupPlace } from './place.ts';

/** Looks at the files of a backup. @throws in words, naming the file, where one is missing, damaged or too new. */
export async function readBackup(file: string): Promise<Manifest> {
  const held = await readBackupManifest(file);
  const known = new Set(await migrationSource.getMigrations([]));
  const newer = held.migrations.filter((name) => !known.has(name));
  if (newer.length > 0)
    throw new Error(
      `${file} was made by a newer Tallow (its database has ${newer.join(', ')}). Update this one first.`,
    );
  const { dump, assets } = filesOf(file);
  const hashed = async (path: string, wanted: string) => {
    const found = await hashOf(path).catch(() => null);
    if (found === null) throw new Error(`${path} is not there or cannot be read.`);
    if (found !== wanted) throw new Error(`${path} is damaged: its hash is not what it was.`);
  };
  await hashed(dump, held.dump);
  for (const { sha256 } of held.assets) await hashed(join(assets, sha256), sha256);
  return held;
}

/** What was being made when the backup was written is not made any more. */
async function endWork(database: Knex): Promise<void> {
  for (const table of ['exports', 'footage', 'archives'])
    if (await database.schema.hasTable(table))
      await database(table)
        .whereIn('state', ['waiting', 'running'])
        .update({ state: 'failed', trouble: 'It was being made when the backup was written. Make it again.' });
}

/** PostgreSQL, appendix A: object_in_use. */
const IN_USE = '55006';
const TRIES = 40;

/** Puts one database in the place of another; whoever still holds on to that is sent away. */
async function exchange(admin: Knex, names: { name: string; coming: string; before: string }): Promise<void> {
  const { name, coming, before } = names;
  for (let left = TRIES; ; left--)
    try {
      await admin.raw('select pg_terminate_backend(pid) from pg_stat_activity where datname = ?', [name]);
      await admin.transaction(async (tx) => {
        await tx.raw('alter database ?? rename to ??', [name, before]);
        await tx.raw('alter database ?? rename to ??', [coming, name]);
      });
      return;
    } catch (error) {
      if (left === 0 || (error as { code?: string }).code !== IN_USE) throw error;
      await pause(50);
    }
}

/**
 * Puts a backup in the place of the application's database, which must not be in use. It is built and compared in a
 * database of its own first; the last step is one renaming. Its history is another from then on: open pages load anew and
 * send what they hold. @throws in words; nothing was replaced then.
 */
export async function restoreBackup(place: BackupPlace, file: string): Promise<Manifest> {
  const held = await readBackup(file);
  const { dump, assets } = filesOf(file);
  const coming = 'tallow_coming';
  const url = await emptyDatabase(place, coming);
  try {
    await runProgram(place, 'pg_restore', url, ['--no-owner', '--exit-on-error', dump]);
    await liesWithin(url, async (database) => {
      const difference = differenceOf(held.tables, await database.transaction(fingerprintsOf));
      if (difference) throw new Error(`The dump is not what was written: ${difference}.`);
      for (const row of held.assets)
        await database(ASSETS).insert({ ...row, content: await readFile(join(assets, row.sha256)) });
      if (await database.schema.hasTable('facts'))
        await database('facts')
          .where({ name: 'epoch' })
          .update({ value: database.raw('to_jsonb(gen_random_uuid()::text)') });
      await endWork(database);
    });
    const [name, before] = [nameOf(place.url), 'tallow_before'];
    await dropDatabase(place, before);
    await liesWithin(place.adminUrl, (admin) => exchange(admin, { name, coming, before }));
    await dropDatabase(place, before);
  } catch (error) {
    await dropDatabase(place, coming);
    throw error;
  }
  return held;
}
