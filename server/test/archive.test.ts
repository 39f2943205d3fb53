/** The archive: read back exactly on another server, beside itself under new ids, and not at all where anything is wrong with it. */
import { createCanvas } from '@napi-rs/canvas';
import {
  dropEntities,
  encodeEntity,
  entitiesOf,
  putEntities,
  randomId,
  shotOf,
  type Id,
  type Plate,
} from '@tallow/core/document';
import { setShot } from '@tallow/core/edit';
import { archivePath, MANIFEST } from '@tallow/core/formats';
import { seededRandom } from '@tallow/core/geometry';
import { everyKind } from '../../core/testing/every-kind.ts';
import { fuzzed } from '../../core/testing/fuzzed.ts';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { unzipSync, zipSync, type Zippable } from 'fflate';
import { runArchive } from '../archive/archive-job.ts';
import { archiveFile, type ArchiveAnswer } from '../archive/archives.service.ts';
import { PicturesService } from '../cards/pictures.service.ts';
import { shotServices } from '../shots/services.ts';
import { damagedCount } from './damage.ts';
import { changingShot, documentOn } from './changing.ts';
import { startServer, type Harness } from './harness.ts';

const DAMAGED = damagedCount(80);

let server: Harness;
let other: Harness;
const production = randomId();
const picturesOn = ({ database }: Harness) => new PicturesService(shotServices(database).shots, database);
/** Homes are found through the environment. */
const at = async <T>(home: Harness, work: () => Promise<T>): Promise<T> => {
  process.env['TALLOW_HOME'] = home.home;
  return work();
};

/** Writes an archive. @returns its path. */
const written = (home: Harness, scope: string, of?: Id): Promise<string> =>
  at(home, async () => {
    const { status, json } = await home.send('POST', '/archives', { scope, of });
    expect(status).toBe(201);
    const { id } = json as ArchiveAnswer;
    await runArchive(home.database, picturesOn(home), id);
    const after = (await home.send('GET', `/archives/${id}`)).json as ArchiveAnswer;
    expect(after).toMatchObject({ state: 'done', trouble: null });
    const fetched = await fetch(`${home.address}/api/archives/${id}/file`);
    expect(fetched.headers.get('content-disposition')).toMatch(/\.tallow\.zip"?$/);
    expect(Buffer.from(await fetched.arrayBuffer()).equals(readFileSync(archiveFile(id)))).toBe(true);
    return archiveFile(id);
  });

/** Hands in what lies at a path, and has it read. */
const read = (home: Harness, content: Uint8Array): Promise<ArchiveAnswer> =>
  at(home, async () => {
    const answer = await fetch(`${home.address}/api/archives/in?name=some.tallow.zip`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: Buffer.from(content),
    });
    expect(answer.status).toBe(201);
    const { id } = (await answer.json()) as ArchiveAnswer;
    await runArchive(home.database, picturesOn(home), id);
    return (await home.send('GET', `/archives/${id}`)).json as ArchiveAnswer;
  });

/** All rows of shots, but for when they came and the marks of what is deleted. */
async function rowsOf({ database }: Harness, shots: readonly Id[]) {
  const of = (table: string, ...columns: string[]) =>
    database(table).whereIn('shot_id', shots).orderBy(columns.slice(0, 2)).select(columns);
  const entities = (await of('entities', 'id', 'revision', 'kind', 'deleted', 'body', 'shot_id')) as {
    deleted: boolean;
    kind: string;
    body: Record<string, unknown>;
  }[];
  return {
    shots: await database('shots').whereIn('id', shots).orderBy('id').select('id', 'production_id', 'revision'),
    entities: entities.map((row) => (row.deleted && row.kind === 'drawing' ? { ...row, body: null } : row)),
    older: await of('older_bodies', 'id', 'revision', 'deleted', 'body', 'shot_id'),
    versions: await of('versions', 'id', 'revision', 'name', 'made', 'shot_id', 'created_at'),
  };
}
const count = async ({ database }: Harness): Promise<string> => {
  const tables = ['productions', 'shots', 'entities', 'older_bodies', 'versions', 'assets', 'shelf', 'kept'];
  return JSON.stringify(await Promise.all(tables.map((table) => database(table).count())));
};

