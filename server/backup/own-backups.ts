/** The backups that Tallow makes by itself: once a day and before its tables change; the oldest go. */
import type { Knex } from 'knex';
import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { migrationSource } from '../db/migrations.ts';
import { readBackupManifest } from './manifest.ts';
import { filesOf } from './place.ts';

const KEPT = 7;
/** Bytes that all of them may take with what lies beside them; the newest is kept however large it is. */
const MAX_BYTES = 20e9;
const DAY_MS = 24 * 60 * 60 * 1000;
const PART = /\.part$/;
const OWN = /^own-(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d)\.dump$/;

export const ownName = (now: Date): string => `own-${now.toISOString().slice(0, 19).replaceAll(':', '-')}.dump`;

/** Those of a folder that Tallow made by itself, oldest first. */
async function ownBackups(folder: string): Promise<string[]> {
  const names = await readdir(folder).catch(() => []);
  return names.filter((name) => OWN.test(name)).sort();
}

/** Whether the last one is a day old, or there is none. */
export async function isDue(folder: string, now: Date): Promise<boolean> {
  const last = OWN.exec((await ownBackups(folder)).at(-1) ?? '')?.[1];
  if (!last) return true;
  const [day, time] = last.split('T') as [string, string];
  return now.getTime() - Date.parse(`${day}T${time.replaceAll('-', ':')}Z`) >= DAY_MS;
}

/** Whether the tables of a database that is in use would be changed by this version. */
export async function isUpgrade(database: Knex): Promise<boolean> {
  if (!(await database.schema.hasTable('knex_migrations'))) return false;
  const done = new Set(await database('knex_migrations').pluck<string[]>('name'));
  return done.size > 0 && (await migrationSource.getMigrations([])).some((name) => !done.has(name));
}

const bytesOf = async (path: string): Promise<number> => (await stat(path).catch(() => null))?.size ?? 0;

/**
 * Takes away the oldest of Tallow's own until no more than seven are left and they fit; then the pictures and sounds that
 * no backup of the folder names any more. Backups that somebody asked for stay, with all that belongs to them.
 */
export async function thinBackups(folder: string, max = MAX_BYTES): Promise<void> {
  const { assets } = filesOf(join(folder, 'any'));
  const own = await ownBackups(folder);
  const sizes = await Promise.all(own.map((name) => bytesOf(join(folder, name))));
  const beside = await Promise.all((await readdir(assets).catch(() => [])).map((name) => bytesOf(join(assets, name))));
  let bytes = [...sizes, ...beside].reduce((sum, each) => sum + each, 0);
  for (const [i, name] of own.entries()) {
    const left = own.length - i;
    if (left <= 1 || (left <= KEPT && bytes <= max)) break;
    // The dump first: what stands without one is no backup.
    for (const path of [join(folder, name), filesOf(join(folder, name)).manifest]) await rm(path, { force: true });
    bytes -= sizes[i]!;
  }
  await dropUnnamed(folder);
}

/** Assets that no manifest of the folder names. Where one cannot be read, none is taken away. */
async function dropUnnamed(folder: string): Promise<void> {
  const { assets } = filesOf(join(folder, 'any'));
  const named = new Set<string>();
  for (const name of await readdir(folder)) {
    if (PART.test(name)) {
      const { mtimeMs } = await stat(join(folder, name));
      if (Date.now() - mtimeMs < DAY_MS) return;
      // Of a backup that was killed: nobody goes on with it.
      await rm(join(folder, name), { force: true });
      continue;
    }
    if (!name.endsWith('.dump.json')) continue;
    const held = await readBackupManifest(join(folder, name.slice(0, -'.json'.length))).catch(() => null);
    if (!held) return;
    for (const { sha256 } of held.assets) named.add(sha256);
  }
  for (const name of await readdir(assets).catch(() => []))
    if (!named.has(name)) await rm(join(assets, name), { force: true });
}
