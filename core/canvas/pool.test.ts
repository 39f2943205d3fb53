import fc from 'fast-check';
import { SurfacePool, type Surface } from './index.ts';

const context = { setTransform: () => undefined, clearRect: () => undefined, filter: 'none' };
const fresh = (width: number, height: number): Surface =>
  ({ width, height, picture: {}, context: { ...context } }) as unknown as Surface;

test('surfaces lent during work come back at its end, those kept do not, and no surface is lent twice at once', () => {
  const pool = new SurfacePool(fresh, 1e9);
  const [first, kept] = pool.during(() => {
    const pair = [pool.make(8, 8), pool.make(8, 8)] as const;
    expect(pair[0]).not.toBe(pair[1]);
    pool.keep(pair[1]);
    return pair;
  });
  expect(pool.bytes).toBe(8 * 8 * 4);
  const [again, other] = [pool.make(8, 8), pool.make(8, 8)];
  expect(again).toBe(first);
  expect(other).not.toBe(kept);
  expect(pool.bytes).toBe(0);
});

test('what lies unused never passes its bound, and work that fails gives back too', () => {
  const size = fc.integer({ min: 1, max: 20 });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(size, size), { maxLength: 60 }),
      fc.integer({ min: 0, max: 3000 }),
      (sizes, bound) => {
        const pool = new SurfacePool(fresh, bound);
        for (const [w, h] of sizes) {
          expect(() =>
            pool.during(() => {
              pool.make(w, h);
              pool.make(h, w);
              throw new Error('stopped');
            }),
          ).toThrow('stopped');
          expect(pool.bytes).toBeLessThanOrEqual(bound);
        }
      },
    ),
  );
});