const png = createCanvas(8, 6).toBuffer('image/png');
let shot: Id;
let archive: Buffer;

beforeAll(async () => {
  server = await startServer();
  other = await startServer();
  await server.send('POST', '/productions', { id: production, name: 'Archived' });
  await at(server, () =>
    fetch(`${server.address}/api/assets?name=a.png`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: Buffer.from(png),
    }),
  );
  const sha256 = createHash('sha256').update(png).digest('hex');
  // A shot of every kind of entity, named, drawn on, a drawing of it taken away, named again.
  const doc = everyKind(randomId);
  const [plate] = entitiesOf(doc, 'plate');
  const made = await changingShot(
    server,
    production,
    'All',
    putEntities(doc, { ...plate!, assets: [sha256] } as Plate),
  );
  shot = made.id;
  await server.send('POST', `/shots/${shot}/versions`, { id: randomId(), name: 'First' });
  await made.change((now) => setShot(now, { name: 'Everything, later' }));
  const spare = randomId();
  await made.change((now) => putEntities(now, { ...entitiesOf(now, 'drawing')[0]!, id: spare }));
  await server.send('POST', `/shots/${shot}/versions`, { id: randomId(), name: 'Second' });
  await made.change((now) => dropEntities(now, [spare]));
  archive = readFileSync(await written(server, 'shot', shot));
}, 120_000);
afterAll(async () => {
  await server.stop();
  await other.stop();
});

test('a shot of every kind comes back to the bit on another server, with its named versions and what they show', async () => {
  const came = await read(other, archive);
  expect(came).toMatchObject({ state: 'done', shots: [{ id: shot, renewed: false, onShelf: false }] });
  const [before, after] = [await rowsOf(server, [shot]), await rowsOf(other, [shot])];
  expect(after.shots).toEqual(before.shots);
  expect(after.entities).toEqual(before.entities);
  expect(after.versions).toEqual(before.versions);
  // Of older bodies those that a named version shows.
  for (const row of after.older) expect(before.older).toContainEqual(row);
  for (const { id } of before.versions as { id: Id }[]) {
    const [one, two] = await Promise.all(
      [server, other].map(async (home) =>
        (await fetch(`${home.address}/api/versions/${id}/picture.png`)).arrayBuffer(),
      ),
    );
    expect(Buffer.from(one!).equals(Buffer.from(two!))).toBe(true);
  }
  const first = (before.versions as { id: Id; name: string }[]).find(({ name }) => name === 'First')!.id;
  expect((await other.send('POST', `/versions/${first}/restore`)).status).toBe(200);
  expect(shotOf(await documentOn(other, shot)).name).not.toBe('Everything, later');
});

test.each([1, 2, 3])('whatever values a shot of every kind has, it comes back to the bit, seed %i', async (seed) => {
  const random = seededRandom(seed);
  const plain = everyKind(randomId);
  const doc = fuzzed(plain, random);
  const changed = Object.keys(plain.entities).filter(
    (id) => JSON.stringify(encodeEntity(doc.entities[id]!)) !== JSON.stringify(encodeEntity(plain.entities[id]!)),
  );
  // Some kinds are ids and choices alone.
  const kindsOf = (ids: readonly Id[]) => new Set(ids.map((id) => plain.entities[id]!.kind)).size;
  expect(kindsOf(changed)).toBeGreaterThan(0.8 * kindsOf(Object.keys(plain.entities)));
  const sha256 = createHash('sha256').update(png).digest('hex');
  const [plate] = entitiesOf(doc, 'plate');
  const { id } = await changingShot(
    server,
    production,
    'Fuzzed',
    putEntities(doc, { ...plate!, assets: [sha256] } as Plate),
  );
  const came = await read(other, readFileSync(await written(server, 'shot', id)));
  expect(came).toMatchObject({ state: 'done', shots: [{ id, renewed: false }] });
  const [before, after] = [await rowsOf(server, [id]), await rowsOf(other, [id])];
  expect(after.entities).toEqual(before.entities);
  expect((await picturesOn(other).ofShot(id)).equals(await picturesOn(server).ofShot(id))).toBe(true);
});

