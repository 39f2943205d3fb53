/** Seeded randomness: the same seed gives the same numbers on every engine. */

/** A generator of numbers in [0, 1): mulberry32, a 32-bit integer hash by Tommy Ettinger. */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A fraction of 0 to 1 for a place in a row of things, without drawing those before it: two rounds of a 32-bit mix. */
export function hashFraction(seed: number, index: number, turn: number): number {
  let h = Math.imul(seed ^ Math.imul(index + 1, 0x9e3779b1), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 15) ^ Math.imul(turn + 1, 0xc2b2ae35), 0x27d4eb2f);
  h = Math.imul(h ^ (h >>> 13), 0x165667b1);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Another seed, the same one each time. @returns a whole number of 32 bits. */
export const nextSeed = (seed: number): number => Math.floor(hashFraction(seed, 1, 0) * 0x100000000);

/** A maker of UUIDs (version 4 in form) from a seed: for content that is computed, never for what a user makes. */
export function seededIds(seed: number): () => string {
  const random = seededRandom(seed);
  const hex = (digits: number) => Array.from({ length: digits }, () => Math.floor(random() * 16).toString(16)).join('');
  return () => `${hex(8)}-${hex(4)}-4${hex(3)}-${'89ab'[Math.floor(random() * 4)]!}${hex(3)}-${hex(12)}`;
}
