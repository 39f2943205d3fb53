/** Sounds in time: where they lie, what is heard of them, their form, their hits. */
import fc from 'fast-check';
import type { Sound } from '../document/index.ts';
import { clamp } from '../geometry/index.ts';
import {
  FINEST,
  frameOfSecond,
  HitFinder,
  loudnessAt,
  MADE_RATE,
  MADE_SOUNDS,
  peakBetween,
  Peaks,
  secondOn,
  spanOfSound,
  stretchesOf,
  strongest,
  voicesOf,
  wavOf,
} from './index.ts';

const RATE = 24;
const sound = (settings: Partial<Sound> = {}): Sound => ({
  kind: 'sound',
  id: 'a',
  name: 'A',
  asset: '0'.repeat(64),
  seconds: 10,
  start: 12,
  part: { from: 2, to: 6 },
  fadeIn: 0,
  fadeOut: 0,
  loudness: 1,
  hits: 0.5,
  heard: true,
  ...settings,
});
const anySound = fc
  .record({
    start: fc.integer({ min: -2000, max: 4000 }).map((n) => n / 10),
    from: fc.integer({ min: 0, max: 500 }).map((n) => n / 100),
    long: fc.integer({ min: 5, max: 500 }).map((n) => n / 100),
    fadeIn: fc.integer({ min: 0, max: 20 }).map((n) => n / 20),
    fadeOut: fc.integer({ min: 0, max: 20 }).map((n) => n / 20),
    loudness: fc.integer({ min: 1, max: 40 }).map((n) => n / 10),
  })
  .map(({ start, from, long, ...rest }) => sound({ start, part: { from, to: from + long }, ...rest }));

describe('where a sound lies', () => {
  test('its span, and the second that is heard on a frame', () => {
    expect(spanOfSound(sound(), RATE)).toEqual({ from: 12, to: 12 + 4 * RATE });
    expect(secondOn(sound(), RATE, 36)).toBe(3);
    expect(frameOfSecond(sound(), RATE, 3)).toBe(36);
  });
  test('frames and seconds lead back to themselves', () => {
    fc.assert(
      fc.property(
        anySound,
        fc.constantFrom(12, 24, 25, 30, 60),
        fc.double({ min: -500, max: 5000, noNaN: true }),
        (each, rate, frame) => {
          expect(frameOfSecond(each, rate, secondOn(each, rate, frame))).toBeCloseTo(frame, 6);
        },
      ),
    );
  });
  test('it comes and goes within its part, never louder than it is set', () => {
    const fading = sound({ fadeIn: 1, fadeOut: 2, loudness: 0.5 });
    expect([1.9, 2, 2.5, 3, 4, 5, 6, 6.1].map((second) => loudnessAt(fading, second))).toEqual([
      0, 0, 0.25, 0.5, 0.5, 0.25, 0, 0,
    ]);
    fc.assert(
      fc.property(anySound, fc.double({ min: 0, max: 12, noNaN: true }), (each, second) => {
        const loud = loudnessAt(each, second);
        expect(loud >= 0 && loud <= each.loudness).toBe(true);
      }),
    );
  });
});

