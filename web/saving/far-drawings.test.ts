import fc from 'fast-check';
import { emptyDrawing, type Drawing } from '@tallow/core/document';
import { roomAtHand, tooFar } from './far-drawings.ts';

const MB = 1024 * 1024;
interface Sized {
  readonly drawing: Drawing;
  readonly size: number;
}
const shots = fc
  .array(fc.integer({ min: 1, max: 100 }), { minLength: 1, maxLength: 40 })
  .map((sizes) => sizes.map((size, i): Sized => ({ drawing: emptyDrawing(`d${i}`), size })));
const total = (list: readonly Sized[]): number => list.reduce((sum, { size }) => sum + size, 0);

test('a shot that fits keeps all of its drawings at hand', () => {
  fc.assert(
    fc.property(shots, fc.nat(500), (all, more) => {
      expect(tooFar(all, [], total(all) + more)).toEqual([]);
    }),
  );
});

test('the rest takes no more than there is room for, and nothing nearer goes than what stays', () => {
  fc.assert(
    fc.property(
      shots,
      fc.shuffledSubarray(Array.from({ length: 40 }, (_, i) => `d${i}`)),
      fc.nat(2000),
      (all, near, room) => {
        const far = new Set(tooFar(all, near, room));
        const stays = all.filter(({ drawing }) => !far.has(drawing));
        expect(total(stays)).toBeLessThanOrEqual(room);
        const rankOf = ({ drawing }: Sized): number => near.indexOf(drawing.id) >>> 0;
        const nearest = Math.min(...all.filter(({ drawing }) => far.has(drawing)).map(rankOf));
        for (const each of stays) expect(rankOf(each)).toBeLessThanOrEqual(nearest);
      },
    ),
  );
});

test('machines with little memory have less at hand', () => {
  expect(roomAtHand()).toBe(64 * MB);
  expect(roomAtHand(8)).toBe(64 * MB);
  expect(roomAtHand(2)).toBe(16 * MB);
  expect(roomAtHand(0.25)).toBe(2 * MB);
});
