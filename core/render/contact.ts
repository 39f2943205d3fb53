/** How much of one thing lies under another. */

/** More opaque than this counts as there. */
const THERE = 96;

/** The fraction of what is there in one picture where something is in the other, too; 0 where nothing is. @param thing and @param effect four bytes a pixel, of one size. */
export function coveredFraction(thing: Uint8ClampedArray, effect: Uint8ClampedArray): number {
  let [own, both] = [0, 0];
  for (let i = 3; i < thing.length; i += 4) {
    if (thing[i]! < THERE) continue;
    own += 1;
    if (effect[i]! >= THERE) both += 1;
  }
  return own > 0 ? both / own : 0;
}
