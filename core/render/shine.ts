/**
 * Light laid on what it falls on: pixel by pixel, screened or added by its colour, brighter on the side towards it; how opaque
 * things are stays. The canvas has no blend that keeps that, and took ten times as long for the parts of one that came close.
 */
import { channels } from '../colour/index.ts';
import {
  apply,
  EMPTY_BOX,
  intersection,
  isEmpty,
  scaleOf,
  union,
  wholePixels,
  type Box,
  type Matrix,
} from '../geometry/index.ts';
import type { Surface } from '../canvas/index.ts';
import { dyingAway, layLight, litPixels, lightReach, type OnPixels } from './lay-light.ts';
import type { Falling } from './lights.ts';

/** How much of a light is left at a share of the way to its rim. */
const leftAt = (share: number, dies: number): number => (1 - share) ** dies;

/** @param view shot px to the px of what it is laid on. @param room all of that. */
function onPixels(light: Falling, view: Matrix, room: Box): OnPixels {
  const { x, y } = apply(view, light);
  const { side, strength, dies } = light;
  const radius = light.radius * scaleOf(view);
  const adds = light.blend === 'add';
  const away = dyingAway((share) => strength * leftAt(share, dies), channels(light.colour), adds, side);
  const reach = lightReach({ radius, ends: away.ends });
  const box = intersection(wholePixels({ left: x - reach, top: y - reach, right: x + reach, bottom: y + reach }), room);
  return { x, y, radius, adds, side, ...away, box };
}

/**
 * Lays lights on a thing, in their order.
 * @param thing a surface with nothing but what they fall on. @param view shot px to device px.
 * @param known how far to each side it is known that nothing of it lies; beyond that it counts as going on.
 */
export function shine(thing: Surface, lights: readonly Falling[], view: Matrix, known: Box = all(thing)): void {
  const reaching = lights.map((light) => onPixels(light, view, all(thing))).filter(({ box }) => !isEmpty(box));
  if (reaching.length === 0) return;
  // Only what they reach is read. The way to a light lies within its reach: what is beside that is beside the surface too.
  const { left, top, right, bottom } = reaching.map(({ box }) => box).reduce(union, EMPTY_BOX);
  const picture = thing.context.getImageData(left, top, right - left, bottom - top);
  const { buffer, byteOffset, length } = picture.data;
  const pixels = new Int32Array(buffer, byteOffset, length / 4);
  const on = litPixels(pixels, right - left, bottom - top, moved(known, left, top));
  for (const light of reaching)
    layLight(on, { ...light, x: light.x - left, y: light.y - top, box: moved(light.box, left, top) });
  thing.context.putImageData(picture, left, top);
}

const all = ({ width, height }: Surface): Box => ({ left: 0, top: 0, right: width, bottom: height });

/** A box by its place from another corner. */
const moved = (box: Box, left: number, top: number): Box => ({
  left: box.left - left,
  top: box.top - top,
  right: box.right - left,
  bottom: box.bottom - top,
});
