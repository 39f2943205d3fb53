import fc from 'fast-check';
import { fixture } from '../fixture.ts';
import { entitiesOf, find, keysIn, shotOf, valueAt } from '../document/index.ts';
import { contactsOf, layWash, washOver } from './index.ts';

const shares = fc.array(fc.oneof(fc.constant(0), fc.constant(1), fc.double({ min: 0.01, max: 1, noNaN: true })), {
  minLength: 2,
  maxLength: 60,
});

test('a wash is there only where it is touched, never more than asked for, and as much as that where most is', () => {
  fc.assert(
    fc.property(shares, fc.double({ min: 1, max: 100, noNaN: true }), (overlap, max) => {
      const value = washOver(overlap, max);
      const contacts = contactsOf(overlap);
      const end = overlap.length - 1;
      const atEnds = overlap[0]! > 0 || overlap[end]! > 0;
      overlap.forEach((share, frame) => {
        const now = valueAt(value, frame, null);
        expect(now).toBeGreaterThanOrEqual(0);
        expect(now).toBeLessThanOrEqual(max + 1e-9);
        const isEnd = atEnds && (frame === 0 || frame === end);
        const near = contacts.some(({ from, to }) => frame >= from && frame <= to);
        if (!near && !isEnd && !atEnds) expect(now).toBe(0);
        if (share === Math.max(...overlap) && contacts.length === 1 && !atEnds) expect(now).toBeCloseTo(max, 6);
      });
    }),
  );
});

test('it holds for as long as the thing is covered', () => {
  const value = washOver([0, 0.4, 1, 1, 0.97, 1, 0.98, 0.3, 0], 60);
  const seen = Array.from({ length: 9 }, (_, frame) => valueAt(value, frame, null));
  expect([seen[0], seen[2], seen[3], seen[5], seen[8]]).toEqual([0, 60, 60, 60, 0]);
  expect(seen[4]).toBeCloseTo(60, 6);
  expect(seen[6]).toBeCloseTo(58.8, 6);
});

test('where it is touched across the ends of a loop it ends as it began', () => {
  fc.assert(
    fc.property(shares, (overlap) => {
      const value = washOver(overlap, 80);
      expect(valueAt(value, overlap.length - 1, null)).toBe(valueAt(value, 0, null));
    }),
  );
});

test('runs of contact are told apart; keys lie right before, at the most, and right after', () => {
  const overlap = [0, 0, 0.1, 0.4, 0.2, 0, 0, 0.2, 0, 0];
  expect(contactsOf(overlap)).toEqual([
    { from: 2, to: 4 },
    { from: 7, to: 7 },
  ]);
  expect(keysIn(washOver(overlap, 60)).map(({ frame, value }) => [frame, Math.round(value)])).toEqual([
    [1, 0],
    [3, 60],
    [5, 0],
    [6, 0],
    [7, 30],
    [8, 0],
  ]);
});

test('laid again in the same colour it takes the place of the one before; nothing touched changes nothing', () => {
  const { base, newId } = fixture(5);
  const use = entitiesOf(base, 'placement')[0]!;
  const [swatch] = shotOf(base).swatches;
  const once = layWash(base, use.id, [0, 0.5, 0], swatch!, 50, newId);
  const twice = layWash(once, use.id, [0, 0.5, 0.2, 0], swatch!, 70, newId);
  expect(find(twice, 'placement', use.id)!.finishes).toHaveLength(1);
  expect(valueAt(find(twice, 'placement', use.id)!.finishes[0]!.numbers['strength']!, 1, null)).toBe(70);
  expect(layWash(base, use.id, [0, 0], swatch!, 50, newId)).toBe(base);
});
