/** Small loops wake once for each frame that is due, and not again once they are stopped. */
import fc from 'fast-check';
import { runSmallLoop, untilNextFrame } from './small-loop.ts';

test('after its rest the next frame is due, and before it none is', () => {
  const rates = fc.constantFrom(2.4, 12, 23.976, 24, 25, 30, 60, 120);
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1e8, noNaN: true }), rates, (time, rate) => {
      const frameAt = (ms: number): number => Math.floor((ms * rate) / 1000);
      const rest = untilNextFrame(time, rate);
      expect(rest).toBeGreaterThan(0);
      expect(rest).toBeLessThanOrEqual(1000 / rate);
      // The clock is exact to a thousandth of a millisecond.
      expect(frameAt(time + rest + 1e-3) - frameAt(time + 1e-3)).toBeLessThanOrEqual(1);
      expect(frameAt(time + rest + 1e-3)).toBeGreaterThan(frameAt(time - 1e-3));
    }),
  );
});

test('it wakes when a frame is due, with the screen where it is asked to, and not once it is stopped', () => {
  const waiting: { readonly by: 'screen' | number; readonly then: () => void }[] = [];
  const real = { setTimeout, clearTimeout };
  Object.assign(globalThis, {
    requestAnimationFrame: (then: () => void) => waiting.push({ by: 'screen', then }),
    cancelAnimationFrame: () => waiting.splice(0),
    setTimeout: (then: () => void, ms: number) => waiting.push({ by: ms, then }),
    clearTimeout: () => waiting.splice(0),
  });
  try {
    const answers = [100, 'follows', 'refresh', 100] as const;
    let shown = 0;
    const stop = runSmallLoop(() => answers[shown++]!);
    const by: unknown[] = [];
    while (shown < answers.length) {
      const { by: woken, then } = waiting.shift()!;
      by.push(woken);
      then();
      expect(waiting).toHaveLength(1);
    }
    expect([by[0], by[2], by[3]]).toEqual(['screen', 50, 'screen']);
    expect(by[1]).toBeGreaterThan(0);
    expect(by[1]).toBeLessThanOrEqual(10);
    stop();
    expect(waiting).toEqual([]);
  } finally {
    Object.assign(globalThis, real);
  }
});
