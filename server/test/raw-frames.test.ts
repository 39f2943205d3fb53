/** Pixels on their way to an encoder: held against what is said of them, pixel by pixel; and the order in which frames come. */
import fc from 'fast-check';
import { KeptFrames } from '../exports/formats/kept-frames.ts';
import { encodedAhead } from '../render/encoded-ahead.ts';
import { drawnBox, tellAlpha, type Pixels, type Told } from '../render/raw-frames.ts';

const WIDTH = 5;
const byte = fc.integer({ min: 0, max: 255 });
/** Straight pixels as a canvas gives them: nothing is left of the colour where alpha is 0. */
const pixel = fc
  .tuple(byte, byte, byte, fc.oneof(fc.constantFrom(0, 255), byte))
  .map(([r, g, b, a]) => (a === 0 ? [0, 0, 0, 0] : [r, g, b, a]));
const picture = fc
  .array(fc.array(pixel, { minLength: WIDTH, maxLength: WIDTH }), { minLength: 1, maxLength: 6 })
  .map((rows): Pixels => Uint8ClampedArray.from(rows.flat(2)));

const FORMULAS: Record<Told, (rgba: readonly number[]) => readonly number[]> = {
  straight: (rgba) => rgba,
  premultiplied: ([r, g, b, a]) => [...[r, g, b].map((c) => Math.round((c! * a!) / 255)), a!],
  'on black': ([r, g, b, a]) => [...[r, g, b].map((c) => Math.round((c! * a!) / 255)), 255],
  matte: ([, , , a]) => [a!, a!, a!, 255],
};

test.each(Object.keys(FORMULAS) as Told[])('%s: each pixel is what the formula says', (told) => {
  fc.assert(
    fc.property(picture, (pixels) => {
      const wanted: number[] = [];
      for (let p = 0; p < pixels.length; p += 4) wanted.push(...FORMULAS[told]([...pixels.subarray(p, p + 4)]));
      expect([...tellAlpha(pixels.slice(), told)]).toEqual(wanted);
    }),
  );
});

test('the drawn box holds every pixel that is seen, and one on each of its edges', () => {
  fc.assert(
    fc.property(picture, (pixels) => {
      const seen = Array.from({ length: pixels.length / 4 }, (_, i) => i).filter((i) => pixels[4 * i + 3]! > 0);
      const box = drawnBox(pixels, WIDTH);
      if (seen.length === 0) {
        expect(box).toBeNull();
        return;
      }
      const [xs, ys] = [seen.map((i) => i % WIDTH), seen.map((i) => Math.floor(i / WIDTH))];
      const [left, top] = [Math.min(...xs), Math.min(...ys)];
      expect(box).toEqual({ left, top, width: Math.max(...xs) - left + 1, height: Math.max(...ys) - top + 1 });
    }),
  );
});

describe('frames encoded ahead', () => {
  test('come in order, each look drawn once, and never more are being encoded than are allowed', async () => {
    const looks = ['a', 'b', 'a', 'a', 'c', 'b', 'd', 'e'];
    const drawn: string[] = [];
    const waiting: (() => void)[] = [];
    let most = 0;
    const frameOf = (frame: number) => {
      const key = looks[frame]!;
      const encode = async (): Promise<string> => {
        drawn.push(key);
        const done = new Promise<void>((resolve) => waiting.push(resolve));
        most = Math.max(most, waiting.length);
        // The one asked for last is ready first.
        setImmediate(() => waiting.pop()?.());
        await done;
        return key.toUpperCase();
      };
      return Promise.resolve({ key, encode });
    };
    const frames = looks.map((_, i) => i);
    const came: string[] = [];
    for await (const each of encodedAhead(frames, frameOf, { kept: 10, ahead: 2 })) came.push(each);
    expect(came).toEqual(looks.map((look) => look.toUpperCase()));
    expect(drawn).toEqual(['a', 'b', 'c', 'd', 'e']);
    expect(most).toBeLessThanOrEqual(2);
  });

  test('what fails fails where its frame is awaited', async () => {
    const frameOf = (frame: number) =>
      Promise.resolve({
        key: String(frame),
        encode: () => (frame === 2 ? Promise.reject(new Error('broken')) : Promise.resolve(frame)),
      });
    const came: number[] = [];
    const all = async (): Promise<void> => {
      for await (const each of encodedAhead([0, 1, 2, 3], frameOf, { kept: 10, ahead: 3 })) came.push(each);
    };
    await expect(all()).rejects.toThrow('broken');
    expect(came).toEqual([0, 1]);
  });
});

test('frames kept for a second pass come back as they were, the first as they are, the next packed, none given up for another', () => {
  const pixels = (seed: number) => Uint8Array.from({ length: 1000 }, (_, i) => (i % 50 === 0 ? seed : 0));
  const kept = new KeptFrames({ plain: 2500, packed: 200 });
  for (let i = 0; i < 30; i++) kept.keep(String(i), pixels(i));
  const there = Array.from({ length: 30 }, (_, i) => kept.of(String(i)));
  const count = there.filter((each) => each !== null).length;
  expect(there.slice(0, count).map((each) => [...each!])).toEqual(
    Array.from({ length: count }, (_, i) => [...pixels(i)]),
  );
  expect(there.slice(count).every((each) => each === null)).toBe(true);
  // Two as they are; packed ones are far smaller.
  expect(count).toBeGreaterThan(4);
  expect(count).toBeLessThan(30);
});
