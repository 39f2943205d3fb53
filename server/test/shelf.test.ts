/** The shelf on a real server: elements kept, told of, found, put into other shots, taken off and back; what ships is whole. */
import { entitiesOf, find, randomId, readEntity, type Entity, type ShotDocument } from '@tallow/core/document';
import { addElement, setElement } from '@tallow/core/edit';
import { furnaceMouth, FURNACE_MOUTH_ID, SHIPPED } from '@tallow/demo';
import { keptKinds, putFromShelf, type ShelfClip } from '@tallow/core/shelf';
import { timedLayers } from '@tallow/core/timing';
import { ensureDemo, ensureShelf } from '../demo.ts';
import { SHELF_ID } from '../db/migrations.ts';
import { shotServices } from '../shots/services.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
beforeAll(async () => {
  server = await startServer();
  await ensureDemo(server.database, false, [furnaceMouth]);
}, 60_000);
afterAll(() => server.stop());

interface Item {
  id: string;
  name: string;
  kind: string;
  tags: string[];
  note: string;
  time: string;
  length: number;
  revision: number;
  colours: string[];
}
const list = async (): Promise<Item[]> => (await server.send('GET', '/shelf')).json as Item[];
const fire = entitiesOf(furnaceMouth(), 'element').find(({ name }) => name === 'Furnace fire')!;
const keep = async (more: Record<string, unknown> = {}) => {
  const id = randomId();
  const asked = {
    id,
    shotId: FURNACE_MOUTH_ID,
    elementId: fire.id,
    kind: 'fire',
    tags: ['furnace'],
    note: 'N',
    ...more,
  };
  return { id, asked, answer: await server.send('POST', '/shelf', asked) };
};

test('an element is kept with what is told of it, once, and listed apart from shots and productions', async () => {
  const { id, asked, answer } = await keep({ name: 'Mouth' });
  expect(answer.json).toMatchObject({
    id,
    name: 'Mouth',
    kind: 'fire',
    tags: ['furnace'],
    note: 'N',
    time: 'cycle',
    length: 24,
  });
  await server.send('POST', '/shelf', asked);
  expect((await list()).filter((each) => each.id === id)).toHaveLength(1);
  const shots = (await server.send('GET', '/shots')).json as { id: string }[];
  expect(shots.map((each) => each.id)).not.toContain(id);
  const productions = (await server.send('GET', '/productions')).json as { id: string }[];
  expect(productions.map((each) => each.id)).not.toContain(SHELF_ID);
  expect((await server.send('DELETE', `/productions/${SHELF_ID}`)).status).toBe(404);
  expect((await server.send('PATCH', `/productions/${SHELF_ID}`, { name: 'Mine' })).status).toBe(404);
});

test('it is told anew, taken off the shelf and put back', async () => {
  const { id } = await keep();
  const told = await server.send('PATCH', `/shelf/${id}`, {
    name: 'Ember',
    kind: 'sparks',
    tags: ['a', 'b'],
    note: '',
  });
  expect(told.json).toMatchObject({ name: 'Ember', kind: 'sparks', tags: ['a', 'b'], note: '' });
  expect((await server.send('DELETE', `/shelf/${id}`)).status).toBe(204);
  expect((await list()).map((each) => each.id)).not.toContain(id);
  expect((await server.send('POST', `/shelf/${id}/restore`)).status).toBe(204);
  expect((await list()).map((each) => each.id)).toContain(id);
});

test('what cannot be is refused in words, and nothing is kept', async () => {
  const before = (await list()).length;
  const wrong = [
    [{ elementId: randomId() }, 'elementId'],
    [{ shotId: randomId() }, 'shot'],
    [{ kind: 'dragon' }, 'kind'],
    [{ tags: ['x'.repeat(41)] }, 'tags'],
    [{ note: 'x'.repeat(2001) }, 'note'],
    [{ id: 'nothing' }, 'id'],
  ] as const;
  for (const [more, said] of wrong) {
    const { answer } = await keep(more);
    expect(answer.status).toBeGreaterThanOrEqual(404);
    expect(answer.status).toBeLessThan(500);
    expect(JSON.stringify(answer.json)).toContain(said);
  }
  expect(await list()).toHaveLength(before);
  expect((await server.send('GET', `/shelf/${randomId()}/parts`)).status).toBe(404);
});

