/** Shaking by a seed: smooth swings that die down and end exactly. */
import type { Shake } from '../document/index.ts';
import { gently, hashFraction } from '../geometry/index.ts';

/** Where a shaking has got to: px aside, and radians turned. */
interface Shaken {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

export const NO_SHAKE: Shaken = { x: 0, y: 0, angle: 0 };

/** A smooth line through seeded numbers from -1 to 1, one at each whole number. */
function swing(seed: number, which: number, at: number): number {
  const first = Math.floor(at);
  const number = (i: number) => 2 * hashFraction(seed, i, which) - 1;
  const [a, b] = [number(first), number(first + 1)];
  return a + (b - a) * gently(at - first);
}

/** One shaking on a frame of the shot; none before it begins and once it has died down. @param rate frames a second. */
export function shakeOn({ from, lasts, amount, turn, frequency, seed }: Shake, frame: number, rate: number): Shaken {
  const since = frame - from;
  if (since < 0 || since >= lasts) return NO_SHAKE;
  const left = 1 - since / lasts;
  // It dies down by the square: most of it is over in the first half. A swing is there and back.
  const strength = left * left;
  const at = (since / rate) * frequency * 2;
  return {
    x: amount * strength * swing(seed, 0, at),
    y: amount * strength * swing(seed, 1, at),
    angle: turn * strength * swing(seed, 2, at),
  };
}

/** All that shakes on a frame, together. */
export const shakenBy = (shakes: readonly Shake[], frame: number, rate: number): Shaken =>
  shakes.reduce((sum, shake) => {
    const one = shakeOn(shake, frame, rate);
    return { x: sum.x + one.x, y: sum.y + one.y, angle: sum.angle + one.angle };
  }, NO_SHAKE);