test('what exists already comes in beside it under new ids, drawn to the same pixels, and nothing of the first changes', async () => {
  const before = await rowsOf(server, [shot]);
  const came = await read(server, archive);
  expect(came).toMatchObject({ state: 'done', shots: [{ renewed: true }] });
  const copy = came.shots[0]!.id;
  expect(copy).not.toBe(shot);
  expect(await rowsOf(server, [shot])).toEqual(before);
  const [a, b] = [await documentOn(server, shot), await documentOn(server, copy)];
  expect(Object.keys(b.entities).filter((id) => id in a.entities)).toEqual([]);
  const kinds = (doc: typeof a) =>
    Object.values(doc.entities)
      .map(({ kind }) => kind)
      .sort();
  expect(kinds(b)).toEqual(kinds(a));
  const pictures = picturesOn(server);
  expect((await pictures.ofShot(copy)).equals(await pictures.ofShot(shot))).toBe(true);
  const versions = (await server.send('GET', `/shots/${copy}/versions`)).json as { id: Id; name: string }[];
  expect(versions.map(({ name }) => name).sort()).toEqual(['First', 'Second']);
  for (const { id } of versions)
    expect((await fetch(`${server.address}/api/versions/${id}/picture.png`)).status).toBe(200);
});

test('another program reads it: a zip of JSON, numbers and pictures', () => {
  const files = unzipSync(archive);
  const manifest = JSON.parse(Buffer.from(files[MANIFEST]!).toString()) as {
    shots: { drawings: Id[] }[];
    bodies: object;
  };
  expect(Object.keys(manifest.bodies).length).toBeGreaterThan(20);
  const name = manifest.shots[0]!.drawings.map((id) => archivePath.drawing(shot, id)).find(
    (each) => files[archivePath.columns(each)]!.length > 0,
  )!;
  const { body } = JSON.parse(Buffer.from(files[name]!).toString()) as {
    body: { order: Id[]; marks: Record<Id, { samples?: Record<string, number>; rings?: number[] }> };
  };
  const numbers = body.order.flatMap((id) => {
    const { samples, rings } = body.marks[id]!;
    return rings ?? ['x', 'y', 'pressure', 'altitude', 'azimuth'].map((key) => samples![key]!);
  });
  expect(numbers.reduce((a, n) => a + n, 0) * 4).toBe(files[archivePath.columns(name)]!.length);
  expect(Buffer.from(files[archivePath.preview(shot)]!).subarray(1, 4).toString()).toBe('PNG');
});

test('all stored shots and everything kept on the shelf go to a fresh server', async () => {
  const old = await startServer({ dump: 'stored/demo.dump' });
  const fresh = await startServer();
  try {
    const kept = { kind: 'holds', name: 'Fast out', what: { holds: [1, 1, 2] } };
    await old.send('PUT', `/kept/${randomId()}`, kept);
    const content = readFileSync(await written(old, 'all'));
    const came = await read(fresh, content);
    expect(came).toMatchObject({ state: 'done', trouble: null });
    expect((await fresh.send('GET', '/kept')).json).toMatchObject([kept]);
    const ids = (await shotServices(old.database).shots.list()).map(({ id }) => id);
    expect(came.shots.map(({ id }) => id).sort()).toEqual([...ids].sort());
    const [before, after] = [picturesOn(old), picturesOn(fresh)];
    for (const id of ids) {
      expect((await documentOn(fresh, id)).entities).toEqual((await documentOn(old, id)).entities);
      expect((await after.ofShot(id)).equals(await before.ofShot(id))).toBe(true);
    }
  } finally {
    await old.stop();
    await fresh.stop();
  }
}, 120_000);

