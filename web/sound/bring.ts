/** Bringing sounds into the shot: from a file, or made by code. */
import { randomId, type Id } from '@tallow/core/document';
import { addSound } from '@tallow/core/edit';
import { nextSeed } from '@tallow/core/geometry';
import { MADE_SOUNDS, type MadeSoundName } from '@tallow/core/sound';
import { create } from 'zustand';
import { shotFrameNow } from '../playback/shot-time.ts';
import { edit, say } from '../shot/document.ts';
import { madeWav } from '../workers/sound-client.ts';

const SOUND_ENDINGS = ['wav', 'ogg', 'oga', 'mp3', 'flac'] as const;
/** What can be brought in, in a file chooser's terms. */
export const SOUNDS_ACCEPTED = SOUND_ENDINGS.map((each) => `.${each}`).join();

/** Whether a file calls itself a sound; the server judges by its content. */
export const isSound = ({ name }: Pick<File, 'name'>): boolean =>
  SOUND_ENDINGS.some((ending) => name.toLowerCase().endsWith(`.${ending}`));

interface Bringing {
  /** Name of the sound that is on its way, or null. */
  readonly coming: string | null;
}
export const useBringing = create<Bringing>(() => ({ coming: null }));

let stopping: AbortController | null = null;
export const stopSound = (): void => {
  stopping?.abort();
};

/**
 * Lays what comes on the shot from the playhead on; what goes wrong is said, and nothing changes.
 * @returns which id the sound got, or null.
 */
async function bring(name: string, bytes: (signal: AbortSignal) => Promise<BodyInit>): Promise<Id | null> {
  if (useBringing.getState().coming !== null) {
    say('Another sound is on its way.');
    return null;
  }
  const abort = new AbortController();
  stopping = abort;
  const start = shotFrameNow();
  useBringing.setState({ coming: name });
  try {
    const answer = await fetch('/api/sounds', {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: await bytes(abort.signal),
      signal: abort.signal,
    });
    const body = (await answer.json().catch(() => ({}))) as { sha256?: string; seconds?: number; title?: string };
    if (!answer.ok || !body.sha256 || !body.seconds)
      throw new Error(`${name}: ${body.title ?? 'the server did not take it.'}`);
    const recording = { name, asset: body.sha256, seconds: body.seconds };
    let made: Id | null = null;
    edit('bring in a sound', (doc) => {
      const added = addSound(doc, recording, start, randomId);
      made = added.soundId;
      return added.doc;
    });
    return made;
  } catch (error) {
    if (!abort.signal.aborted)
      say(
        error instanceof TypeError
          ? 'The server cannot be reached. Bring the sound in again when it can.'
          : (error as Error).message,
      );
    return null;
  } finally {
    useBringing.setState({ coming: null });
    stopping = null;
  }
}

export const bringSound = (file: File): Promise<Id | null> =>
  bring(file.name.replace(/\.\w+$/, '').slice(0, 80) || 'Sound', () => Promise.resolve(file));

let seed = 1;
/** Makes a sound by code and lays it; the next one of its kind sounds a little different. */
export function makeSound(made: MadeSoundName): Promise<Id | null> {
  seed = nextSeed(seed);
  const own = seed;
  return bring(MADE_SOUNDS[made].name, () => madeWav(made, own));
}
