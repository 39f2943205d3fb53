import { randomId, type Entity } from '@tallow/core/document';
import fc from 'fast-check';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
let shot: string;
let entities: Entity[];

beforeAll(async () => {
  server = await startServer();
  const production = randomId();
  await server.send('POST', '/productions', { id: production, name: 'P' });
  shot = randomId();
  await server.send('POST', '/shots', {
    id: shot,
    productionId: production,
    name: 'S',
    width: 64,
    height: 64,
    rate: 24,
    length: 2,
    background: null,
  });
  entities = ((await server.send('GET', `/shots/${shot}`)).json as { entities: Entity[] }).entities;
});
afterAll(() => server.stop());

const revision = async (): Promise<number> =>
  ((await server.send('GET', `/shots/${shot}`)).json as { revision: number }).revision;

/** Puts junk in place of one field of a body, at any depth. */
function spoilt(body: unknown, path: readonly number[], junk: unknown): unknown {
  if (typeof body !== 'object' || body === null || path.length === 0) return junk;
  const keys = Object.keys(body);
  if (keys.length === 0) return junk;
  const key = keys[path[0]! % keys.length]!;
  const value = spoilt((body as Record<string, unknown>)[key], path.slice(1), junk);
  return Array.isArray(body)
    ? body.map((each: unknown, i) => (String(i) === key ? value : each))
    : { ...body, [key]: value };
}

const junk = fc.oneof(
  fc.jsonValue(),
  fc.constantFrom(
    '\u0000',
    '\ud800',
    '',
    -1,
    1e300,
    2 ** 53,
    null,
    'x'.repeat(5000),
    [],
    {},
    { __proto__: 1 },
    '7a110000-0000-4000-8000-000000000999',
  ),
);

test('no save with anything spoilt in it breaks the server or is half taken', async () => {
  await fc.assert(
    fc.asyncProperty(fc.nat(), fc.array(fc.nat(), { minLength: 1, maxLength: 4 }), junk, async (which, path, value) => {
      const entity = entities[which % entities.length]!;
      const good = {
        saveId: randomId(),
        baseRevision: await revision(),
        puts: [{ id: entity.id, kind: entity.kind, body: entity }],
        deletes: [],
      };
      const before = await revision();
      const { status, json } = await server.send('POST', `/shots/${shot}/saves`, spoilt(good, path, value));
      expect([200, 400, 409, 422]).toContain(status);
      if (status !== 200) {
        expect(json as { title: string; status: number }).toMatchObject({ status, title: expect.any(String) });
        expect(await revision()).toBe(before);
      }
      // Whatever was taken can be opened again: nothing unreadable got in.
      expect((await server.send('GET', `/shots/${shot}`)).status).toBe(200);
    }),
    { numRuns: 150 },
  );
});

test('no request body makes the other addresses fail without saying why', async () => {
  const paths = [
    '/shots',
    '/productions',
    `/shots/${shot}/duplicate`,
    `/shots/${shot}/exports`,
    `/exports/${randomId()}/stop`,
  ];
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...paths), fc.jsonValue(), async (path, body) => {
      const { status, json } = await server.send('POST', path, body);
      expect(status).toBeGreaterThanOrEqual(400);
      expect(status).toBeLessThan(500);
      expect((json as { title: string }).title.length).toBeGreaterThan(5);
    }),
    { numRuns: 100 },
  );
});

test('addresses with odd ids and queries are answered, not crashed on', async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ minLength: 1, maxLength: 40 }), async (text) => {
      const id = encodeURIComponent(text);
      for (const path of [
        `/shots/x${id}`,
        `/shots/${shot}/drawings?ids=${id}`,
        `/shots/${shot}/changes?since=${id}`,
        `/exports/x${id}/file`,
      ]) {
        const { status } = await server.send('GET', path);
        expect([200, 400, 404, 422]).toContain(status);
      }
    }),
    { numRuns: 60 },
  );
});
