/** Shots as they were stored in November 2026 open unchanged, whatever has become of the code since. */
import { encodeEntity, readEntity, referencesOf } from '@tallow/core/document';
import { shotServices } from '../shots/services.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
beforeAll(async () => {
  server = await startServer({ dump: 'stored/demo.dump' });
});
afterAll(() => server.stop());

interface Row {
  readonly id: string;
  readonly kind: string;
  readonly body: Record<string, unknown>;
}

test('every stored body is read, and written again as it was', async () => {
  const rows = await server.database<Row>('entities').select('id', 'kind', 'body');
  expect(rows.length).toBeGreaterThan(150);
  expect([...new Set(rows.map(({ kind }) => kind))].length).toBeGreaterThan(9);
  for (const { body } of rows) {
    const read = readEntity(body);
    if (!('ok' in read)) throw new Error(`${read.problems[0]?.field} ${read.problems[0]?.message}`);
    const written: unknown = JSON.parse(JSON.stringify(encodeEntity(read.ok)));
    // Later versions may add fields; what was there stays.
    expect(written).toMatchObject(body);
    expect(readEntity(written)).toEqual(read);
  }
});

test('every stored shot is served whole: all that its entities point at is there', async () => {
  const { shots } = shotServices(server.database);
  const list = await shots.list();
  expect(list.map(({ name }) => name)).toEqual([
    'Furnace mouth',
    'Vent smoke',
    'The gather',
    'Skylight strike',
    'Burst flask',
    'The swing',
  ]);
  for (const { id } of list) {
    expect((await server.send('GET', `/shots/${id}`)).status).toBe(200);
    const { doc } = await shots.document(id);
    for (const entity of Object.values(doc.entities))
      for (const reference of referencesOf(entity)) expect(doc.entities).toHaveProperty(reference.id);
  }
});
