/** Phases with their borders where something hits. */
import fc from 'fast-check';
import type { Phase } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { phasesAt } from './index.ts';

const newId = seededIds(44);
const phasesOf = (...lengths: number[]): Phase[] =>
  lengths.map((length, i) => ({ id: newId(), name: `P${i}`, length, hold: 2 }));
const borders = (phases: readonly Phase[]): number[] =>
  phases.map((_, i) => phases.slice(0, i).reduce((sum, { length }) => sum + length, 0));

test('where there are none, it is parted there', () => {
  expect(phasesAt([], 40, [12], newId).map(({ name, length }) => [name, length])).toEqual([
    ['Before', 12],
    ['After', 28],
  ]);
  expect(phasesAt([], 40, [30, 12], newId).map(({ length }) => length)).toEqual([12, 18, 10]);
});

test('what hits outside changes nothing', () => {
  const phases = phasesOf(4, 8, 20);
  expect(phasesAt(phases, 32, [], newId)).toBe(phases);
  expect(phasesAt(phases, 32, [0, 32, -4, 99], newId)).toBe(phases);
});

test('the nearest border comes to a hit; the others stay', () => {
  const phases = phasesOf(4, 8, 20);
  expect(borders(phasesAt(phases, 32, [6], newId))).toEqual([0, 6, 12]);
  expect(borders(phasesAt(phases, 32, [10], newId))).toEqual([0, 4, 10]);
  expect(borders(phasesAt(phases, 32, [6, 7], newId))).toEqual([0, 6, 7]);
});

test('phases keep their order, names and whole length, each at least a frame', () => {
  const anyPhases = fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 2, maxLength: 7 });
  fc.assert(
    fc.property(anyPhases, fc.array(fc.integer({ min: -5, max: 90 }), { maxLength: 6 }), (lengths, frames) => {
      const phases = phasesOf(...lengths);
      const whole = lengths.reduce((sum, length) => sum + length, 0);
      const next = phasesAt(phases, whole, frames, newId);
      expect(next.map(({ id }) => id)).toEqual(phases.map(({ id }) => id));
      expect(next.reduce((sum, { length }) => sum + length, 0)).toBe(whole);
      for (const { length } of next) expect(length).toBeGreaterThanOrEqual(1);
      // One hit always finds a border, unless one is there already or none may go so far.
      const [only] = frames;
      if (frames.length === 1 && only! > 0 && only! < whole && lengths.length === 2)
        expect(borders(next)).toContain(only);
    }),
  );
});