describe('what is heard while the shot plays', () => {
  test('a sound that has begun is heard from its middle, one that comes later comes later', () => {
    const [running] = voicesOf([sound()], { from: 36, length: 24 }, RATE, 1);
    expect(running).toMatchObject({ at: 0, offset: 3, lasts: 1 });
    const [later] = voicesOf([sound()], { from: 0, length: 240 }, RATE, 1);
    expect(later).toMatchObject({ at: 0.5, offset: 2, lasts: 4 });
  });
  test('at half speed it takes twice as long, of the same recording', () => {
    const [slow] = voicesOf([sound()], { from: 0, length: 240 }, RATE, 0.5);
    expect(slow).toMatchObject({ at: 1, offset: 2, lasts: 4 });
  });
  test('what is silenced, or lies elsewhere, is not heard', () => {
    expect(voicesOf([sound({ heard: false })], { from: 0, length: 240 }, RATE, 1)).toEqual([]);
    expect(voicesOf([sound({ loudness: 0 })], { from: 0, length: 240 }, RATE, 1)).toEqual([]);
    expect(voicesOf([sound()], { from: 0, length: 12 }, RATE, 1)).toEqual([]);
    expect(voicesOf([sound()], { from: 108, length: 99 }, RATE, 1)).toEqual([]);
  });
  test('wherever a stretch is cut in two, the two together say what the whole says', () => {
    fc.assert(
      fc.property(anySound, fc.integer({ min: 1, max: 399 }), (each, cut) => {
        const of = (from: number, length: number) => voicesOf([each], { from, length }, RATE, 1);
        const [whole, first, second] = [of(0, 400), of(0, cut), of(cut, 400 - cut)];
        const heard = (voices: typeof whole) => voices.reduce((sum, { lasts }) => sum + lasts, 0);
        expect(heard(first) + heard(second)).toBeCloseTo(heard(whole), 6);
        // On every frame the recording is at the same second, and as loud, whichever stretch it is heard in.
        for (const voice of whole) {
          const place = each.start + (voice.offset - each.part.from) * RATE;
          expect(voice.at * RATE).toBeCloseTo(place, 6);
        }
        for (const voice of second)
          expect(voice.at * RATE + cut).toBeCloseTo(frameOfSecond(each, RATE, voice.offset), 6);
        for (const { loudness, offset, at } of [...whole, ...first, ...second])
          for (const corner of loudness) {
            expect(corner.is).toBeCloseTo(
              loudnessAt(each, clamp(offset + corner.at - at, each.part.from, each.part.to)),
              5,
            );
          }
      }),
    );
  });
  test('frames that follow one another are one stretch; backwards nothing is heard', () => {
    expect(stretchesOf([4, 5, 6, 0, 1])).toEqual([
      { from: 4, length: 3, at: 0 },
      { from: 0, length: 2, at: 3 },
    ]);
    expect(stretchesOf([0, 1, 2, 1])).toEqual([{ from: 0, length: 3, at: 0 }]);
    expect(stretchesOf([7])).toEqual([{ from: 7, length: 1, at: 0 }]);
  });
  test('sound and picture keep within half a frame for a minute: both go by the same clock', () => {
    // The sound's card runs fast or slow; what the picture shows is asked of it at the screen's own moments.
    fc.assert(
      fc.property(fc.double({ min: 0.995, max: 1.005, noNaN: true }), fc.constantFrom(12, 24, 25, 30), (pace, rate) => {
        const long = sound({ start: 0, part: { from: 0, to: 60 }, seconds: 60 });
        const [voice] = voicesOf([long], { from: 0, length: 60 * rate }, rate, 1);
        let farthest = 0;
        for (let wall = 0; wall * pace < 59.9; wall += 1 / 60) {
          const heard = voice!.offset + (wall * pace - voice!.at);
          const shown = Math.floor(wall * pace * rate);
          farthest = Math.max(farthest, Math.abs(frameOfSecond(long, rate, heard) - (shown + 0.5)));
        }
        expect(farthest).toBeLessThanOrEqual(0.5 + 1e-6);
      }),
      { numRuns: 12 },
    );
  });
});

describe('its form', () => {
  const samples = fc.array(fc.integer({ min: -999, max: 999 }), { minLength: 1, maxLength: 3000 });
  test('peaks hold what was taken, in whatever pieces it came', () => {
    fc.assert(
      fc.property(samples, fc.integer({ min: 1, max: 700 }), (list, piece) => {
        const all = Float32Array.from(list, (value) => value / 999);
        const peaks = new Peaks(all.length);
        for (let i = 0; i < all.length; i += piece) peaks.take(all.subarray(i, i + piece));
        const [finest] = peaks.levels();
        for (let i = 0; i < finest!.pairs.length / 2; i++) {
          const part = all.subarray(i * FINEST, (i + 1) * FINEST);
          expect([finest!.pairs[2 * i], finest!.pairs[2 * i + 1]]).toEqual([Math.min(...part), Math.max(...part)]);
        }
      }),
      { numRuns: 40 },
    );
  });
  test('every level reaches as far as the finest', () => {
    const all = Float32Array.from({ length: 400_000 }, (_, i) => Math.sin(i / 50) * (i / 400_000));
    const peaks = new Peaks(all.length);
    peaks.take(all);
    const levels = peaks.levels();
    expect(levels.length).toBeGreaterThan(1);
    const reach = levels.map(({ pairs }) => [Math.min(...pairs), Math.max(...pairs)]);
    for (const each of reach) expect(each).toEqual(reach[0]);
    expect(peakBetween(levels, 0, all.length)).toEqual(reach[0]);
    expect(peakBetween(levels, all.length + 999, all.length + 9999)).toEqual([0, 0]);
  });
  test('more than was said is refused', () => {
    expect(() => {
      new Peaks(3).take(new Float32Array(4));
    }).toThrow(RangeError);
  });
});

