import fc from 'fast-check';
import { channels, COLOUR_PAIRS, contrast, distance, farthestPair, flashesPerSecond, luminance } from './index.ts';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
const of = (colour: string) => luminance(...channels(colour));

describe('contrast', () => {
  test('has the known values', () => {
    expect(contrast(of('#000000'), of('#ffffff'))).toBeCloseTo(21, 5);
    expect(contrast(of('#777777'), of('#ffffff'))).toBeCloseTo(4.48, 2);
  });
  test('is the same either way and never below 1', () => {
    fc.assert(
      fc.property(hex, hex, (a, b) => {
        expect(contrast(of(a), of(b))).toBe(contrast(of(b), of(a)));
        expect(contrast(of(a), of(b))).toBeGreaterThanOrEqual(1);
        expect(distance(a, b)).toBeCloseTo(distance(b, a), 12);
      }),
    );
  });
});

describe('pairs for the onion skin', () => {
  test('all stand out on the dark edge of ghosts', () => {
    for (const { before, after } of COLOUR_PAIRS)
      for (const colour of [before, after]) expect(contrast(of(colour), of('#100c0a'))).toBeGreaterThan(6);
  });
  test('the one offered is never nearer to the swatches than any other', () => {
    fc.assert(
      fc.property(fc.array(hex, { minLength: 1, maxLength: 8 }), (swatches) => {
        const apart = (pair: { before: string; after: string }) =>
          Math.min(...swatches.flatMap((s) => [distance(s, pair.before), distance(s, pair.after)]));
        const best = apart(farthestPair(swatches));
        for (const pair of COLOUR_PAIRS) expect(best).toBeGreaterThanOrEqual(apart(pair));
      }),
    );
    expect(farthestPair([])).toBe(COLOUR_PAIRS[0]);
    expect(farthestPair(['#3fc7b4', '#40c0ff'])).not.toBe(COLOUR_PAIRS[0]);
  });
});

describe('flashes', () => {
  const frames = (values: number[]) => values.map((v) => new Float32Array(16).fill(v));
  test('a still, and a slow swell, do not flash', () => {
    expect(flashesPerSecond(frames([0.5, 0.5, 0.5]), 24)).toBe(0);
    expect(
      flashesPerSecond(frames(Array.from({ length: 48 }, (_, i) => 0.3 + 0.2 * Math.sin((i / 48) * 6.283))), 24),
    ).toBe(1);
  });
  test('white on every second frame at 24 a second is twelve flashes', () => {
    expect(flashesPerSecond(frames([0, 1]), 24)).toBe(12);
  });
  test('a small area may flash', () => {
    const small = [0, 1].map((v) => {
      const frame = new Float32Array(16).fill(0.1);
      frame[0] = v;
      return frame;
    });
    expect(flashesPerSecond(small, 24)).toBe(0);
  });
});
