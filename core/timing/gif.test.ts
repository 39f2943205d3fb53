import fc from 'fast-check';
import { gifTimes } from './index.ts';

describe('times of a GIF', () => {
  test('last what the loop should to within 0.01 s, each at least 2, in order', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2000 }), fc.integer({ min: 1, max: 120 }), (frames, rate) => {
        const { kept, delays } = gifTimes(frames, rate);
        const sum = delays.reduce((total, delay) => total + delay, 0);
        if (frames / rate >= 0.02) expect(Math.abs(sum / 100 - frames / rate)).toBeLessThanOrEqual(0.01);
        expect(Math.min(...delays)).toBeGreaterThanOrEqual(2);
        expect(kept[0]).toBe(0);
        expect(kept.every((frame, i) => i === 0 || frame > kept[i - 1]!)).toBe(true);
        expect(kept.at(-1)).toBeLessThan(frames);
        if (rate <= 50) expect(kept).toHaveLength(frames);
      }),
    );
  });
  test('24 a second is held 4 and 5 hundredths in turn', () => {
    expect(gifTimes(6, 24).delays).toEqual([4, 4, 4, 4, 4, 5]);
    expect(gifTimes(12, 12).delays.reduce((a, b) => a + b)).toBe(100);
  });
  test('60 a second drops frames down to 50', () => {
    expect(gifTimes(60, 60).kept).toHaveLength(50);
  });
});
