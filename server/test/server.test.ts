import { encodeColumn, newLayer, randomId, type Entity, entitiesOf } from '@tallow/core/document';
import { furnaceMouth, FURNACE_MOUTH_ID } from '@tallow/demo';
import { ensureDemo } from '../demo.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
let productionId: string;
const format = { name: 'Shot', width: 640, height: 360, rate: 24, length: 24, background: '#101010' };

beforeAll(async () => {
  server = await startServer();
  productionId = randomId();
  await server.send('POST', '/productions', { id: productionId, name: 'Test' });
}, 60_000);
afterAll(() => server.stop());

interface Opened {
  revision: number;
  entities: Entity[];
  drawings: string[];
}
type ProblemBody = {
  title: string;
  errors?: { field: string; message: string }[];
  conflicts?: string[];
  revision?: number;
  changes?: { id: string }[];
};

const makeShot = async (): Promise<string> => {
  const id = randomId();
  const { status } = await server.send('POST', '/shots', { id, productionId, ...format });
  expect(status).toBe(201);
  return id;
};
const open = async (id: string): Promise<Opened> => (await server.send('GET', `/shots/${id}`)).json;
const part = <K extends Entity['kind']>(opened: Opened, kind: K) =>
  opened.entities.find((e) => e.kind === kind) as Extract<Entity, { kind: K }>;
const column = (values: number[]) => encodeColumn(Float32Array.from(values));
const drawingBody = (swatch: string, marks: number, samples = 3, id = randomId()) => {
  const values = column(Array.from({ length: samples }, (_, i) => i));
  const flat = column(Array.from({ length: samples }, () => 0.5));
  const made = Array.from({ length: marks }, () => ({
    kind: 'stroke',
    id: randomId(),
    swatch,
    brush: { kind: 'ink', width: 5, opacity: 1, pressure: true },
    seed: 1,
    samples: { x: values, y: values, pressure: flat, altitude: flat, azimuth: flat },
  }));
  return { kind: 'drawing', id, marks: Object.fromEntries(made.map((m) => [m.id, m])), order: made.map((m) => m.id) };
};
const put = (body: { id: string; kind: string; [field: string]: unknown }) => ({ id: body.id, kind: body.kind, body });
const save = (shot: string, baseRevision: number, puts: unknown[], deletes: string[] = [], saveId = randomId()) =>
  server.send('POST', `/shots/${shot}/saves`, { saveId, baseRevision, puts, deletes });

describe('health and shots', () => {
  test('health tells status, database and version', async () => {
    expect(await server.send('GET', '/health')).toEqual({
      status: 200,
      json: { status: 'ok', database: 'ok', version: expect.any(String) },
    });
  });
  test('a new shot has one open element with a layer, placed from its first frame, and is made once', async () => {
    const id = await makeShot();
    const opened = await open(id);
    expect(part(opened, 'element').time).toBe('open');
    expect(part(opened, 'placement').start).toBe(0);
    expect((await server.send('POST', '/shots', { id, productionId, ...format, name: 'Again' })).json).toMatchObject({
      name: 'Shot',
    });
  });
  test('is renamed, duplicated with ids of its own, deleted and brought back', async () => {
    const id = await makeShot();
    expect((await server.send('PATCH', `/shots/${id}`, { name: 'Other' })).json).toMatchObject({
      name: 'Other',
      revision: 2,
    });
    const copy = randomId();
    expect((await server.send('POST', `/shots/${id}/duplicate`, { id: copy })).json).toMatchObject({
      id: copy,
      name: 'Other copy',
    });
    const ids = new Set((await open(id)).entities.map((e) => e.id));
    expect((await open(copy)).entities.some((e) => ids.has(e.id))).toBe(false);
    expect((await server.send('DELETE', `/shots/${id}`)).status).toBe(204);
    expect((await server.send('GET', `/shots/${id}`)).status).toBe(404);
    await server.send('POST', `/shots/${id}/restore`);
    expect((await server.send('GET', `/shots/${id}`)).status).toBe(200);
  });
  test.each([
    ['width', 15],
    ['width', 8193],
    ['height', '1080'],
    ['rate', 0],
    ['rate', 121],
    ['length', 0],
    ['length', 10_001],
    ['name', '   '],
    ['name', 'x'.repeat(10_000)],
    ['name', 'a\u0000b'],
    ['name', '\ud800'],
    ['background', 'red'],
    ['productionId', 'nonsense'],
    ['productionId', randomId()],
    ['castle', 1],
  ])('a new shot whose %s is %j is refused, naming it', async (field, value) => {
    const before = (await server.send('GET', '/shots')).json as unknown[];
    const { status, json } = await server.send('POST', '/shots', {
      id: randomId(),
      productionId,
      ...format,
      [field]: value,
    });
    expect(status).toBe(422);
    expect((json as ProblemBody).errors?.[0]?.field).toBe(field);
    expect((json as ProblemBody).errors?.[0]?.message.length).toBeGreaterThan(5);
    expect((await server.send('GET', '/shots')).json as unknown[]).toHaveLength(before.length);
  });
  test('what is no JSON, from another site, or under another name is refused', async () => {
    expect((await server.send('POST', '/shots', '{"a":')).status).toBe(400);
    expect((await server.send('POST', '/shots', '5')).status).toBe(400);
    expect((await server.send('GET', '/shots', undefined, { origin: 'http://elsewhere.example' })).status).toBe(403);
    for (const path of ['/shots/nonsense', `/shots/${randomId()}`, '/nothing'])
      expect((await server.send('GET', path)).status).toBe(404);
  });
});

