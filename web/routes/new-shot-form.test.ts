import fc from 'fast-check';
import { askedShot, emptyForm, framesIn, secondsIn, troublesOf } from './new-shot-form.ts';

const form = { ...emptyForm('p'), name: 'Furnace' };

test('a form as it opens lacks a name only', () => {
  const troubles = troublesOf(emptyForm('p'));
  expect(Object.entries(troubles).filter(([, trouble]) => trouble !== null)).toEqual([['name', expect.any(String)]]);
});

test('seconds are frames by the rate, and back to the hundredth', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 2000 }), fc.integer({ min: 1, max: 60 }), (frames, rate) => {
      const inFrames = { ...form, length: String(frames), rate: String(rate) };
      const seconds = secondsIn(inFrames);
      expect(Math.abs(seconds - frames / rate)).toBeLessThanOrEqual(0.005 + 1e-9);
      const back = Number(framesIn({ ...inFrames, unit: 'seconds', length: String(seconds) }));
      expect(Math.abs(back - frames)).toBeLessThanOrEqual(Math.ceil(0.005 * rate));
    }),
  );
});

test.each([
  ['width', '12.5'],
  ['width', ''],
  ['height', '0'],
  ['rate', 'fast'],
  ['length', ''],
  ['length', '-3'],
] as const)('%s as “%s” is told, and nothing else', (field, typed) => {
  const troubles = troublesOf({ ...form, [field]: typed });
  expect(Object.entries(troubles).filter(([, trouble]) => trouble !== null)).toEqual([[field, expect.any(String)]]);
});

test('the server is asked for numbers, the length in frames and the name without spaces round it', () => {
  expect(askedShot('id', { ...form, name: ' Furnace ', unit: 'seconds', length: '2.5', background: null })).toEqual({
    id: 'id',
    productionId: 'p',
    name: 'Furnace',
    width: 1920,
    height: 1080,
    rate: 24,
    length: 60,
    background: null,
  });
});
