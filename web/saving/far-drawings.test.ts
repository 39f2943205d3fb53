import fc from 'fast-check';
import { emptyDrawing, entitiesOf, type Drawing } from '@tallow/core/document';
import { cycleOf, fixture } from '../../core/fixture.ts';
import { setPlayback } from '../playback/playback.ts';
import { setSelection } from '../selection/selection.ts';
import { Asides, asides } from '../shot/aside.ts';
import { openDocument, useDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { FarDrawings, roomAtHand, tooFar } from './far-drawings.ts';

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

test('while a shot plays nothing is read back, and where it stops what is seen comes to hand', async () => {
  beginAnew();
  const made = fixture(21);
  openDocument(
    cycleOf(made, 4, (i) => made.stroke(i, 0, i, 9)),
    'Test',
    [],
  );
  const drawings = entitiesOf(useDocument.getState().doc!, 'drawing');
  for (const drawing of drawings) await asides.putAside(drawing);
  const far = new FarDrawings(() => false, 1);
  let asked = 0;
  const { toHand } = Asides.prototype;
  asides.toHand = (wanted) => {
    asked += 1;
    return toHand.call(asides, wanted);
  };
  setPlayback({ playing: true });
  setSelection({ frame: 2 });
  setSelection({ frame: 4 });
  // As long as reading takes once it is asked for.
  for (let turn = 0; turn < 20; turn++) await new Promise((next) => setTimeout(next));
  expect(asked).toBe(0);
  setPlayback({ playing: false });
  while (drawings.every((drawing) => asides.isAside(drawing))) await new Promise((next) => setTimeout(next));
  expect(drawings.map((drawing) => asides.isAside(drawing))).toEqual([true, true, false, true]);
  far.stop();
});
