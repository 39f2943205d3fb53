/** The exchange: one thing after another, never two at once, on after trouble, and nothing more once it has ended. */
import { Exchange } from './exchange.ts';
import { until } from './testing/page.ts';

/** Steps that are let go by hand. */
function steps(count: number) {
  const begun: number[] = [];
  const going: ((error?: Error) => void)[] = [];
  let left = count;
  const next = () => {
    if (left === 0) return null;
    left -= 1;
    const nth = begun.length;
    return () => {
      begun.push(nth);
      return new Promise<void>((done, failed) => {
        going[nth] = (error) => {
          if (error) failed(error);
          else done();
        };
      });
    };
  };
  return { begun, next, go: (nth: number, error?: Error) => going[nth]!(error), more: () => (left += 1) };
}
const settled = () => new Promise((done) => setImmediate(done));
const no = () => Promise.resolve(false);
const nothing = (): void => undefined;

test('one step begins when the one before is done, however often it is woken', async () => {
  const { begun, next, go } = steps(3);
  let rests = 0;
  const exchange = new Exchange(next, no, nothing, () => {
    rests += 1;
  });
  exchange.wake();
  exchange.wake();
  await settled();
  expect(begun).toEqual([0]);
  go(0);
  await settled();
  exchange.wake();
  expect(begun).toEqual([0, 1]);
  go(1);
  await settled();
  go(2);
  await settled();
  expect([begun, rests, exchange.trouble]).toEqual([[0, 1, 2], 1, null]);
});

test('what goes wrong is told in its words, and tried again after a wait; what goes well then takes it back', async () => {
  const { begun, next, go, more } = steps(1);
  let again = 0;
  const exchange = new Exchange(
    next,
    no,
    () => {
      again += 1;
      more();
      exchange.wake();
    },
    nothing,
  );
  exchange.wake();
  go(0, new Error('The server cannot be reached.'));
  await settled();
  expect(exchange.trouble).toBe('The server cannot be reached');
  await until(() => begun.length === 2, 'the second try');
  expect([again, exchange.trouble]).toEqual([1, 'The server cannot be reached']);
  go(1);
  await settled();
  expect(exchange.trouble).toBe(null);
});

test('what can be put right is, and all goes on without a word; where that goes wrong too, this is told', async () => {
  const { begun, next, go } = steps(3);
  const mended: unknown[] = [];
  const exchange = new Exchange(
    next,
    (error) => {
      mended.push(error);
      return mended.length === 1 ? Promise.resolve(true) : Promise.reject(new Error('worse'));
    },
    nothing,
    nothing,
  );
  const restored = new Error('another database');
  exchange.wake();
  go(0, restored);
  await until(() => begun.length === 2, 'it to go on');
  expect([mended, exchange.trouble]).toEqual([[restored], null]);
  go(1, restored);
  await settled();
  expect(exchange.trouble).toBe('worse');
  exchange.end();
});

test('once it has ended nothing is begun, not even what a wait was for', async () => {
  const { begun, next, go } = steps(3);
  const exchange = new Exchange(
    next,
    () => Promise.resolve(true),
    () => {
      throw new Error('not to be called');
    },
    nothing,
  );
  exchange.wake();
  exchange.end();
  go(0, new Error('too late'));
  await settled();
  exchange.wake();
  await settled();
  expect([begun, exchange.trouble]).toEqual([[0], null]);
});