describe('saves', () => {
  test('keep bodies, raise the revision, and tell what others changed', async () => {
    const id = await makeShot();
    const opened = await open(id);
    const swatch = part(opened, 'swatch');
    const first = drawingBody(swatch.id, 2);
    expect(await save(id, 1, [put(first)])).toMatchObject({ status: 200, json: { revision: 2, before: 1 } });
    const second = await save(id, 1, [put({ ...swatch, colour: '#123456' })]);
    expect(second.json).toMatchObject({ revision: 3, before: 2 });
    expect((await server.send('GET', `/shots/${id}/changes?since=1&upTo=2`)).json).toMatchObject({
      revision: 2,
      changes: [{ id: first.id, revision: 2 }],
      next: null,
    });
    expect((await server.send('GET', `/shots/${id}/drawings?ids=${first.id}`)).json).toEqual([first]);
    expect((await server.send('GET', `/shots/${id}/changes?since=2`)).json).toMatchObject({
      revision: 3,
      changes: [{ id: swatch.id, body: { colour: '#123456' } }],
    });
    const older = await server.database('older_bodies').where({ id: swatch.id });
    expect(older).toHaveLength(1);
  });
  test('a repeat gets the first answer and changes nothing', async () => {
    const id = await makeShot();
    const opened = await open(id);
    const body = drawingBody(part(opened, 'swatch').id, 1);
    const saveId = randomId();
    const first = await save(id, 1, [put(body)], [], saveId);
    await save(id, 2, [put({ ...part(opened, 'swatch'), name: 'later' })]);
    expect(await save(id, 1, [put(body)], [], saveId)).toEqual(first);
    expect((await open(id)).revision).toBe(3);
    expect((await save(await makeShot(), 1, [], [], saveId)).status).toBe(422);
  });
  test('conflict only over an entity that is newer than the base', async () => {
    const id = await makeShot();
    const opened = await open(id);
    const swatches = opened.entities.filter((e) => e.kind === 'swatch');
    await save(id, 1, [put({ ...swatches[0]!, name: 'theirs' })]);
    expect((await save(id, 1, [put({ ...swatches[1]!, name: 'mine' })])).status).toBe(200);
    const clash = await save(id, 1, [put({ ...swatches[0]!, name: 'mine' }), put({ ...swatches[2]!, name: 'mine' })]);
    expect(clash.status).toBe(409);
    expect(clash.json as ProblemBody).toMatchObject({ conflicts: [swatches[0]!.id], revision: 3 });
    expect((await open(id)).entities.find((e) => e.id === swatches[2]!.id)).toEqual(swatches[2]);
  });
  test('two at once on one shot are both kept, one after the other', async () => {
    const id = await makeShot();
    const swatch = part(await open(id), 'swatch').id;
    const bodies = Array.from({ length: 8 }, () => drawingBody(swatch, 1));
    const answers = await Promise.all(bodies.map((body) => save(id, 1, [put(body)])));
    expect(new Set(answers.map(({ json }) => (json as { revision: number }).revision)).size).toBe(8);
    expect((await open(id)).drawings).toHaveLength(8);
  });
  test('deletes are tombstones: restored with their last body, never by an ordinary put', async () => {
    const id = await makeShot();
    const swatch = part(await open(id), 'swatch').id;
    const body = drawingBody(swatch, 1);
    await save(id, 1, [put(body)]);
    await save(id, 2, [], [body.id]);
    expect((await open(id)).drawings).toEqual([]);
    expect((await save(id, 3, [put(body)])).status).toBe(422);
    expect((await save(id, 3, [{ id: body.id, kind: 'drawing', restore: true }])).status).toBe(200);
    expect((await server.send('GET', `/shots/${id}/drawings?ids=${body.id}`)).json).toEqual([body]);
    const copy = randomId();
    expect((await save(id, 4, [{ id: copy, kind: 'drawing', copyOf: body.id }])).status).toBe(200);
    expect((await server.send('GET', `/shots/${id}/drawings?ids=${copy}`)).json).toEqual([{ ...body, id: copy }]);
  });
  test('with anything wrong are refused whole, saying where', async () => {
    const id = await makeShot();
    const other = await open(await makeShot());
    const opened = await open(id);
    const good = drawingBody(part(opened, 'swatch').id, 1);
    const { layer, list } = newLayer(part(opened, 'element').id, 'New', 'line', randomId);
    const cases: [string, unknown[], string[]][] = [
      ['puts.1.id', [put(good), put({ ...part(other, 'swatch') })], []],
      ['deletes.0', [put(good)], [part(other, 'swatch').id]],
      ['deletes.0', [put(good)], [randomId()]],
      ['deletes.0', [put(good)], [id]],
      [`puts.1.body.runListId`, [put(good), put({ ...layer })], []],
      ['puts.2.body.slots', [put(good), put({ ...list }), put({ ...layer, slots: { [randomId()]: randomId() } })], []],
      ['puts.1.body.name', [put(good), put({ ...part(opened, 'swatch'), name: 'a\u0000' })], []],
      ['puts.1.body.colour', [put(good), put({ ...part(opened, 'swatch'), colour: 7 })], []],
      ['puts.0.kind', [{ ...put(good), kind: 'castle' }], []],
      ['puts.0.body', [{ id: good.id, kind: 'drawing' }], []],
      [
        `puts.0.body.marks.${good.order[0]!}.swatch`,
        [
          put({
            ...good,
            marks: { [good.order[0]!]: { ...good.marks[good.order[0]!]!, swatch: part(other, 'swatch').id } },
          }),
        ],
        [],
      ],
      ['puts', [put(good), put(good)], []],
    ];
    for (const [field, puts, deletes] of cases) {
      const { status, json } = await save(id, 1, puts, deletes);
      expect([field, status]).toEqual([field, 422]);
      expect((json as ProblemBody).errors?.[0]?.field).toBe(field);
    }
    expect((await save(id, 99, [])).status).toBe(422);
    expect((await server.send('POST', `/shots/${id}/saves`, { puts: [] })).status).toBe(422);
    expect((await open(id)).revision).toBe(1);
  });
  test('a drawing of a hundred thousand samples is taken, one of a hundred megabytes is refused', async () => {
    const id = await makeShot();
    const swatch = part(await open(id), 'swatch').id;
    expect((await save(id, 1, [put(drawingBody(swatch, 1, 100_000))])).status).toBe(200);
    const huge = JSON.stringify({
      saveId: randomId(),
      baseRevision: 2,
      puts: [{ id: randomId(), kind: 'drawing', body: { x: 'A'.repeat(100_000_000) } }],
      deletes: [],
    });
    const refused = await server.send('POST', `/shots/${id}/saves`, huge).catch(() => ({ status: 413 }));
    expect(refused.status).toBe(413);
    expect((await open(id)).revision).toBe(2);
  }, 30_000);
});

