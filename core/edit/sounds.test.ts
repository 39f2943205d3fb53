/** Sounds are moved and trimmed; what is heard stays where it is. */
import fc from 'fast-check';
import { find, newShotDocument, SOUND_LIMITS } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { secondOn, spanOfSound } from '../sound/index.ts';
import { addSound, copySound, removeSound, setSound, trimSoundEnd, trimSoundStart } from './sounds.ts';
import { shotOf } from '../document/index.ts';

const newId = seededIds(5);
const RATE = 24;
const empty = newShotDocument(
  newId(),
  { name: 'T', width: 64, height: 36, rate: RATE, length: 96, background: null },
  newId,
);
const { doc, soundId } = addSound(empty, { name: 'Roar', asset: 'a'.repeat(64), seconds: 6 }, 12, newId);
const of = (next: typeof doc, id = soundId) => find(next, 'sound', id)!;

test('it is laid whole, after the others', () => {
  expect(of(doc)).toMatchObject({ start: 12, part: { from: 0, to: 6 }, loudness: 1, heard: true });
  const more = addSound(doc, { name: 'Strike', asset: 'b'.repeat(64), seconds: 3 }, 0, newId);
  expect(shotOf(more.doc).sounds).toEqual([soundId, more.soundId]);
});

test('trimmed at either end, what is still heard is heard on its frame; it never ends before it begins', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.boolean(), fc.integer({ min: -50, max: 300 })), { minLength: 1, maxLength: 8 }),
      (trims) => {
        const next = trims.reduce(
          (now, [start, frame]) => (start ? trimSoundStart : trimSoundEnd)(now, soundId, frame),
          setSound(doc, soundId, { fadeIn: 2, fadeOut: 2 }),
        );
        const { part, seconds, fadeIn, fadeOut } = of(next);
        expect(part.from).toBeGreaterThanOrEqual(0);
        expect(part.to).toBeLessThanOrEqual(seconds);
        expect(part.to - part.from).toBeGreaterThanOrEqual(SOUND_LIMITS.shortest - 1e-9);
        expect(Math.max(fadeIn, fadeOut)).toBeLessThanOrEqual(part.to - part.from);
        for (const frame of [0, 20, 77])
          expect(secondOn(of(next), RATE, frame)).toBeCloseTo(secondOn(of(doc), RATE, frame), 6);
      },
    ),
  );
});

test('an end goes where it is put, within the recording', () => {
  expect(spanOfSound(of(trimSoundStart(doc, soundId, 36)), RATE)).toEqual({ from: 36, to: 156 });
  expect(spanOfSound(of(trimSoundEnd(doc, soundId, 60)), RATE)).toEqual({ from: 12, to: 60 });
  expect(spanOfSound(of(trimSoundEnd(doc, soundId, 999)), RATE)).toEqual({ from: 12, to: 156 });
});

test('numbers are kept within their limits', () => {
  const set = setSound(doc, soundId, { loudness: 40, fadeIn: 99, fadeOut: -1, hits: 7 });
  expect(of(set)).toMatchObject({ loudness: SOUND_LIMITS.loudness, fadeIn: 6, fadeOut: 0, hits: 1 });
});

test('one more is a sound of its own; taken away it is gone from the shot', () => {
  const copy = copySound(setSound(doc, soundId, { loudness: 0.5 }), soundId, 50, newId);
  expect(of(copy.doc, copy.soundId!)).toMatchObject({ start: 50, loudness: 0.5 });
  const gone = removeSound(copy.doc, soundId);
  expect(shotOf(gone).sounds).toEqual([copy.soundId]);
  expect(find(gone, 'sound', soundId)).toBeUndefined();
});
