/** What made sounds are made of: noise, what lets only some of it through, and what dies away. */
import { seededRandom } from '../../geometry/index.ts';
import { MADE_RATE } from './sound-kind.ts';

/** Samples of so many seconds. */
export const soundLength = (seconds: number): number => Math.round(seconds * MADE_RATE);

/** White noise, -1 to 1. */
export function whiteNoise(length: number, seed: number): Float32Array<ArrayBuffer> {
  const random = seededRandom(seed);
  return new Float32Array(length).map(() => 2 * random() - 1);
}

/** Lets low tones through, 6 dB an octave: one pole. @param hertz where half of the power is left. */
export function lowPass(samples: Float32Array, hertz: number): Float32Array<ArrayBuffer> {
  const share = 1 - Math.exp((-2 * Math.PI * hertz) / MADE_RATE);
  let last = 0;
  return samples.map((value) => (last += share * (value - last)));
}

/** Lets what lies above some tone through. */
export function highPass(samples: Float32Array, hertz: number): Float32Array<ArrayBuffer> {
  const low = lowPass(samples, hertz);
  return low.map((value, i) => samples[i]! - value);
}

/** How much is left of something that began `after` seconds ago and halves every `half` seconds; 0 before. */
export const left = (after: number, half: number): number => (after < 0 ? 0 : 2 ** (-after / half));

/** As loud as can be: its largest value becomes `peak`. */
export function atPeak(samples: Float32Array, peak: number): Float32Array<ArrayBuffer> {
  let max = 0;
  for (const value of samples) max = Math.max(max, Math.abs(value));
  return samples.map((value) => (max > 0 ? (value * peak) / max : 0));
}

/** Has the end of a sound lead into its beginning: what it has more than `length` is laid over its first part. */
export function closedLoop(samples: Float32Array, length: number): Float32Array<ArrayBuffer> {
  const over = samples.length - length;
  return new Float32Array(length).map((_, i) => {
    if (i >= over) return samples[i]!;
    // Both are noise that has nothing to do with each other: shares of a circle keep them equally loud.
    const t = (i / over) * (Math.PI / 2);
    return samples[i]! * Math.sin(t) + samples[length + i]! * Math.cos(t);
  });
}
