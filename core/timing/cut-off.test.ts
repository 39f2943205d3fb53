import { newPlacement, type Placement } from '../document/index.ts';
import { cutOff, cutOffText } from './cut-off.ts';

const placed = (start: number, repeats: number | null = null): Placement => ({
  ...newPlacement('e', { start, x: 0, y: 0 }, () => 'p'),
  repeats,
});
const cycle = { time: 'cycle' } as const;
const once = { time: 'one-shot' } as const;

test.each([
  ['a turn that ends with the shot', placed(0), cycle, 12, 24, null],
  ['a turn cut in its middle', placed(0), cycle, 10, 24, { shown: 4, of: 10, by: 'shot' }],
  ['a turn moved on', placed(6), cycle, 10, 24, { shown: 8, of: 10, by: 'shot' }],
  ['turns that end before', placed(0, 2), cycle, 10, 24, null],
  ['a longer cycle than the shot', placed(0), cycle, 30, 24, { shown: 24, of: 30, by: 'shot' }],
  ['a one-shot with room', placed(0), once, 24, 24, null],
  ['a one-shot that is longer', placed(4), once, 24, 24, { shown: 20, of: 24, by: 'shot' }],
  ['a turn cut by its slot', { ...placed(0), lasts: 15 }, cycle, 10, 24, { shown: 5, of: 10, by: 'slot' }],
  ['a one-shot cut by its slot', { ...placed(2), lasts: 6 }, once, 8, 24, { shown: 6, of: 8, by: 'slot' }],
  [
    'one at half the speed',
    { ...placed(0), speed: { over: 1, of: 2 } },
    once,
    16,
    24,
    { shown: 24, of: 32, by: 'shot' },
  ],
  ['one that begins too late', placed(24), once, 8, 24, { shown: 0, of: 8, by: 'shot' }],
] as const)('%s', (_, placement, element, length, shot, expected) => {
  expect(cutOff(placement, element, length, shot)).toEqual(expected);
});

test('is told in words', () => {
  expect(cutOffText({ shown: 6, of: 8, by: 'slot' }, false)).toBe('cut off by the end of its slot, 6 of 8 frames');
  expect(cutOffText({ shown: 4, of: 10, by: 'shot' }, true)).toBe(
    'last turn cut off by the end of the shot, 4 of 10 frames',
  );
  expect(cutOffText({ shown: 0, of: 10, by: 'shot' }, false)).toBe('begins after the end of the shot');
});
