import fc from 'fast-check';
import { framesAt } from './moving.ts';

test('each frame of the shot shows what is seen in the middle of it', () => {
  expect(framesAt([0.1, 0.1], 20)).toEqual([0, 0, 1, 1]);
  expect(framesAt([0.04, 0.08, 0.04], 25)).toEqual([0, 1, 1, 2]);
  expect(framesAt([0.001], 24)).toEqual([0]);
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0.02, max: 0.5, noNaN: true }), { minLength: 1, maxLength: 30 }),
      fc.integer({ min: 1, max: 60 }),
      (lasting, rate) => {
        const frames = framesAt(lasting, rate);
        const all = lasting.reduce((a, b) => a + b, 0);
        expect(Math.abs(frames.length - all * rate)).toBeLessThanOrEqual(1);
        frames.forEach((at, i) => {
          if (i > 0) expect(at).toBeGreaterThanOrEqual(frames[i - 1]!);
          const start = lasting.slice(0, at).reduce((a, b) => a + b, 0);
          const time = Math.min((i + 0.5) / rate, all);
          expect(time).toBeGreaterThanOrEqual(start - 1e-6);
          expect(time).toBeLessThanOrEqual(start + lasting[at]! + 1e-6);
        });
      },
    ),
  );
});