test('its parts put into another shot are the element again, drawing for drawing', async () => {
  const { id } = await keep();
  const parts = (await server.send('GET', `/shelf/${id}/parts`)).json as Omit<ShelfClip, 'entities'> & {
    entities: unknown[];
  };
  const entities = parts.entities.map((body): Entity => (readEntity(body) as { ok: Entity }).ok);
  const { doc: into } = addElement(furnaceMouth(), 'Beside', 0, randomId);
  const put = putFromShelf(into, { ...parts, entities }, { at: { x: 100, y: 900 }, start: 4 }, randomId);
  const { shots } = shotServices(server.database);
  const source = (await shots.document(FURNACE_MOUTH_ID)).doc;
  const marks = (doc: ShotDocument, elementId: string) =>
    timedLayers(doc, find(doc, 'element', elementId)!).map(({ layer }) =>
      Object.values(layer.slots).map((drawing) => find(doc, 'drawing', drawing)!.order.length),
    );
  expect(marks(put.doc, put.elementId)).toEqual(marks(source, fire.id));
  expect(find(put.doc, 'element', put.elementId)).toMatchObject({ shelf: { shelfId: id, revision: 1 } });
  // All of it is a document that can be saved.
  for (const entity of Object.values(setElement(put.doc, put.elementId, { name: 'Mine' }).entities))
    expect(entity.id).toMatch(/^[0-9a-f-]{36}$/);
});

test('what ships is put on the shelf once; what is taken off it stays off; where none is wanted none comes', async () => {
  const few = SHIPPED.filter(({ name }) => name === 'Ripple' || name === 'Embers');
  process.env['TALLOW_SHELF'] = 'empty';
  await ensureShelf(server.database, few);
  Reflect.deleteProperty(process.env, 'TALLOW_SHELF');
  const shipped = async () => (await list()).filter(({ name }) => few.some((each) => each.name === name));
  expect(await shipped()).toEqual([]);
  await ensureShelf(server.database, few);
  expect(await shipped()).toHaveLength(2);
  const [first] = await shipped();
  await server.send('DELETE', `/shelf/${first!.id}`);
  await ensureShelf(server.database, few);
  expect((await list()).map(({ id }) => id)).not.toContain(first!.id);
});

describe('settings on the shelf', () => {
  const brush = {
    ...{ width: 21, opacity: 1, pressure: true, steadying: 0.3, flow: 0.4, tilt: 0.3, tip: 'ink', finish: 'drawn' },
    ...{ taper: [0, 0], response: [0, 0.25, 0.5, 0.75, 1], tolerance: 1 },
  };
  const SETTINGS = {
    brush: { tool: 'pencil', brush },
    preset: { effect: 'fire', settings: { height: 320 }, length: 24 },
    palette: { swatches: [{ name: 'Flame', role: 'body', colour: '#ff8a2b' }] },
    holds: { holds: [1, 1, 2] },
  } as const;
  const listed = async () => (await server.send('GET', '/kept')).json as { id: string; kind: string; name: string }[];

  test.each(keptKinds)('%s: kept, called something else, forgotten', async (kind) => {
    const id = randomId();
    const sent = { kind, name: 'Mine', what: SETTINGS[kind] };
    expect((await server.send('PUT', `/kept/${id}`, sent)).status).toBe(200);
    expect(await listed()).toContainEqual({ id, ...sent });
    // Sent once more it is there once; one of the same name takes its place.
    await server.send('PUT', `/kept/${id}`, { ...sent, name: 'Other' });
    expect((await listed()).filter((each) => each.kind === kind)).toEqual([{ id, ...sent, name: 'Other' }]);
    const next = randomId();
    await server.send('PUT', `/kept/${next}`, { ...sent, name: 'Other' });
    expect((await listed()).filter((each) => each.kind === kind).map((each) => each.id)).toEqual([next]);
    expect((await server.send('DELETE', `/kept/${next}`)).status).toBe(204);
    expect((await listed()).filter((each) => each.kind === kind)).toEqual([]);
  });

  test('what is wrong is told by its field, and nothing changes', async () => {
    const before = await listed();
    const put = (kind: string, what: unknown) => server.send('PUT', `/kept/${randomId()}`, { kind, name: 'Bad', what });
    const refused = [
      await put('brush', { tool: 'pencil', brush: { ...brush, width: -1 } }),
      await put('palette', { swatches: [] }),
      await put('holds', { holds: [1, 0] }),
      await put('preset', { effect: 'rain', settings: {} }),
      await put('colour', {}),
      await put('holds', { holds: [1], more: 1 }),
    ];
    expect(refused.map(({ status }) => status)).toEqual(refused.map(() => 422));
    expect(refused[0]!.json).toMatchObject({ errors: [{ field: 'what.brush.width' }] });
    expect(await listed()).toEqual(before);
  });
});
