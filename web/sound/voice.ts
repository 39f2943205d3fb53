/** One part of a recording as it is heard: begun at a moment of a context, louder and fainter as it was set. */
import type { Voice } from '@tallow/core/sound';

/** Over so many seconds it comes and goes where it is cut: at once it would click. */
const SOFT_S = 0.004;

export interface Sounding {
  readonly stop: () => void;
}

/**
 * Begins to play a voice.
 * @param zero the moment of the context at which its stretch begins, s. @param speed 1 is as recorded.
 * @param ended called when it is over.
 */
export function beginVoice(
  context: BaseAudioContext,
  buffer: AudioBuffer,
  { sound, at, offset, lasts, loudness }: Voice,
  zero: number,
  speed: number,
  ended: () => void = () => undefined,
): Sounding {
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.playbackRate.value = speed;
  const volume = context.createGain();
  const { gain } = volume;
  const begins = Math.max(context.currentTime, zero + at);
  const [first, ...rest] = loudness;
  const isCut = offset > sound.part.from;
  gain.setValueAtTime(isCut ? 0 : (first?.is ?? 0), begins);
  if (isCut) gain.linearRampToValueAtTime(first?.is ?? 0, begins + SOFT_S);
  for (const corner of rest) gain.linearRampToValueAtTime(corner.is, Math.max(begins + SOFT_S, zero + corner.at));
  source.connect(volume).connect(context.destination);
  source.start(begins, offset, lasts);
  source.onended = () => {
    volume.disconnect();
    ended();
  };
  return {
    stop: () => {
      const now = context.currentTime;
      gain.cancelScheduledValues(now);
      gain.setTargetAtTime(0, now, SOFT_S);
      source.stop(now + 6 * SOFT_S);
    },
  };
}
