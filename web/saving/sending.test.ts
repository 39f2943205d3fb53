import { emptyDrawing, type Drawing, type Entity } from '@tallow/core/document';
import { fixture } from '../../core/fixture.ts';
import { seededIds } from '@tallow/core/geometry';
import type { KeptBatch } from './browser-store.ts';
import { sendBatch } from './sending.ts';
import { Unsaved } from './unsaved.ts';

const newId = seededIds(4);
const { stroke } = fixture();
const shotId = newId();
const tab = newId();

interface Sent {
  readonly method: string;
  readonly path: string;
  readonly body: { puts: { id: string; copyOf?: string }[]; deletes: string[]; parts?: number };
  readonly bytes: number;
}
let sent: Sent[] = [];
let answer: (request: Sent) => { status: number; body?: unknown };

beforeEach(() => {
  sent = [];
  answer = ({ method }) =>
    method === 'PUT' ? { status: 204 } : { status: 200, body: { epoch: 'e', revision: 2, before: 1 } };
  globalThis.fetch = (path, options) => {
    const text = options?.body as string;
    const request = {
      method: options?.method ?? 'GET',
      path: path as string,
      body: JSON.parse(text) as Sent['body'],
      bytes: text.length,
    };
    sent.push(request);
    const { status, body } = answer(request);
    return Promise.resolve(new Response(body === undefined ? null : JSON.stringify(body), { status }));
  };
});

const batchOf = (entities: readonly (Entity | null)[], more: Partial<KeptBatch> = {}): KeptBatch => ({
  saveId: newId(),
  baseRevision: 1,
  epoch: '',
  seq: 1,
  bodies: entities.map((entity) => ({ id: entity?.id ?? newId(), entity })),
  restored: [],
  held: [],
  ...more,
});
const send = (batch: KeptBatch) => sendBatch(shotId, tab, batch, () => undefined);
const large = (): Drawing => {
  const marks = Array.from({ length: 4 }, () => stroke(...Array.from({ length: 60_000 }, (_, i) => i)));
  return {
    kind: 'drawing',
    id: newId(),
    marks: Object.fromEntries(marks.map((m) => [m.id, m])),
    order: marks.map((m) => m.id),
  };
};

test('a small save goes in one request', async () => {
  expect(await send(batchOf([emptyDrawing(newId()), null]))).toMatchObject({ kind: 'saved' });
  expect(sent).toHaveLength(1);
  expect(sent[0]!.body).toMatchObject({
    tab,
    seq: 1,
    puts: [{}],
    deletes: [{}].map(() => expect.any(String) as string),
  });
});

test('five thousand things go up in parts of a thousand at most, and one last word', async () => {
  const batch = batchOf(Array.from({ length: 5000 }, () => emptyDrawing(newId())));
  await send(batch);
  const parts = sent.slice(0, -1);
  expect(parts.every(({ method, body }) => method === 'PUT' && body.puts.length <= 1000)).toBe(true);
  expect(parts.flatMap(({ body }) => body.puts.map(({ id }) => id))).toEqual(batch.bodies.map(({ id }) => id));
  expect(sent.at(-1)!.body).toMatchObject({ puts: [], deletes: [], parts: 5, digest: expect.any(String) as string });
  // Repeated, the very same is sent: the server knows it.
  const first = sent.map(({ path }) => path);
  sent = [];
  await send(batch);
  expect(sent.map(({ path }) => path)).toEqual(first);
});

test('forty megabytes of drawings go up in parts of eight at most', async () => {
  await send(batchOf(Array.from({ length: 10 }, large)));
  expect(sent.length).toBeGreaterThan(5);
  for (const { bytes } of sent) expect(bytes).toBeLessThan(8_100_000);
});

test('what is refused is told by the ids that were named; conflicts and another database are told apart', async () => {
  const batch = batchOf([emptyDrawing(newId()), null, emptyDrawing(newId())]);
  answer = () => ({
    status: 422,
    body: {
      title: 'No.',
      errors: [
        { field: 'puts.1.body.order', message: 'no' },
        { field: 'deletes.0', message: 'no' },
      ],
    },
  });
  expect(await send(batch)).toEqual({ kind: 'refused', ids: [batch.bodies[2]!.id, batch.bodies[1]!.id], why: 'No.' });
  answer = () => ({ status: 409, body: { title: 'Newer.', conflicts: [], revision: 3, epoch: 'e' } });
  expect(await send(batch)).toEqual({ kind: 'newer' });
  answer = () => ({ status: 409, body: { title: 'Other.', epoch: 'f' } });
  expect(await send(batch)).toEqual({ kind: 'restored' });
});

