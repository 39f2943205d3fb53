import fc from 'fast-check';
import type { RunList } from '../document/index.ts';
import { follower } from './follow.ts';
import { exposureAt, totalLength } from './runs.ts';

/** A list from text: `A2 B1 -3`, runs told apart by place unless a name is given as `A2#x`. */
function list(text: string, more: Partial<RunList> = {}): RunList {
  const runs = text.split(' ').flatMap((word) => {
    const found = /^(\w|-)(\d+)(?:#(\w+))?$/.exec(word);
    if (!found) return [];
    const [, slot, length, id] = found;
    return [{ id: id ?? `run ${slot!}`, slot: slot === '-' ? null : slot!, length: Number(length) }];
  });
  return { kind: 'runlist', id: 'l', elementId: 'e', runs, period: null, offset: 0, poses: {}, numbers: {}, ...more };
}
const moved = (before: RunList, after: RunList, ...frames: number[]): number[] => {
  const { at } = follower(before, after, Math.max(1, totalLength(before)), Math.max(1, totalLength(after)));
  return frames.map(at);
};

test.each([
  ['put in before', 'A2 B2 C2', 'N2 A2 B2 C2', [0, 1, 2, 4], [2, 3, 4, 6]],
  ['put in behind', 'A2 B2', 'A2 B2 N2', [0, 3], [0, 3]],
  ['taken out before', 'A2 B2 C2', 'B2 C2', [2, 5], [0, 3]],
  ['taken out here: where what followed begins', 'A2 B2 C2', 'A2 C2', [2, 3], [2, 2]],
  ['the last taken out', 'A2 B2', 'A2', [2, 3], [1, 1]],
  ['held longer', 'A2 B2 C2', 'A4 B2 C2', [0, 1, 2, 4], [0, 1, 4, 6]],
  ['held shorter: its last frame', 'A4 B2', 'A1 B2', [3, 4], [0, 1]],
  ['all on 1s', 'A2 B2 C2', 'A1 B1 C1', [0, 2, 4], [0, 1, 2]],
  ['moved', 'A2 B2 C2', 'B2 A2 C2', [0, 2, 4], [2, 0, 4]],
  ['a hold broken: it stays on its drawing', 'A4', 'A2 N2', [0, 1, 2, 3], [0, 1, 1, 1]],
  ['a gap drawn in', '-10', '-4 A2 -4#rest', [2, 8], [2, 8]],
  ['written anew with runs of other ids', 'A2#a B2#b', 'N1 A2#c B2#d', [0, 2], [1, 3]],
  ['past the end nothing moves', 'A2 B2', 'A6 B2', [4, 9], [4, 9]],
])('%s', (_, before, after, frames, expected) => {
  expect(moved(list(before), list(after), ...frames)).toEqual(expected);
});

test('told from another run on, with an offset that makes up for it, nothing moves', () => {
  const before = list('A2 B2 C2');
  expect(moved(before, list('B2 C2 A2', { offset: 2 }), 0, 1, 2, 3, 4, 5)).toEqual([0, 1, 2, 3, 4, 5]);
});

test('what is still there is found again: whatever the change, a frame goes to one that shows the same', () => {
  const word = fc.tuple(fc.constantFrom(...'ABCDEF'), fc.integer({ min: 1, max: 3 }));
  const text = fc
    .uniqueArray(word, { selector: ([name]) => name, minLength: 1 })
    .map((words) => list(words.map(([name, length]) => `${name}${length}`).join(' ')));
  fc.assert(
    fc.property(text, text, (before, after) => {
      const [turn, turnAfter] = [totalLength(before), totalLength(after)];
      const { at, keeps } = follower(before, after, turn, turnAfter);
      for (let frame = 0; frame < turn; frame++) {
        const slot = exposureAt(before, frame, turn)!.run.slot;
        const there = at(frame);
        expect(there).toBeGreaterThanOrEqual(0);
        expect(there).toBeLessThan(turnAfter);
        if (!after.runs.some((run) => run.slot === slot)) continue;
        expect(keeps(frame)).toBe(true);
        expect(exposureAt(after, there, turnAfter)!.run.slot).toBe(slot);
      }
    }),
  );
});
