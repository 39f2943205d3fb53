import fc from 'fast-check';
import { inLine } from '../assets/in-line.ts';

test('work is done in the order it came, one piece at a time; what fails holds nobody up', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.boolean(), { maxLength: 20 }), async (fails) => {
      const line = inLine();
      let [running, max] = [0, 0];
      const order: number[] = [];
      const all = fails.map((isFailing, i) =>
        line(async () => {
          max = Math.max(max, (running += 1));
          await Promise.resolve();
          order.push(i);
          running -= 1;
          if (isFailing) throw new Error(String(i));
          return i;
        }),
      );
      const came = await Promise.allSettled(all);
      expect(max).toBe(fails.length > 0 ? 1 : 0);
      expect(order).toEqual(fails.map((_, i) => i));
      expect(came.map(({ status }) => status === 'rejected')).toEqual(fails);
    }),
    { numRuns: 30 },
  );
});
