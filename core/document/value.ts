import { gently } from '../geometry/index.ts';
/** Anything that may change over time: opacity, position, a radius. */

/** How a value goes on to its next key: at an even rate, soft at both ends, or not until it is there. */
export const EASES = ['straight', 'soft', 'hold'] as const;
export type Ease = (typeof EASES)[number];

/** A value at a frame of its element. */
export interface Key {
  readonly frame: number;
  readonly value: number;
  readonly ease: Ease;
}

/** One number throughout, or numbers at frames, in the order of the frames. */
export type Value = { readonly constant: number } | { readonly keys: readonly Key[] };

/** A value that stays the same on every frame. */
export const constant = (number: number): Value => ({ constant: number });

/** The keys of a value; none when it stays the same throughout. */
export const keysIn = (value: Value): readonly Key[] => ('keys' in value ? value.keys : []);

function between(from: Key, to: Key, share: number): number {
  if (from.ease === 'hold') return from.value;
  return from.value + (to.value - from.value) * (from.ease === 'soft' ? gently(share) : share);
}

/**
 * What a value is on a frame of its element.
 * @param turn frames of a cycle, round which the last key leads to the first; null where time ends:
 * there the first key holds before it and the last one after it.
 */
export function valueAt(value: Value, frame: number, turn: number | null): number {
  if ('constant' in value) return value.constant;
  const { keys } = value;
  const [first, last] = [keys[0], keys.at(-1)];
  if (!first || !last) return 0;
  const after = keys.findIndex((key) => key.frame > frame);
  if (after > 0) {
    const [from, to] = [keys[after - 1]!, keys[after]!];
    return between(from, to, (frame - from.frame) / (to.frame - from.frame));
  }
  if (turn === null || keys.length === 1 || last.frame >= turn) return after === 0 ? first.value : last.value;
  const way = first.frame + turn - last.frame;
  return between(last, first, (after === 0 ? frame + turn - last.frame : frame - last.frame) / way);
}

/** The value with a number at a frame, in place of a key there; the number throughout if it has no keys. */
export function withNumber(value: Value, frame: number, number: number): Value {
  return 'constant' in value ? constant(number) : withKey(value, frame, number);
}

/** The value with a key at a frame; what was one number throughout goes on from that key. */
export function withKey(value: Value, frame: number, number: number, ease?: Ease): Value {
  const keys = keysIn(value);
  const old = keys.find((key) => key.frame === frame);
  const key: Key = { frame, value: number, ease: ease ?? old?.ease ?? 'straight' };
  return { keys: [...keys.filter((each) => each.frame !== frame), key].sort((a, b) => a.frame - b.frame) };
}

/** The value without its key at a frame; without the last one it stays what it was there. */
export function withoutKey(value: Value, frame: number): Value {
  const keys = keysIn(value);
  const rest = keys.filter((key) => key.frame !== frame);
  if (rest.length === keys.length) return value;
  return rest.length > 0 ? { keys: rest } : constant(keys[0]!.value);
}

/** How much larger than the largest other step the one across a cycle's seam may be. */
const SEAM_JUMP = 1.5;

/** Whether a value jumps across the seam of a cycle: further than it ever goes from frame to frame elsewhere. */
export function jumpsAtSeam(value: Value, turn: number): boolean {
  if (keysIn(value).length < 2 || turn < 2) return false;
  const steps = Array.from({ length: turn }, (_, frame) =>
    Math.abs(valueAt(value, (frame + 1) % turn, turn) - valueAt(value, frame, turn)),
  );
  const seam = steps.pop()!;
  return seam > 0 && seam > SEAM_JUMP * Math.max(...steps);
}