describe('the demo', () => {
  test('is built once, and rebuilt on demand without touching anything else', async () => {
    const mine = await makeShot();
    await ensureDemo(server.database, false, [furnaceMouth]);
    const { revision, drawings } = await open(FURNACE_MOUTH_ID);
    expect(drawings).toHaveLength(entitiesOf(furnaceMouth(), 'drawing').length);
    await ensureDemo(server.database, false, [furnaceMouth]);
    expect((await open(FURNACE_MOUTH_ID)).revision).toBe(revision);
    await save(FURNACE_MOUTH_ID, revision, [], [drawings[0]!]);
    await server.send('DELETE', `/shots/${FURNACE_MOUTH_ID}`);
    await ensureDemo(server.database, true, [furnaceMouth]);
    expect(new Set((await open(FURNACE_MOUTH_ID)).drawings)).toEqual(new Set(drawings));
    expect((await open(mine)).revision).toBe(1);
    const picture = await fetch(`${server.address}/api/shots/${FURNACE_MOUTH_ID}/picture.png`);
    expect(
      Buffer.from(await picture.arrayBuffer())
        .subarray(1, 4)
        .toString(),
    ).toBe('PNG');
  });

  test('gives way to one that is built otherwise, even where an id has become one of another kind', async () => {
    const { entities } = furnaceMouth();
    const layer = Object.values(entities).find((e) => e.kind === 'layer')!;
    await ensureDemo(server.database, true, [furnaceMouth]);
    await server.database('entities').where({ id: layer.id }).update({ kind: 'swatch' });
    await ensureDemo(server.database, true, [furnaceMouth]);
    const { drawings, entities: now } = await open(FURNACE_MOUTH_ID);
    expect(drawings).toHaveLength(Object.values(entities).filter((e) => e.kind === 'drawing').length);
    expect(now.find((e) => e.kind === 'shot')).toMatchObject({ name: 'Furnace mouth' });
  });
});
