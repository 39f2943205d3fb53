/** Requests made up from the description of the interface: none breaks the server, none that is refused changes anything. */
import { randomId } from '@tallow/core/document';
import { differenceOf, fingerprintsOf, type Fingerprint } from '../backup/fingerprints.ts';
import { startServer, type Harness } from './harness.ts';

/** How many are made; 5,000 take a few minutes. */
const COUNT = Number(process.env['TALLOW_FUZZ'] ?? 300);
const SEED = Number(process.env['TALLOW_FUZZ_SEED'] ?? 20261129);
const SLOWEST_MS = 2000;

interface Schema {
  readonly type?: string;
  readonly format?: string;
  readonly enum?: readonly unknown[];
  readonly items?: Schema;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly minimum?: number;
  readonly maximum?: number;
  readonly nullable?: boolean;
  readonly $ref?: string;
}
interface Operation {
  readonly parameters?: readonly { readonly name: string; readonly in: string; readonly schema?: Schema }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
}
interface Description {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
}

let server: Harness;
let described: Description;
/** Ids that are there, so that some requests get far. */
const known: string[] = [];

beforeAll(async () => {
  server = await startServer();
  const [production, shot] = [randomId(), randomId()];
  await server.send('POST', '/productions', { id: production, name: 'P' });
  const size = { width: 64, height: 64, rate: 24, length: 2, background: null };
  await server.send('POST', '/shots', { id: shot, productionId: production, name: 'S', ...size });
  const { entities } = (await server.send('GET', `/shots/${shot}`)).json as { entities: { id: string }[] };
  known.push(production, shot, shot, shot, ...entities.map(({ id }) => id));
  described = (await server.send('GET', '/docs-json')).json as Description;
});
afterAll(() => server.stop());

/** Numbers from 0 up to 1, the same for the same seed. mulberry32, public domain. */
function numbersFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const next = numbersFrom(SEED);
const one = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
const likely = (chance: number): boolean => next() < chance;

const TEXTS = [
  '',
  ' ',
  'a',
  '\u0000',
  '\ud800',
  '../../etc/passwd',
  "'; drop table shots; --",
  '%00',
  '💧',
  'x'.repeat(5000),
  'null',
  '-1',
  '1e999',
  'NaN',
  '__proto__',
];
const ODD: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1.5,
  2 ** 53,
  -1e308,
  [],
  {},
  [[]],
  { a: { b: [] } },
  ...TEXTS,
  Array(300).fill(1),
  { __proto__: null, constructor: 1 },
];

/** What a schema asks for, or at times something else. */
function made(schema: Schema | undefined, odd: number): unknown {
  if (!schema || likely(odd)) return one(ODD);
  if (schema.$ref) return made(described.components.schemas[schema.$ref.split('/').at(-1)!], odd);
  if (schema.enum) return one(schema.enum);
  if (schema.nullable && likely(0.2)) return null;
  if (schema.format === 'uuid') return likely(0.6) ? one(known) : randomId();
  switch (schema.type) {
    case 'array':
      return Array.from({ length: Math.floor(next() * 4) }, () => made(schema.items, odd));
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {}).flatMap(([name, inner]) =>
          !schema.required?.includes(name) && likely(0.4)
            ? []
            : [[likely(odd / 4) ? one(TEXTS) : name, made(inner, odd)]],
        ),
      );
    case 'number':
    case 'integer':
      return likely(0.8)
        ? Math.floor((schema.minimum ?? 0) + next() * Math.min(100, (schema.maximum ?? 100) - (schema.minimum ?? 0)))
        : one([-1, 0, 1.5, 1e12]);
    case 'boolean':
      return likely(0.5);
    default:
      return likely(0.6) ? one(['Name', '#102030', 'shot', 'mp4', ...known]) : one(TEXTS);
  }
}

const inAddress = (): string =>
  encodeURIComponent(
    likely(0.7) ? one(known) : one([...TEXTS.filter((text) => text && text !== '\ud800'), randomId(), '0', '7']),
  );

