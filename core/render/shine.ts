/** Light laid on what it falls on: a round gradient inside it, brighter on the side towards it; how opaque it is stays. */
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
import { copyOf, operationOf, plain, type MakeSurface, type Surface } from '../canvas/index.ts';
import type { Falling } from './lights.ts';

/** Stops of the gradient: enough that its bend is not seen. */
const STOPS = 12;
/** How much farther from the light the same place of a thing lies, for the side towards it: in so many steps. */
const SIDE = 0.12;
const SIDE_STEPS = 3;

/** How much of a light is left at a share of the way to its rim. */
export const leftAt = (share: number, dies: number): number => (1 - share) ** dies;

/** A light on a surface: its middle and how far it reaches, device px, and the box of whole pixels it takes up. */
interface OnSurface {
  readonly light: Falling;
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly box: Box;
}

function onSurface(light: Falling, view: Matrix, { width, height }: Surface): OnSurface {
  const { x, y } = apply(view, light);
  const radius = light.radius * scaleOf(view);
  const round = { left: x - radius, top: y - radius, right: x + radius, bottom: y + radius };
  const box = intersection(wholePixels(round), { left: 0, top: 0, right: width, bottom: height });
  return { light, x, y, radius, box };
}

/** The light by itself, as it falls inside a thing. @param thing all of it. @param box of the surface that is given back. */
function litIn(thing: Surface, { light, x, y, radius, box }: OnSurface, make: MakeSurface): Surface {
  const { left, top } = box;
  const lit = make(box.right - left, box.bottom - top);
  const { context } = lit;
  const gradient = context.createRadialGradient(x - left, y - top, 0, x - left, y - top, radius);
  const [red, green, blue] = channels(light.colour);
  for (let i = 0; i <= STOPS; i++) {
    const share = i / STOPS;
    gradient.addColorStop(share, `rgba(${red}, ${green}, ${blue}, ${leftAt(share, light.dies).toFixed(4)})`);
  }
  context.fillStyle = gradient;
  context.fillRect(0, 0, lit.width, lit.height);
  context.globalCompositeOperation = 'destination-in';
  context.drawImage(thing.picture, -left, -top);
  plain(lit);
  if (light.side === 0) return lit;
  // The side towards the light is what the thing leaves free when it is drawn a little farther away from it.
  const side = copyOf(lit, make);
  side.context.globalCompositeOperation = 'destination-out';
  for (let i = 1; i <= SIDE_STEPS; i++) {
    const size = 1 + (SIDE * i) / SIDE_STEPS;
    side.context.globalAlpha = i === SIDE_STEPS ? 1 : 0.4;
    side.context.setTransform(size, 0, 0, size, x - left - x * size, y - top - y * size);
    side.context.drawImage(thing.picture, 0, 0);
  }
  plain(side);
  context.globalCompositeOperation = 'lighter';
  context.globalAlpha = light.side;
  context.drawImage(side.picture, 0, 0);
  plain(lit);
  return lit;
}

/** Lays lights on a thing, in their order. @param thing a surface with nothing but what they fall on. @param view shot px to device px. */
export function shine(thing: Surface, lights: readonly Falling[], view: Matrix, make: MakeSurface): void {
  const all = lights.map((light) => onSurface(light, view, thing)).filter(({ box }) => !isEmpty(box));
  if (all.length === 0) return;
  const { left, top, right, bottom } = all.map(({ box }) => box).reduce(union, EMPTY_BOX);
  const part = make(right - left, bottom - top);
  part.context.drawImage(thing.picture, -left, -top);
  const was = copyOf(part, make);
  for (const each of all) {
    const lit = litIn(thing, each, make);
    const { light, box } = each;
    part.context.globalCompositeOperation = light.blend === 'add' ? 'lighter' : operationOf(light.blend);
    for (let strength = light.strength; strength > 0.001; strength -= 1) {
      part.context.globalAlpha = Math.min(1, strength);
      part.context.drawImage(lit.picture, box.left - left, box.top - top);
    }
  }
  // Blends make what is half there more opaque: it stays as it was.
  part.context.globalAlpha = 1;
  part.context.globalCompositeOperation = 'destination-in';
  part.context.drawImage(was.picture, 0, 0);
  plain(part);
  plain(thing);
  thing.context.clearRect(left, top, right - left, bottom - top);
  thing.context.drawImage(part.picture, left, top);
}
