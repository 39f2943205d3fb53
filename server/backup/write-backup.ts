/** A backup is written while drawing goes on, as of one moment, and checked before it counts. */
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { mkdir, open, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { ASSETS, differenceOf, fingerprintsOf } from './fingerprints.ts';
import { FORMAT, hashOf, type AssetRow, type Manifest } from './manifest.ts';
import { alone, dropDatabase, emptyDatabase, filesOf, runProgram, liesWithin, type BackupPlace } from './place.ts';

/** The whole database at one moment, however much is saved meanwhile. */
const ONE_MOMENT = { isolationLevel: 'repeatable read', readOnly: true } as const;

/** Bytes written to disk under a name that appears only when they are all there. */
async function writeWhole(path: string, content: Buffer): Promise<void> {
  const part = `${path}.part`;
  const file = await open(part, 'w', 0o600);
  try {
    await file.writeFile(content);
    await file.sync();
  } finally {
    await file.close();
  }
  await rename(part, path);
}

/** Puts the contents of assets beside the dump that are not there yet. A file that is not as long as its asset is written again. */
async function keepAssets(database: Knex, folder: string, rows: readonly AssetRow[]): Promise<void> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  for (const { sha256 } of rows) {
    const path = join(folder, sha256);
    const one = () => database(ASSETS).where({ sha256 });
    const [found] = await one().select<{ bytes: number }[]>(database.raw('length(content) as bytes'));
    if ((await stat(path).catch(() => null))?.size === found?.bytes) continue;
    const [row] = await one().select<{ content: Buffer }[]>('content');
    if (!row || createHash('sha256').update(row.content).digest('hex') !== sha256)
      throw new Error(`the asset ${sha256} is damaged in the database`);
    await writeWhole(path, row.content);
  }
}

/** Restores the dump into a database of its own and compares: a backup that cannot be read back is none. */
async function check(place: BackupPlace, dump: string, { tables, assets }: Manifest, folder: string): Promise<void> {
  const name = 'tallow_check';
  const url = await emptyDatabase(place, name);
  try {
    await runProgram(place, 'pg_restore', url, ['--no-owner', '--exit-on-error', dump]);
    const found = await liesWithin(url, (scratch) => scratch.transaction(fingerprintsOf));
    const difference = differenceOf(tables, found);
    if (difference) throw new Error(`what was written is not what was read: ${difference}`);
  } finally {
    await dropDatabase(place, name);
  }
  for (const { sha256 } of assets)
    if ((await hashOf(join(folder, sha256))) !== sha256) throw new Error(`the copy of asset ${sha256} is damaged`);
}

/**
 * Writes everything but what is made from it (exports, loops, the queue) to a dump, with what tells what it holds beside
 * it. @returns what it holds. @throws when it cannot be written or read back; nothing of it is left then.
 */
export async function writeBackup(place: BackupPlace, file: string): Promise<Manifest> {
  const { manifest: beside, assets: folder } = filesOf(file);
  await mkdir(dirname(file), { recursive: true, mode: 0o700 });
  const part = `${file}.part`;
  try {
    const held = await liesWithin(place.url, (database) =>
      database.transaction(async (tx) => {
        // It holds nobody up: it may rest for as long as the dump is written, and its moment with it.
        await tx.raw('set local idle_in_transaction_session_timeout = 0');
        const { rows: names } = await tx.raw<{ rows: { id: string }[] }>('select pg_export_snapshot() as id');
        const columns = Object.keys(await tx(ASSETS).columnInfo()).filter((name) => name !== 'content');
        const list = columns.length > 0 ? await tx(ASSETS).orderBy('sha256').select<AssetRow[]>(columns) : [];
        await runProgram(place, 'pg_dump', place.url, [
          '--format=custom',
          '--compress=1',
          '--no-owner',
          // The queue of what is to be made: made anew by itself.
          '--exclude-schema=pgboss',
          `--exclude-table-data=public.${ASSETS}`,
          `--snapshot=${names[0]!.id}`,
          `--file=${part}`,
        ]);
        await keepAssets(tx, folder, list);
        return {
          migrations: await tx('knex_migrations').orderBy('id').pluck<string[]>('name'),
          tables: await fingerprintsOf(tx),
          assets: list,
        };
      }, ONE_MOMENT),
    );
    const made: Manifest = { format: FORMAT, madeAt: new Date().toISOString(), dump: await hashOf(part), ...held };
    await alone(place, () => check(place, part, made, folder));
    await writeFile(`${beside}.part`, JSON.stringify(made), { mode: 0o600 });
    await rename(`${beside}.part`, beside);
    // Last: where the dump stands, all of it is there.
    await rename(part, file);
    return made;
  } catch (error) {
    for (const path of [part, `${beside}.part`]) await rm(path, { force: true });
    throw error;
  }
}
