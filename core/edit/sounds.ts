/** Edits of sounds: laid on the shot, moved, trimmed, set, taken away. */
import {
  find,
  putEntities,
  shotOf,
  SOUND_LIMITS,
  type Id,
  type NewId,
  type ShotDocument,
  type Sound,
} from '../document/index.ts';
import { clamp } from '../geometry/index.ts';
import { deleteEntities } from './remove.ts';

const FAR = 100_000;

/** Lays a recording on the shot. @param start where in the shot, frames. The edit says which id it got. */
export function addSound(
  doc: ShotDocument,
  { name, asset, seconds }: Pick<Sound, 'name' | 'asset' | 'seconds'>,
  start: number,
  newId: NewId,
): { doc: ShotDocument; soundId: Id } {
  const shot = shotOf(doc);
  const sound: Sound = {
    kind: 'sound',
    id: newId(),
    name,
    asset,
    seconds,
    start,
    part: { from: 0, to: seconds },
    fadeIn: 0,
    fadeOut: 0,
    loudness: 1,
    hits: 0.5,
    heard: true,
  };
  return { doc: putEntities(doc, sound, { ...shot, sounds: [...shot.sounds, sound.id] }), soundId: sound.id };
}

const changed = (doc: ShotDocument, soundId: Id, change: (sound: Sound) => Partial<Sound>): ShotDocument => {
  const sound = find(doc, 'sound', soundId);
  return sound ? putEntities(doc, { ...sound, ...change(sound) }) : doc;
};

/** Sets a sound; numbers are kept within their limits. */
export function setSound(
  doc: ShotDocument,
  soundId: Id,
  settings: Partial<Pick<Sound, 'name' | 'start' | 'fadeIn' | 'fadeOut' | 'loudness' | 'hits' | 'heard'>>,
): ShotDocument {
  return changed(doc, soundId, (sound) => {
    const next = { ...sound, ...settings };
    const heard = next.part.to - next.part.from;
    return {
      ...settings,
      start: clamp(next.start, -FAR, FAR),
      fadeIn: clamp(next.fadeIn, 0, heard),
      fadeOut: clamp(next.fadeOut, 0, heard),
      loudness: clamp(next.loudness, 0, SOUND_LIMITS.loudness),
      hits: clamp(next.hits, 0, 1),
    };
  });
}

/** The part with fades that fit into it. */
const withPart = (sound: Sound, part: Sound['part']): Partial<Sound> => ({
  part,
  fadeIn: Math.min(sound.fadeIn, part.to - part.from),
  fadeOut: Math.min(sound.fadeOut, part.to - part.from),
});

/** Has a sound begin to be heard on another frame of the shot; what is heard after that stays where it is. */
export function trimSoundStart(doc: ShotDocument, soundId: Id, frame: number): ShotDocument {
  const { rate } = shotOf(doc);
  return changed(doc, soundId, (sound) => {
    const { start, part } = sound;
    const from = clamp(part.from + (frame - start) / rate, 0, part.to - SOUND_LIMITS.shortest);
    return { ...withPart(sound, { from, to: part.to }), start: start + (from - part.from) * rate };
  });
}

/** Has a sound end before another frame of the shot. */
export function trimSoundEnd(doc: ShotDocument, soundId: Id, frame: number): ShotDocument {
  const { rate } = shotOf(doc);
  return changed(doc, soundId, (sound) => {
    const { start, part, seconds } = sound;
    const to = clamp(part.from + (frame - start) / rate, part.from + SOUND_LIMITS.shortest, seconds);
    return withPart(sound, { from: part.from, to });
  });
}

/** One more of a sound, from a frame on. The edit says which id it got; unknown ids change nothing. */
export function copySound(
  doc: ShotDocument,
  soundId: Id,
  start: number,
  newId: NewId,
): { doc: ShotDocument; soundId: Id | null } {
  const sound = find(doc, 'sound', soundId);
  if (!sound) return { doc, soundId: null };
  const shot = shotOf(doc);
  const copy: Sound = { ...sound, id: newId(), start };
  return { doc: putEntities(doc, copy, { ...shot, sounds: [...shot.sounds, copy.id] }), soundId: copy.id };
}

export const removeSound = (doc: ShotDocument, soundId: Id): ShotDocument =>
  find(doc, 'sound', soundId) ? deleteEntities(doc, [soundId]) : doc;
