/** What is to be heard while a stretch of the shot plays: which parts of which recordings, and when. */
import type { Sound } from '../document/index.ts';
import { clamp } from '../geometry/index.ts';
import { loudnessAt, spanOfSound, secondOn } from './time.ts';

/** Frames of the shot that follow one another while it plays. */
export interface PlayedStretch {
  readonly from: number;
  readonly length: number;
}

/** A part of a recording that is heard in a stretch. */
export interface Voice {
  readonly sound: Sound;
  /** s of playing from the beginning of the stretch. */
  readonly at: number;
  /** Where in the recording it begins, and how much of it is heard, s. */
  readonly offset: number;
  readonly lasts: number;
  /** How loud it is from where on: corners of a line, s of playing from the beginning of the stretch. */
  readonly loudness: readonly { readonly at: number; readonly is: number }[];
}

/**
 * The voices of a stretch.
 * @param rate frames a second. @param speed of playing: at half speed a recording takes twice as long, and sounds lower.
 */
export function voicesOf(sounds: readonly Sound[], stretch: PlayedStretch, rate: number, speed: number): Voice[] {
  return sounds.flatMap((sound) => {
    if (!sound.heard || sound.loudness === 0) return [];
    const span = spanOfSound(sound, rate);
    const from = Math.max(span.from, stretch.from);
    const to = Math.min(span.to, stretch.from + stretch.length);
    if (to <= from) return [];
    // Rounded beyond an end it would be silent there.
    const [first, last] = [from, to].map((frame) =>
      clamp(secondOn(sound, rate, frame), sound.part.from, sound.part.to),
    ) as [number, number];
    const playedAt = (second: number) => (second - first) / speed + (from - stretch.from) / rate / speed;
    const corners = [first, sound.part.from + sound.fadeIn, sound.part.to - sound.fadeOut, last]
      .filter((second) => second >= first && second <= last)
      .toSorted((a, b) => a - b);
    return [
      {
        sound,
        at: playedAt(first),
        offset: first,
        lasts: last - first,
        loudness: corners.map((second) => ({ at: playedAt(second), is: loudnessAt(sound, second) })),
      },
    ];
  });
}

/**
 * Frames in the order in which they play, as stretches whose frames follow one another. Played backwards nothing is heard:
 * those are left out.
 * @param frames of the shot. @returns each with the place in the order where it begins.
 */
export function stretchesOf(frames: readonly number[]): (PlayedStretch & { readonly at: number })[] {
  const all: { from: number; length: number; at: number }[] = [];
  frames.forEach((frame, at) => {
    const last = all.at(-1);
    if (last && frame === last.from + last.length) last.length += 1;
    else all.push({ from: frame, length: 1, at });
  });
  return all.filter(({ length }) => length > 1 || frames.length === 1);
}
