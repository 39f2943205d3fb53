/** Where the work lies, how it is moved, and what an older Tallow says of it. */
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { migrate, NewerDatabase, openDatabase } from '../db/database.ts';

interface Scripts {
  homeOf(told: { env: Record<string, string>; clone: string; say: (line: string) => void }): string;
  moveHome(from: string, to: string): void;
  startCluster(home: string, options: { settings: string[] }): Promise<{ url: string; stop(): Promise<void> }>;
}
const scripts = join(import.meta.dirname, '..', '..', 'scripts');
const load = async (name: string) => (await import(join(scripts, name))) as Scripts;
const { homeOf } = await load('home.mjs');
const { moveHome } = await load('moving-home.mjs');
const { startCluster } = await load('database.mjs');

const base = mkdtempSync(join(tmpdir(), 'tallow-homes-'));
chmodSync(base, 0o755);
afterAll(() => {
  rmSync(base, { recursive: true, force: true });
});
const settings = ['fsync=off'];

test('the home is what is set, else the clone’s own where work lies in it, else the user’s data folder', () => {
  const clone = join(base, 'clone');
  const own = join(clone, '.tallow');
  const said: string[] = [];
  const home = (env: Record<string, string>) => homeOf({ env, clone, say: (line) => said.push(line) });
  mkdirSync(own, { recursive: true });
  expect(home({ HOME: '/home/t' })).toBe('/home/t/.local/share/tallow');
  expect(home({ HOME: '/home/t', XDG_DATA_HOME: '/data' })).toBe('/data/tallow');
  // The specification: what is not absolute counts as not set.
  expect(home({ HOME: '/home/t', XDG_DATA_HOME: 'data' })).toBe('/home/t/.local/share/tallow');
  expect(said).toEqual([]);
  writeFileSync(join(own, 'database-password'), 'x');
  expect(home({ HOME: '/home/t' })).toBe(own);
  expect(said).toEqual([
    `Your work lies in ${own}, within the clone: \`git clean -fdx\` would delete it. This moves it to /home/t/.local/share/tallow: npm run move-home`,
  ]);
  expect(home({ HOME: '/home/t', TALLOW_HOME: '/else' })).toBe('/else');
  expect(said).toHaveLength(1);
});

test('a home is moved with all that is in it, and not while it is used or onto something else', async () => {
  const [from, to] = [join(base, 'from'), join(base, 'deep', 'to')];
  expect(() => {
    moveHome(from, to);
  }).toThrow('nothing in');
  const cluster = await startCluster(from, { settings });
  const database = openDatabase(cluster.url);
  await migrate(database);
  await database('productions').insert({ id: '7a110000-0000-4000-8000-00000000aaaa', name: 'Kept' });
  await database.destroy();
  mkdirSync(join(from, 'exports'));
  writeFileSync(join(from, 'exports', 'a.mp4'), 'frames', { mode: 0o600 });
  expect(() => {
    moveHome(from, to);
  }).toThrow('Stop it first');
  await cluster.stop();
  mkdirSync(to, { recursive: true });
  writeFileSync(join(to, 'other'), '');
  expect(() => {
    moveHome(from, to);
  }).toThrow('not empty');
  rmSync(join(to, 'other'));

  moveHome(from, to);
  expect(existsSync(from)).toBe(false);
  expect(readdirSync(join(base, 'deep'))).toEqual(['to']);
  expect(statSync(join(to, 'exports', 'a.mp4')).size).toBe(6);
  const again = await startCluster(to, { settings });
  const there = openDatabase(again.url);
  expect(await there('productions').pluck('name')).toContain('Kept');
  await there.destroy();
  await again.stop();
}, 60_000);

test('a database that a newer Tallow has used is left as it is, and that is said', async () => {
  const cluster = await startCluster(join(base, 'newer'), { settings });
  const database = openDatabase(cluster.url);
  await migrate(database);
  await migrate(database);
  await database('knex_migrations').insert({ name: '999-later', batch: 9, migration_time: new Date() });
  const tables = () => database('information_schema.tables').where({ table_schema: 'public' }).pluck('table_name');
  await database.schema.dropTable('kept');
  const before = await tables();
  await expect(migrate(database)).rejects.toThrow(NewerDatabase);
  await expect(migrate(database)).rejects.toThrow('999-later');
  expect(await tables()).toEqual(before);
  await database.destroy();
  await cluster.stop();
}, 60_000);
