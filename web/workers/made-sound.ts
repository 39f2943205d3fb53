/** Makes the sounds that come by code, away from the main thread. */
import { MADE_RATE, MADE_SOUNDS, wavOf, type MadeSoundName } from '@tallow/core/sound';
import { expose, transfer } from 'comlink';

const maker = {
  /** A made sound as the bytes of a WAV file. */
  wav(name: MadeSoundName, seed: number): Uint8Array<ArrayBuffer> {
    const bytes = wavOf(MADE_SOUNDS[name].make(seed), MADE_RATE);
    return transfer(bytes, [bytes.buffer]);
  },
};

export type SoundMaker = typeof maker;
expose(maker);
