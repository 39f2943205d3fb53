/** Where a sound lies in the shot: frames, which may lie between two, against seconds of its recording. */
import { findAll, shotOf, type ShotDocument, type Sound } from '../document/index.ts';

/** What of a sound says where it lies. */
type SoundTime = Pick<Sound, 'start' | 'part'>;

/** The stretch of the shot on which a sound is heard, frames, its end not among them. @param rate frames a second. */
export const spanOfSound = ({ start, part }: SoundTime, rate: number): { from: number; to: number } => ({
  from: start,
  to: start + (part.to - part.from) * rate,
});

/** The second of the recording that is heard on a frame of the shot; outside of its part where nothing is. */
export const secondOn = ({ start, part }: SoundTime, rate: number, frame: number): number =>
  part.from + (frame - start) / rate;

/** The frame of the shot on which a second of the recording is heard. The inverse of `secondOn`. */
export const frameOfSecond = ({ start, part }: SoundTime, rate: number, second: number): number =>
  start + (second - part.from) * rate;

/** How loud a sound is at a second of its recording: 1 is as recorded. It comes and goes evenly. */
export function loudnessAt(
  { part, fadeIn, fadeOut, loudness }: Pick<Sound, 'part' | 'fadeIn' | 'fadeOut' | 'loudness'>,
  second: number,
): number {
  const [gone, left] = [second - part.from, part.to - second];
  if (gone < 0 || left < 0) return 0;
  const comes = fadeIn > 0 ? Math.min(1, gone / fadeIn) : 1;
  const goes = fadeOut > 0 ? Math.min(1, left / fadeOut) : 1;
  return loudness * comes * goes;
}

/** The sounds of a shot, in their order. */
export const soundsOf = (doc: ShotDocument): Sound[] => findAll(doc, 'sound', shotOf(doc).sounds);
