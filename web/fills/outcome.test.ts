import type { FillTrouble } from '@tallow/core/paint';
import fc from 'fast-check';
import { outcomeText } from './outcome.ts';
import { steps } from './needs.ts';

const result = (...troubles: FillTrouble[]) => ({
  reports: troubles.map((trouble) => ({ x: 0, y: 0, trouble, gap: trouble === 'leaked' ? 9 : null })),
});

test('every drawing of the range is counted once, by the worst that is told of it', () => {
  expect(outcomeText(4, 4, [result(), result(), result()])).toBe('All 4 drawings are filled.');
  expect(outcomeText(6, 5, [result('bare', 'leaked'), result('lost', 'bare'), result('bare'), result()])).toBe(
    '6 drawings: 2 filled, 1 run out, 1 lost a region, 1 with a new region, 1 without lines.',
  );
});

test('the counts add up to the range', () => {
  const trouble = fc.constantFrom<FillTrouble>('leaked', 'lost', 'bare');
  fc.assert(
    fc.property(fc.array(fc.array(trouble, { maxLength: 3 }), { maxLength: 20 }), fc.nat(5), (lists, bare) => {
      const all = lists.length + 1 + bare;
      const [total, ...counts] = outcomeText(
        all,
        lists.length + 1,
        lists.map((list) => result(...list)),
      ).match(/\d+/g)!;
      expect(Number(total)).toBe(all);
      if (counts.length > 0) expect(counts.map(Number).reduce((a, b) => a + b)).toBe(all);
    }),
  );
});

test('a gap holds on as many drawings as need no more', () => {
  expect(steps([6, 6, 14, 27, null], 6)).toEqual([
    { gap: 6, holds: 2 },
    { gap: 14, holds: 3 },
    { gap: 27, holds: 4 },
  ]);
});
