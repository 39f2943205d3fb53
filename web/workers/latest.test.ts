import { latestOnly } from './latest.ts';

/** A job that is done when the test says so. */
function job(name: string, did: string[]) {
  let end: () => void = () => undefined;
  const ended = new Promise<void>((done) => {
    end = done;
  });
  return {
    run: async () => {
      did.push(name);
      await ended;
    },
    end,
  };
}

test('of what is asked for meanwhile only the newest is done, and one after the other', async () => {
  const did: string[] = [];
  const queue = latestOnly(() => undefined);
  const [a, b, c] = ['a', 'b', 'c'].map((name) => job(name, did)) as [
    ReturnType<typeof job>,
    ReturnType<typeof job>,
    ReturnType<typeof job>,
  ];
  queue.ask(a.run);
  queue.ask(b.run);
  queue.ask(c.run);
  expect(did).toEqual(['a']);
  a.end();
  c.end();
  await queue.done();
  expect(did).toEqual(['a', 'c']);
});

test('one that fails is told, and what waits is done all the same; what is forgotten is not', async () => {
  const [did, failed]: [string[], string[]] = [[], []];
  const queue = latestOnly((error) => failed.push(String(error)));
  const last = job('last', did);
  queue.ask(() => Promise.reject(new Error('no')));
  queue.ask(last.run);
  last.end();
  await queue.done();
  expect([did, failed]).toEqual([['last'], ['Error: no']]);
  const first = job('first', did);
  queue.ask(first.run);
  queue.ask(last.run);
  queue.forget();
  first.end();
  await queue.done();
  expect(did).toEqual(['last', 'first']);
});
