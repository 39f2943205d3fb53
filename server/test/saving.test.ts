/** Large saves, what others changed, repeats, and many at once. */
import { encodeEntity, emptyDrawing, newLayer, randomId, type Entity } from '@tallow/core/document';
import { createHash } from 'node:crypto';
import { whyLater } from '../db/database.ts';
import { digestOf } from '../shots/parts.service.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
let productionId: string;
beforeAll(async () => {
  server = await startServer({ connections: 4 });
  productionId = randomId();
  await server.send('POST', '/productions', { id: productionId, name: 'Test' });
}, 60_000);
afterAll(() => server.stop());

interface Opened {
  readonly epoch: string;
  readonly revision: number;
  readonly entities: readonly Entity[];
  readonly drawings: readonly string[];
}
interface Page {
  readonly epoch: string;
  readonly revision: number;
  readonly changes: readonly { id: string; revision: number; body: unknown }[];
  readonly next: string | null;
}

const makeShot = async (): Promise<string> => {
  const id = randomId();
  const shot = { id, productionId, name: 'Shot', width: 640, height: 360, rate: 24, length: 24, background: null };
  expect((await server.send('POST', '/shots', shot)).status).toBe(201);
  return id;
};
const open = async (id: string): Promise<Opened> => (await server.send('GET', `/shots/${id}`)).json;
const drawings = (count: number) =>
  Array.from({ length: count }, () => {
    const id = randomId();
    return { id, kind: 'drawing', body: encodeEntity(emptyDrawing(id)) };
  });
const save = (shot: string, request: Record<string, unknown>) =>
  server.send('POST', `/shots/${shot}/saves`, {
    saveId: randomId(),
    baseRevision: 1,
    puts: [],
    deletes: [],
    ...request,
  });

const hashOf = (text: string) => createHash('sha256').update(text).digest('hex');
/** Sends parts of a save. @returns their hashes. */
async function stage(shot: string, saveId: string, parts: readonly object[]): Promise<string[]> {
  const hashes: string[] = [];
  for (const [n, part] of parts.entries()) {
    const text = JSON.stringify(part);
    hashes.push(hashOf(text));
    const answer = await server.send('PUT', `/shots/${shot}/saves/${saveId}/parts/${n}?sha256=${hashes[n]!}`, text);
    expect(answer.status).toBe(204);
  }
  return hashes;
}

describe('a save in parts', () => {
  test('is seen by nobody before its last word, then whole and as one revision', async () => {
    const shot = await makeShot();
    const saveId = randomId();
    const parts = [drawings(900), drawings(900), drawings(300)].map((puts) => ({ puts, deletes: [] }));
    const hashes = await stage(shot, saveId, parts);
    expect((await open(shot)).drawings).toEqual([]);
    const request = { saveId, parts: 3, digest: digestOf(hashes) };
    const first = await save(shot, request);
    expect(first).toMatchObject({ status: 200, json: { revision: 2, before: 1 } });
    expect((await open(shot)).drawings).toHaveLength(2100);
    expect(await server.database('save_parts').where({ save_id: saveId })).toEqual([]);
    // Repeated, as after a lost answer, it changes nothing.
    await stage(shot, saveId, parts);
    expect(await save(shot, request)).toEqual(first);
    expect((await open(shot)).revision).toBe(2);
  });
  test('whose things point at each other across parts is kept, and at nothing known is refused', async () => {
    const shot = await makeShot();
    const element = (await open(shot)).entities.find((e) => e.kind === 'element')!;
    const { layer, list } = newLayer(element.id, 'New', 'line', randomId);
    const put = (entity: Entity) => ({ id: entity.id, kind: entity.kind, body: encodeEntity(entity) });
    const saveId = randomId();
    const hashes = await stage(shot, saveId, [
      { puts: [put(layer)], deletes: [] },
      { puts: [put(list)], deletes: [] },
    ]);
    expect((await save(shot, { saveId, parts: 1, digest: digestOf(hashes.slice(0, 1)) })).status).toBe(422);
    expect((await save(shot, { saveId, parts: 2, digest: digestOf(hashes) })).status).toBe(200);
  });
  test('with a part missing, changed on the way or other than said is refused', async () => {
    const shot = await makeShot();
    const saveId = randomId();
    const part = { puts: drawings(1), deletes: [] };
    const [hash] = await stage(shot, saveId, [part]);
    const path = `/shots/${shot}/saves/${saveId}/parts/0`;
    expect((await save(shot, { saveId, parts: 2, digest: hash })).status).toBe(422);
    expect((await save(shot, { saveId, parts: 1, digest: hash })).status).toBe(422);
    const torn = await server.send('PUT', `${path}?sha256=${hash!}`, JSON.stringify({ ...part, puts: [] }));
    expect(torn.status).toBe(422);
    const other = JSON.stringify({ puts: drawings(1), deletes: [] });
    expect((await server.send('PUT', `${path}?sha256=${hashOf(other)}`, other)).status).toBe(422);
    expect((await open(shot)).revision).toBe(1);
  });
});

