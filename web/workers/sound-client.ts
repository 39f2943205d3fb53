/** The page's workers for sound: each is started for one recording and ended after it. */
import type { MadeSoundName } from '@tallow/core/sound';
import { transfer, wrap, type Remote } from 'comlink';
import type { SoundMaker } from './made-sound.ts';
import type { RecordingFacts, RecordingWorker } from './recording.ts';

/** Samples handed over at once: copying them takes the main thread a millisecond. */
const SLICE = 1 << 18;

async function during<T, R>(worker: Worker, work: (remote: Remote<T>) => Promise<R>): Promise<R> {
  const failing = new Promise<never>((_, failed) => {
    worker.addEventListener('error', () => {
      failed(new Error('The worker for sound could not be had.'));
    });
  });
  try {
    return await Promise.race([work(wrap<T>(worker)), failing]);
  } finally {
    worker.terminate();
  }
}

/** Looks through a recording, slice by slice. */
export const lookThrough = (buffer: AudioBuffer): Promise<RecordingFacts> =>
  during<RecordingWorker, RecordingFacts>(
    new Worker(new URL('./recording.ts', import.meta.url), { type: 'module' }),
    async (remote) => {
      await remote.begin(buffer.length, buffer.sampleRate);
      for (let from = 0; from < buffer.length; from += SLICE) {
        const channels = Array.from({ length: buffer.numberOfChannels }, (_, channel) => {
          const slice = new Float32Array(Math.min(SLICE, buffer.length - from));
          buffer.copyFromChannel(slice, channel, from);
          return slice;
        });
        await remote.take(
          transfer(
            channels,
            channels.map((slice) => slice.buffer),
          ),
        );
      }
      return remote.end();
    },
  );

/** A made sound as the bytes of a WAV file. */
export const madeWav = (name: MadeSoundName, seed: number): Promise<Uint8Array<ArrayBuffer>> =>
  during<SoundMaker, Uint8Array<ArrayBuffer>>(
    new Worker(new URL('./made-sound.ts', import.meta.url), { type: 'module' }),
    (remote) => remote.wav(name, seed),
  );
