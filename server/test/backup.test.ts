/** Backups: written while drawing goes on, read back elsewhere, and refused where they are not what they were. */
import { randomId, type Entity } from '@tallow/core/document';
import { spawnSync } from 'node:child_process';
import {
  appendFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fingerprintsOf } from '../backup/fingerprints.ts';
import { isDue, isUpgrade, ownName, thinBackups } from '../backup/own-backups.ts';
import { filesOf, liesWithin, type BackupPlace } from '../backup/place.ts';
import { readBackup, restoreBackup } from '../backup/restore-backup.ts';
import { writeBackup } from '../backup/write-backup.ts';
import { openDatabase } from '../db/database.ts';
import { startServer, type Harness } from './harness.ts';

interface Cluster extends BackupPlace {
  stop(): Promise<void>;
}
const { startCluster } = (await import(join(import.meta.dirname, '..', '..', 'scripts', 'database.mjs'))) as {
  startCluster(home: string, options: { settings: string[] }): Promise<Cluster>;
};

let server: Harness;
let place: BackupPlace;
const folder = mkdtempSync(join(tmpdir(), 'tallow-backups-'));
const file = join(folder, 'all.dump');
const production = randomId();

beforeAll(async () => {
  server = await startServer({ dump: 'stored/demo.dump' });
  place = server.place;
  await server.send('POST', '/productions', { id: production, name: 'P' });
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

async function newShot(): Promise<string> {
  const id = randomId();
  const size = { width: 64, height: 64, rate: 24, length: 2, background: null };
  const { status } = await server.send('POST', '/shots', { id, productionId: production, name: 'S', ...size });
  expect(status).toBe(201);
  return id;
}

test('a backup is of one moment while shots are made, and is the same in another home, pictures and sounds too', async () => {
  const content = Buffer.from('made up');
  const asset = { type: 'image/png', width: 1, height: 1, content };
  const sha256 = '77bd2e1ce0fb7c2e2ba2a9a5ec3c32c9b5a1f9cb1b1d2f1c8a2c4b9c0d1e2f30';
  await expect(
    server
      .database('assets')
      .insert({ ...asset, sha256 })
      .then(() => writeBackup(place, file)),
  ).rejects.toThrow('damaged in the database');
  expect(existsSync(file)).toBe(false);
  await server
    .database('assets')
    .where({ sha256 })
    .update({ sha256: await sha(content) });

  let drawing = true;
  const hand = (async () => {
    while (drawing) await newShot();
  })();
  const held = await writeBackup(place, file);
  drawing = false;
  await hand;
  expect(held.tables['shots']!.rows).toBeGreaterThan(3);
  expect((await server.database('shots')).length).toBeGreaterThanOrEqual(held.tables['shots']!.rows);
  expect(readdirSync(folder).sort()).toEqual(['all.dump', 'all.dump.json', 'assets']);

  const home = mkdtempSync(join(tmpdir(), 'tallow-restored-'));
  const other = await startCluster(home, { settings: ['fsync=off'] });
  await restoreBackup(other, file);
  const there = openDatabase(other.url);
  const found = await there.transaction(fingerprintsOf);
  // All but the history, which is another from now on.
  expect({ ...found, facts: null }).toEqual({ ...held.tables, facts: null });
  expect(await there('assets').select('sha256', 'type', 'content')).toEqual(
    await server.database('assets').select('sha256', 'type', 'content'),
  );
  await there.destroy();
  await other.stop();
  rmSync(home, { recursive: true });
}, 60_000);

const sha = async (content: Buffer): Promise<string> =>
  Buffer.from(await crypto.subtle.digest('SHA-256', new Uint8Array(content))).toString('hex');

test('after a restore the history is another: a page that was open loads anew, and what it holds is taken', async () => {
  const shot = await newShot();
  const opened = (await server.send('GET', `/shots/${shot}`)).json as {
    epoch: string;
    revision: number;
    entities: Entity[];
  };
  const early = join(folder, 'early.dump');
  await writeBackup(place, early);
  const layer = opened.entities.find(({ kind }) => kind === 'layer')!;
  const save = (epoch: string, baseRevision: number, name: string) =>
    server.send('POST', `/shots/${shot}/saves`, {
      saveId: randomId(),
      epoch,
      baseRevision,
      puts: [{ id: layer.id, kind: 'layer', body: { ...layer, name } }],
      deletes: [],
    });
  expect((await save(opened.epoch, opened.revision, 'later')).status).toBe(200);
  await server.database('exports').insert({
    ...{ id: randomId(), shot_id: shot, state: 'running', frames: 2, file_name: 'f' },
  });
  const running = join(folder, 'running.dump');
  await writeBackup(place, running);

  // The application lets go of the database for as long as it is replaced.
  await server.database.destroy();
  await restoreBackup(place, early);
  server.database.initialize();
  const stale = await save(opened.epoch, opened.revision + 1, 'later still');
  expect(stale.status).toBe(409);
  const { epoch } = stale.json as { epoch: string };
  expect(epoch).not.toBe(opened.epoch);
  const again = (await server.send('GET', `/shots/${shot}`)).json as { revision: number };
  expect(again.revision).toBe(opened.revision);
  expect((await save(epoch, again.revision, 'later still')).status).toBe(200);

  await server.database.destroy();
  await restoreBackup(place, running);
  server.database.initialize();
  expect(await server.database('exports').where({ shot_id: shot }).pluck('state')).toEqual(['failed']);
}, 60_000);

describe('what is not what was written is refused, by file, and nothing is replaced', () => {
  const refused = async (words: string) => {
    const before = await server.database.transaction(fingerprintsOf);
    await expect(restoreBackup(place, file)).rejects.toThrow(words);
    expect(await server.database.transaction(fingerprintsOf)).toEqual(before);
    const databases = await server.database('pg_database').pluck<string[]>('datname');
    expect(databases.filter((name) => name.startsWith('tallow'))).toEqual(['tallow']);
  };
  /** Does something to a file, and puts it back as it was. */
  const spoilt = async (path: string, spoil: () => void, words: string) => {
    const was = readFileSync(path);
    spoil();
    await refused(words);
    writeFileSync(path, was);
  };
  const { dump, manifest, assets } = filesOf(file);
  const changed = (change: Record<string, unknown>) => () => {
    const held = JSON.parse(readFileSync(manifest, 'utf8')) as Record<string, unknown>;
    writeFileSync(manifest, JSON.stringify({ ...held, ...change }));
  };

  test('a dump that is cut off or longer', async () => {
    await spoilt(
      dump,
      () => {
        writeFileSync(dump, readFileSync(dump).subarray(0, 5000));
      },
      `${dump} is damaged`,
    );
    await spoilt(
      dump,
      () => {
        appendFileSync(dump, 'x');
      },
      `${dump} is damaged`,
    );
  });
  test('an asset that is missing or damaged', async () => {
    const [name] = readdirSync(assets);
    const path = join(assets, name!);
    await spoilt(
      path,
      () => {
        rmSync(path);
      },
      `${path} is not there`,
    );
    await spoilt(
      path,
      () => {
        writeFileSync(path, 'other');
      },
      `${path} is damaged`,
    );
  });
  test('what tells what it holds: missing, no JSON, of a newer Tallow, or of other counts', async () => {
    await spoilt(
      manifest,
      () => {
        rmSync(manifest);
      },
      'is not there',
    );
    await spoilt(
      manifest,
      () => {
        writeFileSync(manifest, '{');
      },
      'not JSON',
    );
    await spoilt(manifest, changed({ migrations: 'all' }), 'migrations');
    await spoilt(manifest, changed({ format: 2 }), 'newer Tallow');
    await spoilt(manifest, changed({ migrations: ['001-documents', '999-later'] }), '999-later');
    const { tables } = await readBackup(file);
    const fewer = { ...tables, shots: { ...tables['shots']!, rows: 1 } };
    await spoilt(manifest, changed({ tables: fewer }), 'shots has');
  });
});

test('where nothing can be written, nothing of it is left, and that is said', async () => {
  const taken = join(folder, 'taken');
  writeFileSync(taken, '');
  await expect(writeBackup(place, join(taken, 'in', 'it.dump'))).rejects.toThrow(/ENOTDIR|EEXIST/);
});

test('of its own Tallow keeps the last seven that fit, and what somebody asked for', async () => {
  const own = mkdtempSync(join(tmpdir(), 'tallow-own-'));
  const at = (day: number) => new Date(Date.UTC(2026, 10, day, 4, 5, 6));
  const manifest = (assets: string[]) =>
    JSON.stringify({
      ...{ format: 1, madeAt: at(1).toISOString(), migrations: [], dump: '0'.repeat(64), tables: {} },
      assets: assets.map((sha256) => ({ sha256 })),
    });
  const put = (name: string, assets: string[]) => {
    const files = filesOf(join(own, name));
    writeFileSync(files.dump, 'x'.repeat(100));
    writeFileSync(files.manifest, manifest(assets));
  };
  const asset = (n: number) => String(n).padStart(64, '0');
  expect(await isDue(own, at(1))).toBe(true);
  const { assets } = filesOf(join(own, 'any'));
  put('asked.dump', [asset(1)]);
  for (let day = 1; day <= 9; day++) put(ownName(at(day)), [asset(day), asset(99)]);
  mkdirSync(assets);
  for (const n of [1, 2, 3, 9, 99]) writeFileSync(join(assets, asset(n)), 'y'.repeat(10));
  expect(await isDue(own, at(9))).toBe(false);
  expect(await isDue(own, at(10))).toBe(true);

  const dumps = () => readdirSync(own).filter((name) => name.endsWith('.dump'));
  await thinBackups(own);
  expect(dumps()).toEqual(['asked.dump', ...[3, 4, 5, 6, 7, 8, 9].map((day) => ownName(at(day)))]);
  expect(readdirSync(assets)).toEqual([1, 3, 9, 99].map(asset));
  await thinBackups(own, 350);
  expect(dumps()).toEqual(['asked.dump', ...[7, 8, 9].map((day) => ownName(at(day)))]);
  await thinBackups(own, 1);
  expect(dumps()).toEqual(['asked.dump', ownName(at(9))]);
  // One that is being written may name anything; one that was killed a day ago is taken away.
  const part = join(own, 'other.dump.part');
  writeFileSync(part, 'x');
  writeFileSync(join(assets, asset(5)), 'y');
  await thinBackups(own, 1);
  expect([existsSync(part), existsSync(join(assets, asset(5)))]).toEqual([true, true]);
  const yesterday = new Date(Date.now() - 25 * 60 * 60 * 1000);
  utimesSync(part, yesterday, yesterday);
  await thinBackups(own, 1);
  expect([existsSync(part), existsSync(join(assets, asset(5)))]).toEqual([false, false]);
  // Where what a backup names cannot be read, nothing that it may name goes.
  writeFileSync(filesOf(join(own, 'asked.dump')).manifest, '{');
  rmSync(join(own, ownName(at(9))));
  await thinBackups(own, 1);
  expect(readdirSync(assets)).toEqual([1, 9, 99].map(asset));
  rmSync(own, { recursive: true });
});

test('an upgrade is noticed before it is made', async () => {
  expect(await isUpgrade(server.database)).toBe(false);
  const last = await server.database('knex_migrations').orderBy('id', 'desc').first<{ name: string }>('name');
  await server.database('knex_migrations').where(last).delete();
  expect(await isUpgrade(server.database)).toBe(true);
});

test('two backups at once are both checked, and nothing of the checks is left', async () => {
  const files = ['one.dump', 'two.dump'].map((name) => join(folder, name));
  const [one, two] = await Promise.all(files.map((path) => writeBackup(place, path)));
  expect(one!.tables['entities']).toEqual(two!.tables['entities']);
  const databases = await liesWithin(place.adminUrl, (all) => all('pg_database').pluck<string[]>('datname'));
  expect(databases.filter((name) => name.startsWith('tallow')).sort()).toEqual(['tallow']);
}, 60_000);

test.each(['backup', 'restore'])('a database that is somebody else’s is left alone: npm run %s', (name) => {
  const script = join(import.meta.dirname, '..', '..', 'scripts', `${name}.mjs`);
  const { status, stderr } = spawnSync(process.execPath, [script, 'any.dump'], {
    env: { ...process.env, DATABASE_URL: 'postgres://elsewhere/x' },
    encoding: 'utf8',
  });
  expect([status, stderr]).toEqual([1, expect.stringContaining('yours to look after')]);
});
