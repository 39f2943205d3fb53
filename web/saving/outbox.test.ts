/** The outbox: only the latest of each thing is kept, in the order it was made, and it is said when the store does not answer. */
import { randomId, type Id } from '@tallow/core/document';
import { fixture } from '../../core/fixture.ts';
import { browserStore, rangeOf, type Kept } from './browser-store.ts';
import { makePage, until } from './testing/page.ts';

makePage();
const { Outbox } = await import('./outbox.ts');

const { base } = fixture(8);
const entity = Object.values(base.entities)[0]!;
const shotId = randomId();
let tab: Id;
let seq = 0;
let latest: Map<Id, Kept>;
let told = 0;

const outboxOf = (changed = () => undefined) =>
  new Outbox(
    shotId,
    tab,
    {
      pendingOf: (id) => latest.get(id) ?? null,
      dirty: () => latest.keys(),
      batch: () => null,
      seq: () => seq,
    },
    () => {
      told += 1;
      changed();
    },
  );
const pendingOf = (id: Id): Kept => ({ id, base: null, entity, seq }) as unknown as Kept;
const stored = () => browserStore.run((database) => database.getAll('pending', rangeOf(shotId, tab)));
/** The store as it is, but for what it is asked to do. */
const run = browserStore.run.bind(browserStore);
/** Has each writing wait until it is let go. */
function heldBack() {
  let release: (() => void) | null = null;
  browserStore.run = (work) =>
    new Promise<void>((done) => {
      release = done;
    }).then(() => run(work));
  return {
    begun: () => until(() => release !== null, 'a writing to begin'),
    go: () => {
      release?.();
      release = null;
    },
  };
}

beforeEach(async () => {
  tab = randomId();
  [seq, told] = [0, 0];
  latest = new Map();
  await browserStore.tried();
});
afterEach(() => {
  browserStore.run = run;
});

const touch = (outbox: InstanceType<typeof Outbox>, ...ids: Id[]): void => {
  seq += 1;
  for (const id of ids) latest.set(id, pendingOf(id));
  outbox.touch(ids);
};

test('what is touched is kept as it is by then, and what is acknowledged goes', async () => {
  const outbox = outboxOf();
  touch(outbox, 'a', 'b');
  await outbox.whenHeld(1, 2000);
  expect((await stored()).map(({ id }) => id)).toEqual(['a', 'b']);
  latest.delete('a');
  outbox.touch(['a']);
  await outbox.whenHeld(1, 2000);
  expect((await stored()).map(({ id }) => id)).toEqual(['b']);
  outbox.close();
});

test('while one writing is on its way all that comes is written by one more, in its latest form', async () => {
  const outbox = outboxOf();
  let writings = 0;
  browserStore.run = (work) => {
    writings += 1;
    return run(work);
  };
  for (let i = 0; i < 50; i++) touch(outbox, 'a');
  await outbox.whenHeld(50, 2000);
  expect(writings).toBeLessThanOrEqual(2);
  expect((await stored()).map((each) => each.seq)).toEqual([50]);
  outbox.close();
});

test('it never says that it holds what it has not written', async () => {
  const outbox = outboxOf();
  const writing = heldBack();
  touch(outbox, 'a');
  await writing.begun();
  touch(outbox, 'b');
  expect(outbox.held).toBe(-1);
  writing.go();
  await until(() => outbox.held === 1, 'the first writing');
  // The second edit came while the first was being written.
  expect(outbox.held).toBe(1);
  await writing.begun();
  writing.go();
  await until(() => outbox.held === 2, 'the second writing');
  outbox.close();
});

test('a store that does not answer is told within half a second, and when it answers that is over', async () => {
  const outbox = outboxOf();
  const writing = heldBack();
  touch(outbox, 'a');
  await until(() => outbox.trouble !== null, 'the trouble to be told');
  expect(outbox.trouble).toBe('it does not answer');
  expect(told).toBeGreaterThan(0);
  writing.go();
  await until(() => outbox.trouble === null, 'it to be over');
  expect(outbox.held).toBe(1);
  outbox.close();
});

test('what comes while one writing takes long is told half a second after it came, not after that writing ended', async () => {
  const order: string[] = [];
  let half: ReturnType<typeof setTimeout> | undefined;
  const outbox = outboxOf(() => {
    if (outbox.held < 1) return undefined;
    half ??= setTimeout(() => order.push('half of the time again'), 250);
    if (outbox.trouble !== null) order.push('told');
    return undefined;
  });
  const writing = heldBack();
  touch(outbox, 'a');
  await writing.begun();
  touch(outbox, 'b');
  await until(() => outbox.trouble !== null, 'the trouble to be told');
  writing.go();
  await until(() => order.includes('told'), 'it to be told of the second');
  expect(order).toEqual(['told']);
  clearTimeout(half);
  outbox.close();
});

test('waiting for it ends, kept or not', async () => {
  const outbox = outboxOf();
  browserStore.run = () => new Promise(() => undefined);
  touch(outbox, 'a');
  await outbox.whenHeld(1, 20);
  expect(outbox.held).toBe(-1);
  outbox.close();
});

test('what another tab keeps is left alone', async () => {
  const [own, other] = [outboxOf(), tab];
  touch(own, 'a');
  await own.whenHeld(1, 2000);
  tab = randomId();
  const second = outboxOf();
  touch(second, 'a');
  latest.delete('a');
  second.touch(['a']);
  await second.whenHeld(2, 2000);
  expect(await browserStore.run((database) => database.count('pending', rangeOf(shotId, other)))).toBe(1);
  own.close();
  second.close();
});
