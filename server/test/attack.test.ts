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

describe('what would be more than the server can bear is refused in words', () => {
  const [listsOf, objectsOf] = [
    (deep: number) => '['.repeat(deep) + ']'.repeat(deep),
    (deep: number) => '{"a":'.repeat(deep) + '1' + '}'.repeat(deep),
  ];
  const save = (puts: string): string => `{"saveId":"${randomId()}","baseRevision":1,"puts":${puts},"deletes":[]}`;

  test.each([
    ['a list as the body', '/productions', listsOf(3000), 'body'],
    ['an object as a name', '/productions', `{"id":"${randomId()}","name":${objectsOf(3000)}}`, 'name'],
    ['lists as puts', 'saves', save(listsOf(100_000)), 'puts'],
    ['objects in a body', 'saves', save(`[{"id":"${randomId()}","kind":"shot","body":${objectsOf(101)}}]`), 'puts'],
  ])('nesting: %s', async (_, to, body, field) => {
    const { status, json } = await server.send('POST', to === 'saves' ? `/shots/${shot}/saves` : to, body);
    expect(json as unknown).toMatchObject({ title: expect.stringContaining('100 deep'), errors: [{ field }] });
    expect(status).toBe(422);
  });

  test('lists that are too long are not looked at entry by entry', async () => {
    const ids = Array.from({ length: 70_000 }, () => randomId());
    const whole = { saveId: randomId(), baseRevision: 1, puts: [], deletes: [] };
    for (const [field, max, spoils] of [
      ['deletes', 5000, { deletes: ids }],
      ['held', 20_000, { held: ids }],
      ['puts', 5000, { puts: ids.map((id) => ({ id, kind: 'x' })) }],
    ] as const) {
      const { status, json } = await server.send('POST', `/shots/${shot}/saves`, { ...whole, ...spoils });
      expect([status, json]).toEqual([
        422,
        expect.objectContaining({ errors: [{ field, message: `must hold at most ${max}; there are 70000.` }] }),
      ]);
    }
  });

  test('an id that is named twice in the query, or within brackets, names nothing', async () => {
    const twice = await server.send('GET', `/shots/${shot}/drawings?ids=a&ids=b`);
    expect([twice.status, twice.json]).toEqual([
      422,
      expect.objectContaining({ errors: [{ field: 'ids', message: 'must be given once.' }] }),
    ]);
    expect((await server.send('GET', `/shots/${shot}/drawings?ids[a]=b`)).json).toEqual([]);
  });

  test.each([
    [413, JSON.stringify({ name: 's3cret'.repeat(40_000) }), {}, 'larger than'],
    [400, '{"s3cret": tok3n}', {}, 'not JSON'],
    [415, '{}', { 'content-encoding': 's3cret' }, 'packed in a way'],
    [415, '{}', { 'content-type': 'application/json; charset=s3cret' }, 'UTF-8'],
  ])('%i is said in words, and nothing of what was sent', async (status, body, headers, words) => {
    const answer = await server.send('POST', '/productions', body, headers);
    expect(answer.status).toBe(status);
    expect((answer.json as { title: string }).title).toContain(words);
    expect(JSON.stringify(answer.json)).not.toContain('s3cret');
  });

  test('a name of a field that nobody knows is said, but cut', async () => {
    const { json } = await server.send('POST', '/productions', { ['x'.repeat(50_000)]: 1 });
    expect(JSON.stringify(json)).toContain('xxx…');
    expect(JSON.stringify(json).length).toBeLessThan(1000);
    const nameless = await server.send('POST', '/productions', { id: randomId(), name: 'P', '': 1 });
    expect(nameless.json as unknown).toMatchObject({ errors: [{ field: '(no name)' }] });
  });
});