test('an archive of version 1, which has no settings of the shelf, is read', async () => {
  const all = unzipSync(archive);
  const json = JSON.parse(Buffer.from(all[MANIFEST]!).toString()) as Record<string, unknown>;
  Reflect.deleteProperty(json, 'kept');
  all[MANIFEST] = Buffer.from(JSON.stringify({ ...json, version: 1 }));
  const came = await read(other, Buffer.from(zipSync(all, { level: 0 })));
  expect(came).toMatchObject({ state: 'done', trouble: null });
  // Settings that stand here already under their name stay as they are.
  const settings = (holds: number[]) => [{ kind: 'holds', name: 'Even', what: { holds } }];
  for (const holds of [[2], [3]]) {
    all[MANIFEST] = Buffer.from(JSON.stringify({ ...json, kept: settings(holds) }));
    await read(other, Buffer.from(zipSync(all, { level: 0 })));
    expect((await other.send('GET', '/kept')).json).toMatchObject(settings([2]));
  }
});

describe('what is wrong with an archive', () => {
  const files = (): Zippable => unzipSync(archive);
  const zipped = (change: (all: Record<string, Uint8Array>) => void): Uint8Array => {
    const all = files() as Record<string, Uint8Array>;
    change(all);
    return zipSync(all, { level: 0 });
  };
  const manifest = (change: (json: Record<string, unknown>) => void) => (all: Record<string, Uint8Array>) => {
    const json = JSON.parse(Buffer.from(all[MANIFEST]!).toString()) as Record<string, unknown>;
    change(json);
    all[MANIFEST] = Buffer.from(JSON.stringify(json));
  };
  const text = (all: Record<string, Uint8Array>, name: string, from: RegExp | string, to: string): void => {
    all[name] = Buffer.from(Buffer.from(all[name]!).toString().replace(from, to));
  };
  const entities = archivePath.entities;
  const cases: [string, () => Uint8Array, RegExp][] = [
    ['no zip', () => Buffer.from('hello'), /no archive, or it breaks off/],
    ['half of it', () => archive.subarray(0, archive.length / 2), /breaks off/],
    ['another zip', () => zipSync({ 'a.txt': Buffer.from('a') }), /no archive of Tallow/],
    ['a later version', () => zipped(manifest((m) => (m['version'] = 3))), /version 3; up to 2 .*Tallow 0\.1\.0/],
    [
      'settings of the shelf that cannot be',
      () => zipped(manifest((m) => (m['kept'] = [{ kind: 'holds', name: 'Fast', what: { holds: [0] } }]))),
      /“Fast” of the shelf: what\.holds\.0/,
    ],
    [
      'a later body',
      () => zipped(manifest((m) => ((m['bodies'] as Record<string, number>)['smear'] = 99))),
      /a smear of version 99/,
    ],
    ['an unknown kind', () => zipped(manifest((m) => ((m['bodies'] as Record<string, number>)['ghost'] = 1))), /ghost/],
    [
      'a drawing gone',
      () =>
        zipped((all) =>
          Reflect.deleteProperty(
            all,
            Object.keys(all).find((n) => n.includes('/drawings/'))!,
          ),
        ),
      /lacks shots/,
    ],
    ['a name that leads out', () => zipped((all) => (all['../../x'] = Buffer.from('x'))), /damaged|no archive/],
    [
      'an id twice',
      () => zipped((all) => text(all, entities(shot), /^\[(\{.*?\}),\{/, '[$1,$1,{')),
      /does not hold|no JSON|twice/,
    ],
    [
      'an id of elsewhere',
      // Of a layer: the timings a variant has kept may name elements that are gone.
      () =>
        zipped((all) =>
          text(all, entities(shot), /("kind":"layer".*?"elementId":)"[0-9a-f-]{36}"/, `$1"${randomId()}"`),
        ),
      /which is not in the shot|damaged/,
    ],
    [
      'an asset changed',
      () => zipped((all) => (all[Object.keys(all).find((n) => n.startsWith('assets/'))!]![30]! ^= 1)),
      /is not what it is named after/,
    ],
    [
      'deep nesting',
      () => zipped((all) => (all[entities(shot)] = Buffer.from('['.repeat(90_000) + ']'.repeat(90_000)))),
      /does not hold|no JSON/,
    ],
    ['a bomb', () => zipSync({ [MANIFEST]: Buffer.alloc(100_000_000) }, { level: 6 }), /unpack to far more/],
  ];
  test.each(cases)('%s: said, and nothing changes', async (_, content, says) => {
    const before = await count(other);
    const came = await read(other, content());
    expect(came.state).toBe('failed');
    expect(came.trouble).toMatch(says);
    expect(came.trouble).toMatch(/Nothing was changed\.$/);
    expect(await count(other)).toBe(before);
  });

  test(`${DAMAGED} damaged in other ways: none breaks anything, and none is taken for what it is not`, async () => {
    const fresh = await startServer();
    try {
      const random = seededRandom(20);
      const whole = await rowsOf(server, [shot]);
      const empty = await count(fresh);
      let refused = 0;
      for (let i = 0; i < DAMAGED; i++) {
        const content = Buffer.from(archive);
        const kind = i % 4;
        const place = Math.floor(random() * content.length);
        if (kind === 0) content[place]! ^= 1 << Math.floor(random() * 8);
        else if (kind === 1) content.fill(0, place, Math.min(content.length, place + 1 + Math.floor(random() * 64)));
        else if (kind === 2) content.copy(content, place, Math.floor(random() * content.length), content.length);
        const damaged = kind === 3 ? content.subarray(0, place) : content;
        const came = await read(fresh, damaged.length > 0 ? damaged : Buffer.of(0));
        if (came.state === 'failed') {
          refused += 1;
          expect(came.trouble).not.toMatch(/unforeseen/);
          expect(await count(fresh)).toBe(empty);
          continue;
        }
        // What was damaged is in no one's way: a date, or a name of the file.
        expect((await rowsOf(fresh, [shot])).entities).toEqual(whole.entities);
        for (const table of ['versions', 'older_bodies', 'entities', 'shots', 'assets', 'productions'])
          if (table === 'productions') await fresh.database(table).where({ id: production }).delete();
          else await fresh.database(table).delete();
        expect(await count(fresh)).toBe(empty);
      }
      expect(refused).toBeGreaterThan(0.8 * DAMAGED);
    } finally {
      await fresh.stop();
    }
  }, 240_000);
});

test('one that is stopped leaves nothing behind', async () => {
  const before = await count(other);
  await at(other, async () => {
    const { json } = await other.send('POST', '/archives', { scope: 'all' });
    const { id } = json as ArchiveAnswer;
    await other.send('POST', `/archives/${id}/stop`);
    await runArchive(other.database, picturesOn(other), id);
    expect((await other.send('GET', `/archives/${id}`)).json).toMatchObject({ state: 'stopped' });
    expect((await fetch(`${other.address}/api/archives/${id}/file`)).status).toBe(409);
  });
  expect(await count(other)).toBe(before);
});

test('what there is nothing of is refused in words', async () => {
  expect((await other.send('POST', '/archives', { scope: 'shot', of: randomId() })).status).toBe(404);
  expect((await other.send('POST', '/archives', { scope: 'shot' })).status).toBe(422);
  expect((await other.send('POST', '/archives', { scope: 'some' })).status).toBe(422);
});