const textOf = (value: unknown): string =>
  (typeof value === 'string' ? value : (JSON.stringify(value) ?? '')).toWellFormed();

interface Made {
  readonly method: string;
  readonly path: string;
  readonly body: string | null;
  readonly type: string;
}

function madeRequest(): Made {
  const path = one(Object.keys(described.paths));
  const operations = described.paths[path]!;
  const method = one(Object.keys(operations));
  const { parameters = [], requestBody } = operations[method]!;
  const query = parameters.flatMap(({ name, in: where, schema }) =>
    where === 'query' && likely(0.7) ? [`${name}=${encodeURIComponent(textOf(made(schema, 0.3)))}`] : [],
  );
  if (likely(0.1)) query.push(...query, 'extra=1');
  const filled = path.replace(/\{[^}]+\}/g, inAddress);
  const schema = Object.values(requestBody?.content ?? {})[0]?.schema;
  const takesBody = method !== 'get' && method !== 'delete';
  let body = takesBody ? JSON.stringify(made(schema, one([0, 0.05, 0.3]))) : null;
  if (body && likely(0.05)) body = body.slice(0, -1);
  return {
    method: method.toUpperCase(),
    path: query.length > 0 ? `${filled}?${query.join('&')}` : filled,
    body,
    type: likely(0.95)
      ? 'application/json'
      : one(['text/plain', 'application/octet-stream', 'application/zip', 'image/png']),
  };
}

/** Sends it; of answers that go on for ever only the beginning is read. */
async function sent({ method, path, body, type }: Made): Promise<{ status: number; json: unknown; ms: number }> {
  const ending = new AbortController();
  const began = performance.now();
  const answer = await fetch(`${server.address}${path}`, {
    ...{ method, body, signal: ending.signal },
    headers: body === null ? {} : { 'content-type': type },
  });
  const isStream = answer.headers.get('content-type')?.startsWith('text/event-stream');
  const text = isStream ? '' : await answer.text();
  const ms = performance.now() - began;
  if (isStream) ending.abort();
  let json: unknown = null;
  try {
    json = JSON.parse(text);
  } catch {
    // Files and pages.
  }
  return { status: answer.status, json, ms };
}

/** Tables of what is being made change by themselves; all else is somebody's work. */
const MADE_ANEW = new Set(['archives', 'exports', 'footage', 'loops']);

const stored = async (): Promise<Record<string, Fingerprint>> =>
  Object.fromEntries(
    Object.entries(await server.database.transaction(fingerprintsOf)).filter(([table]) => !MADE_ANEW.has(table)),
  );

test(`of ${COUNT} requests made up from the description none breaks the server, and none refused changes anything`, async () => {
  let before = await stored();
  const met: Record<number, number> = {};
  for (let i = 0; i < COUNT; i++) {
    const asked = madeRequest();
    const { status, json, ms } = await sent(asked);
    const told = JSON.stringify({ ...asked, status, json, ms }).slice(0, 1500);
    met[status] = (met[status] ?? 0) + 1;
    if (status >= 500 || ms > SLOWEST_MS) throw new Error(`request ${i} of seed ${SEED}: ${told}`);
    if (status >= 400) {
      const { title, errors } = json as { title?: string; errors?: { field: string; message: string }[] };
      if (!title || title.length < 8 || (status === 422 && !(errors?.[0]?.field && errors[0].message)))
        throw new Error(`request ${i} of seed ${SEED} is not told what is wrong: ${told}`);
    }
    const now = await stored();
    const difference = differenceOf(before, now);
    if (difference !== null && (status >= 400 || asked.method === 'GET'))
      throw new Error(`request ${i} of seed ${SEED} was to change nothing, but ${difference}: ${told}`);
    before = now;
  }
  // It does reach something.
  expect((met[200] ?? 0) + (met[201] ?? 0) + (met[204] ?? 0)).toBeGreaterThan(COUNT / 20);
  expect(met[422] ?? 0).toBeGreaterThan(COUNT / 20);
  if (process.env['TALLOW_FUZZ']) console.log(met);
}, 600_000);
