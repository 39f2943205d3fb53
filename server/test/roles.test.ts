/** What the application may do in its database, in new homes and in those that were made before it had a role of its own. */
import { execFileSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { migrate, openDatabase } from '../db/database.ts';
import { openQueue } from '../queue/queue.ts';

interface Scripts {
  startCluster(
    home: string,
    options: { settings: string[] },
  ): Promise<{ url: string; port: number; stop(): Promise<void> }>;
  restore(url: string, dump: string): void;
  closeHome(home: string): void;
}
const folder = join(import.meta.dirname, '..', '..', 'scripts');
const { startCluster, restore } = (await import(join(folder, 'database.mjs'))) as Scripts;
const { closeHome } = (await import(join(folder, 'private-home.mjs'))) as Scripts;

const home = mkdtempSync(join(tmpdir(), 'tallow-roles-'));
chmodSync(home, 0o755);
const settings = ['fsync=off'];
afterAll(() => {
  rmSync(home, { recursive: true, force: true });
});

/** Everything that somebody made in the database, with whose it is. */
const OWNERS = `
  select distinct pg_get_userbyid(owner) as owner from (
    select relowner as owner, relnamespace as space from pg_class
    union all select proowner, pronamespace from pg_proc
    union all select typowner, typnamespace from pg_type
    union all select nspowner, oid from pg_namespace where nspname <> 'public'
  ) things join pg_namespace on pg_namespace.oid = space
  where nspname !~ '^pg_' and nspname <> 'information_schema'`;

test('the application owns its database, and can do nothing beyond it', async () => {
  const cluster = await startCluster(home, { settings });
  const database = openDatabase(cluster.url);
  const { rows } = await database.raw<{ rows: object[] }>(
    'select rolsuper, rolcreaterole, rolcreatedb, rolreplication from pg_roles where rolname = current_user',
  );
  expect(rows).toEqual([{ rolsuper: false, rolcreaterole: false, rolcreatedb: false, rolreplication: false }]);
  for (const sql of [
    'select * from pg_authid',
    "copy (select 1) to program 'true'",
    "select pg_read_file('postgresql.conf')",
    'create role other',
    'create database other',
    'alter role current_user superuser',
  ])
    await expect(database.raw(sql)).rejects.toThrow(/permission denied|must be superuser/);
  await migrate(database);
  expect((await database.raw<{ rows: object[] }>(OWNERS)).rows).toEqual([{ owner: 'tallow_app' }]);
  await database.destroy();
  await cluster.stop();
});

test('an older home, whose role owned everything and was a superuser, is handed over with all that is in it', async () => {
  const cluster = await startCluster(home, { settings });
  const password = readFileSync(join(home, 'database-password'), 'utf8').trim();
  const older = cluster.url.replace(/\/\/.*@/, `//tallow:${password}@`);
  const admin = openDatabase(older.replace(/tallow$/, 'postgres'));
  await admin.raw('drop database tallow');
  await admin.raw('drop role tallow_app');
  await admin.raw('create database tallow owner tallow');
  await admin.destroy();
  restore(older, join(import.meta.dirname, 'stored/demo.dump'));
  const queue = await openQueue(older, () => undefined);
  await queue.stop();
  const before = openDatabase(older);
  await before.raw("create type mood as enum ('calm'); create view shown as select 1 as one");
  const count = async (database: typeof before) => (await database('entities').count()) as unknown;
  const had = await count(before);
  await before.destroy();
  await cluster.stop();

  // Twice: what has been handed over already is left as it is.
  for (let start = 0; start < 2; start++) {
    const again = await startCluster(home, { settings });
    const database = openDatabase(again.url);
    await migrate(database);
    expect((await database.raw<{ rows: object[] }>(OWNERS)).rows).toEqual([{ owner: 'tallow_app' }]);
    expect(await count(database)).toEqual(had);
    await (await openQueue(again.url, () => undefined)).stop();
    await database.destroy();
    await again.stop();
  }
}, 60_000);

test('passwords stand in files that only their owner reads, and in no arguments', async () => {
  const cluster = await startCluster(home, { settings });
  for (const name of ['database-password', 'application-password'])
    expect(statSync(join(home, name)).mode & 0o777).toBe(0o600);
  const running = execFileSync('ps', ['-eo', 'args']).toString();
  for (const name of ['database-password', 'application-password'])
    expect(running).not.toContain(readFileSync(join(home, name), 'utf8').trim());
  await cluster.stop();
});

test('what lies in a home can be read by nobody else, and what it points at outside is left alone', () => {
  const made = mkdtempSync(join(tmpdir(), 'tallow-open-home-'));
  const outside = join(made, '..', `${made.split('/').at(-1)!}-outside`);
  writeFileSync(outside, '', { mode: 0o644 });
  chmodSync(made, 0o755);
  mkdirSync(join(made, 'exports', 'deep'), { recursive: true, mode: 0o755 });
  writeFileSync(join(made, 'exports', 'deep', 'a.mp4'), '', { mode: 0o644 });
  symlinkSync(outside, join(made, 'exports', 'link'));
  closeHome(made);
  const mode = (...path: string[]) => statSync(join(made, ...path)).mode & 0o777;
  expect([mode('exports'), mode('exports', 'deep'), mode('exports', 'deep', 'a.mp4')]).toEqual([0o700, 0o700, 0o600]);
  expect(mode() & 0o066).toBe(0);
  expect(statSync(outside).mode & 0o777).toBe(0o644);
  rmSync(made, { recursive: true });
  rmSync(outside);
});