describe('what others changed', () => {
  test('comes in pages that together tell everything once, up to one revision', async () => {
    const shot = await makeShot();
    for (let i = 0; i < 3; i++) await save(shot, { baseRevision: 1 + i, puts: drawings(450) });
    const told: string[] = [];
    let after = '';
    let pages = 0;
    let upTo = '';
    for (;;) {
      const page: Page = (await server.send('GET', `/shots/${shot}/changes?since=1${upTo}${after}`)).json;
      if (pages === 0) await save(shot, { baseRevision: 4, puts: drawings(5) });
      told.push(...page.changes.map(({ id }) => id));
      pages += 1;
      expect(page.revision).toBe(4);
      upTo = `&upTo=${page.revision}`;
      if (page.next === null) break;
      after = `&after=${page.next}`;
    }
    expect(pages).toBeGreaterThan(2);
    expect(told).toHaveLength(1350);
    expect(new Set(told).size).toBe(1350);
    const rest: Page = (await server.send('GET', `/shots/${shot}/changes?since=4`)).json;
    expect(rest.changes).toHaveLength(5);
    for (const query of ['since=x', 'since=1&upTo=-1', 'since=1&after=nonsense'])
      expect((await server.send('GET', `/shots/${shot}/changes?${query}`)).status).toBe(422);
  });
  test('a copy of a drawing that has changed meanwhile is a conflict', async () => {
    const shot = await makeShot();
    const [source] = drawings(1);
    await save(shot, { puts: [source] });
    await save(shot, { baseRevision: 2, puts: [source] });
    const copy = { id: randomId(), kind: 'drawing', copyOf: source!.id };
    expect(await save(shot, { baseRevision: 2, puts: [copy] })).toMatchObject({
      status: 409,
      json: { conflicts: [source!.id], revision: 3 },
    });
    expect((await save(shot, { baseRevision: 3, puts: [copy] })).status).toBe(200);
  });
});

test('a tab’s highest edit is known, so that whoever adopts what it left knows what arrived', async () => {
  const shot = await makeShot();
  const tab = randomId();
  const seq = async () => (await server.send('GET', `/shots/${shot}/tabs/${tab}`)).json;
  expect(await seq()).toEqual({ seq: 0 });
  await save(shot, { puts: drawings(1), tab, seq: 3 });
  await save(shot, { baseRevision: 2, puts: drawings(1), tab, seq: 12 });
  await save(shot, { baseRevision: 3, puts: drawings(1), tab: randomId(), seq: 40 });
  expect(await seq()).toEqual({ seq: 12 });
});

test('a save made for another database is told so, and nothing changes', async () => {
  const shot = await makeShot();
  const { epoch } = await open(shot);
  expect((await save(shot, { epoch, puts: drawings(1) })).json).toMatchObject({ epoch, revision: 2 });
  expect(await save(shot, { baseRevision: 2, epoch: randomId(), puts: drawings(1) })).toMatchObject({
    status: 409,
    json: { epoch },
  });
  expect((await open(shot)).revision).toBe(2);
});

test('what is held back may be pointed at; bringing back what never was makes it', async () => {
  const shot = await makeShot();
  const layer = (await open(shot)).entities.find((e) => e.kind === 'layer')!;
  const drawing = randomId();
  const body = encodeEntity({ ...layer, slots: { [randomId()]: drawing } } as Entity);
  const puts = [{ id: layer.id, kind: 'layer', body }];
  expect((await save(shot, { puts })).status).toBe(422);
  expect((await save(shot, { puts, held: [drawing] })).status).toBe(200);
  const [late] = drawings(1);
  const restored = { ...late, id: drawing, body: encodeEntity(emptyDrawing(drawing)), restore: true };
  expect((await save(shot, { baseRevision: 2, puts: [restored] })).status).toBe(200);
});

test('sixty-four shots opened at once are all answered over four connections', async () => {
  const shots = await Promise.all(Array.from({ length: 16 }, makeShot));
  const ids = Array.from({ length: 64 }, (_, i) => shots[i % shots.length]!);
  const answers = await Promise.all(ids.map((id) => server.send('GET', `/shots/${id}`)));
  expect(answers.map(({ status }) => status)).toEqual(ids.map(() => 200));
  const copies = await Promise.all(
    ids.slice(0, 32).map((id) => server.send('POST', `/shots/${id}/duplicate`, { id: randomId() })),
  );
  expect(new Set(copies.map(({ status }) => status))).toEqual(new Set([201]));
}, 60_000);

test.each([
  [{ code: '53100' }, 'The disk of the server is full'],
  [{ code: 'ENOSPC' }, 'The disk of the server is full'],
  [{ code: '53200' }, 'The database has run out of memory'],
  [{ code: '53300' }, 'The database has no connection left'],
  [{ code: '57P03' }, 'The database cannot be reached'],
  [{ cause: Object.assign(new Error('inner'), { code: 'ECONNREFUSED' }) }, 'The database cannot be reached'],
  [{ code: '23505' }, null],
])('an error %j passes or does not, in words', (more, words) => {
  expect(whyLater(Object.assign(new Error('failed'), more))).toBe(words);
});