describe('hits', () => {
  const hitsOf = (samples: Float32Array, faint: number, piece = 5000) => {
    const finder = new HitFinder(MADE_RATE);
    for (let i = 0; i < samples.length; i += piece) finder.take(samples.subarray(i, i + piece));
    return finder.hits(faint);
  };
  test.each(Object.entries(MADE_SOUNDS))('of %s are found within a frame of where they were made', (_, made) => {
    const found = hitsOf(made.make(3), 0.5);
    for (const at of made.hits) expect(Math.min(...found.map((hit) => Math.abs(hit.at - at)))).toBeLessThan(1 / RATE);
    if (made.hits.length > 0)
      expect(Math.abs(found.find(({ strength }) => strength === 1)!.at - made.hits[0]!)).toBeLessThan(1 / RATE);
  });
  test('clicks in noise are found where they are, and no others', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 15 }), { minLength: 1, maxLength: 6 }), (places) => {
        const samples = Float32Array.from(
          { length: 4 * MADE_RATE },
          (_, i) => 0.002 * Math.sin(i * 1.7) * Math.sin(i * 0.013),
        );
        const at = places.map((place) => place * 0.24).toSorted((a, b) => a - b);
        for (const each of at)
          for (let i = 0; i < 2400; i++)
            samples[Math.round(each * MADE_RATE) + i]! += 0.7 * Math.sin(i * 0.9) * Math.exp(-i / 500);
        const found = hitsOf(samples, 0.5);
        expect(found).toHaveLength(at.length);
        found.forEach((hit, i) => {
          expect(Math.abs(hit.at - at[i]!)).toBeLessThan(0.5 / RATE);
        });
      }),
      { numRuns: 12 },
    );
  });
  test('silence has none, and the fainter they may be the more there are', () => {
    expect(hitsOf(new Float32Array(MADE_RATE), 1)).toEqual([]);
    const all = hitsOf(MADE_SOUNDS.burst.make(4), 1);
    expect(strongest(all, 0.2).length).toBeLessThanOrEqual(strongest(all, 0.8).length);
    expect(strongest(all, 0)).toEqual([]);
    expect(strongest(all, 1)).toEqual(all);
  });
  test('they do not hang on the pieces that a recording comes in', () => {
    const samples = MADE_SOUNDS.strike.make(9);
    expect(hitsOf(samples, 0.9, 777)).toEqual(hitsOf(samples, 0.9, 48_000));
  });
});

const bytesOf = (samples: Float32Array): Uint8Array => new Uint8Array(samples.buffer);
describe.each(Object.entries(MADE_SOUNDS))('the made sound %s', (_, made) => {
  const samples = made.make(1);
  test('is as long as it says, never too loud, and the same for the same seed', () => {
    expect(samples.length).toBe(Math.round(made.seconds * MADE_RATE));
    const max = samples.reduce((sum, value) => Math.max(sum, Math.abs(value)), 0);
    expect(max).toBeGreaterThan(0.3);
    expect(max).toBeLessThanOrEqual(1);
    // Sample by sample the matcher takes a minute for them all.
    expect(Buffer.compare(bytesOf(made.make(1)), bytesOf(samples))).toBe(0);
    expect(Buffer.compare(bytesOf(made.make(2)), bytesOf(samples))).not.toBe(0);
  });
  test('dies away at its end, or leads into its beginning', () => {
    const loud = (from: number, to: number) =>
      Math.sqrt(samples.subarray(from, to).reduce((sum, value) => sum + value * value, 0) / (to - from));
    const [all, end] = [loud(0, samples.length), loud(samples.length - 2400, samples.length)];
    if (made.closes) {
      expect(end / all).toBeGreaterThan(0.4);
      const step = Math.abs(samples[0]! - samples.at(-1)!);
      const steps = samples.slice(1, 9000).map((value, i) => Math.abs(value - samples[i]!));
      expect(step).toBeLessThanOrEqual(Math.max(...steps));
    } else expect(end / all).toBeLessThan(0.15);
  });
});

test('a WAV file says what it holds', () => {
  const bytes = wavOf(Float32Array.of(0, 1, -1, 2), 48_000);
  const view = new DataView(bytes.buffer);
  expect(new TextDecoder().decode(bytes.subarray(0, 4)) + new TextDecoder().decode(bytes.subarray(8, 16))).toBe(
    'RIFFWAVEfmt ',
  );
  expect([view.getUint16(20, true), view.getUint32(24, true), view.getUint32(40, true)]).toEqual([1, 48_000, 8]);
  expect([0, 1, 2, 3].map((i) => view.getInt16(44 + 2 * i, true))).toEqual([0, 32_767, -32_767, 32_767]);
});
