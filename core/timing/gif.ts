/** Times for a format that counts in whole hundredths of a second. */

/** The shortest time a picture of a GIF is held; shorter ones are played far too slowly by viewers. */
const MIN_DELAY = 2;

interface GifTimes {
  /** Which frames are kept, from 0. */
  readonly kept: readonly number[];
  /** How long each kept frame is held, 1/100 s, each at least 2. */
  readonly delays: readonly number[];
}

/**
 * Spreads whole delays so that a loop lasts what it should to within half a hundredth of a second,
 * and every frame begins as near to its own time as that allows. Above 50 frames a second frames are left out.
 * @param frames at least 1. @param rate frames per second.
 */
export function gifTimes(frames: number, rate: number): GifTimes {
  const whole = Math.max(MIN_DELAY, Math.round((frames * 100) / rate));
  const count = Math.min(frames, Math.floor(whole / MIN_DELAY));
  // With as many frames as fit, rounding alone could leave one of them a single hundredth.
  const start = (i: number) => Math.floor((i * whole) / count);
  const kept = Array.from({ length: count }, (_, i) => Math.floor((i * frames) / count));
  return { kept, delays: kept.map((_, i) => start(i + 1) - start(i)) };
}