test.each([401, 408, 429, 500, 503, 507])('an answer of %i is tried again later', async (status) => {
  answer = () => ({ status, body: { title: 'Later.' } });
  await expect(send(batchOf([null]))).rejects.toThrow('Later');
});

describe('what is not on the server', () => {
  const entities = Array.from({ length: 8 }, () => emptyDrawing(newId()));
  const doc = Object.fromEntries(entities.map((e) => [e.id, e]));
  const ids = entities.map(({ id }) => id);
  const begun = (): Unsaved => {
    const unsaved = new Unsaved();
    unsaved.begin(1, []);
    unsaved.changed(ids, doc);
    return unsaved;
  };

  test('the one thing that is refused is found by halving, and everything else is saved', () => {
    const unsaved = begun();
    const cursed = ids[5]!;
    let tries = 0;
    for (let batch = unsaved.nextBatch('e'); batch; batch = unsaved.nextBatch('e')) {
      tries += 1;
      if (batch.bodies.some(({ id }) => id === cursed)) unsaved.refused(batch, [], 'cursed');
      else unsaved.accepted(batch);
    }
    expect([...unsaved.bad.keys()]).toEqual([cursed]);
    expect([...unsaved.dirty()]).toEqual([cursed]);
    expect(tries).toBeLessThanOrEqual(8);
    expect(unsaved.savedSeq).toBe(0);
    // Changed, it is tried again.
    unsaved.changed([cursed], { [cursed]: emptyDrawing(cursed) });
    unsaved.accepted(unsaved.nextBatch('e')!);
    expect(unsaved.waiting).toBe(0);
    expect(unsaved.savedSeq).toBe(unsaved.seq);
  });
  test('what is named is tried alone, pointed at by the rest meanwhile', () => {
    const unsaved = begun();
    const first = unsaved.nextBatch('e')!;
    expect(first).toMatchObject({ held: [], seq: 1 });
    unsaved.refused(first, [ids[2]!], 'no');
    const rest = unsaved.nextBatch('e')!;
    expect(rest.bodies).toHaveLength(7);
    expect(rest).toMatchObject({ held: [ids[2]], seq: null });
  });
  test('what changes on its way stays unsaved; what is made and taken back before it is sent is none', () => {
    const unsaved = begun();
    const batch = unsaved.nextBatch('e')!;
    const newer = { ...doc, [ids[0]!]: emptyDrawing(ids[0]!) };
    unsaved.changed([ids[0]!], newer);
    unsaved.accepted(batch);
    expect([...unsaved.dirty()]).toEqual([ids[0]]);
    expect(unsaved.pendingOf(ids[0]!)).toMatchObject({ base: doc[ids[0]!], seq: 2 });
    const id = newId();
    unsaved.changed([id], { ...newer, [id]: emptyDrawing(id) });
    unsaved.changed([id], newer);
    expect([...unsaved.dirty()]).toEqual([ids[0]]);
  });
});

test('what is undone while it is on its way is sent again as it was', () => {
  const unsaved = new Unsaved();
  const id = newId();
  const before = emptyDrawing(id);
  unsaved.begin(1, [before]);
  const drawn: Drawing = { ...large(), id };
  unsaved.changed([id], { [id]: drawn });
  const sent = unsaved.nextBatch('e')!;
  unsaved.changed([id], { [id]: before }, sent);
  expect(unsaved.waiting).toBe(1);
  unsaved.accepted(sent);
  expect(unsaved.nextBatch('e')!.bodies).toEqual([{ id, entity: before }]);
  // Put back before the answer, nothing is left to do.
  unsaved.changed([id], { [id]: drawn });
  expect(unsaved.waiting).toBe(0);
  expect(unsaved.savedSeq).toBe(unsaved.seq);
});
