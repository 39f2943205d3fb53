/**
 * Tone cut from a body in the manner of hand-cut shapes: where its relief turns from the light is shade, where it turns to
 * it is light. Lobes of the outline have tone of their own, as thick as they are round.
 */
import type { Tone, ToneKey } from '../document/index.ts';
import { EMPTY_BOX, gridOver, ringBox, ringsAt, union, type Point } from '../geometry/index.ts';
import { creased, insideOf, heightField, turnOf } from './height-field.ts';

export type ToneSettings = Pick<Tone, 'depth' | 'shade' | 'light' | 'steps' | 'rim'>;

export interface ToneWork {
  /** The body (even-odd), element space. */
  readonly rings: readonly Float32Array[];
  /** Detail lines that crease it. */
  readonly details: readonly (readonly Point[])[];
  readonly settings: ToneSettings;
  /** Where light comes from, degrees clockwise from the right. */
  readonly light: number;
}

/** px between samples at least, and samples along the longer side at most. */
const FINEST = 2;
const MAX = 230;
/** px² under which a tone is left out. */
const SMALLEST = 30;

/** The slope from which something is in tone, for how much there is to be of it. */
const limitFor = (amount: number): number => 0.92 - 0.86 * amount;

/** The rings of each tone that there is. */
export function toneShapes({ rings, details, settings, light }: ToneWork): Partial<Record<ToneKey, Float32Array[]>> {
  const box = rings.map(ringBox).reduce(union, EMPTY_BOX);
  if (!(box.left < box.right) || !(box.top < box.bottom)) return {};
  const grid = gridOver(box, FINEST, MAX);
  const inside = insideOf(rings, grid);
  const flat = inside.slice();
  creased(inside, details, grid);
  const reach = settings.depth / 2;
  const relief = heightField(inside, grid, reach);
  const angle = (light * Math.PI) / 180;
  // The relief rises away from the outline, so what faces the light falls towards it.
  const turned = turnOf(relief, grid, { x: Math.cos(angle), y: Math.sin(angle) }, reach);
  const rim = settings.rim > 0 ? 1 - Math.exp(-settings.rim / reach) : 0.004;
  const heights = settings.rim > 0 ? heightField(flat, grid, reach) : relief;
  const cut = (limit: number, way: 1 | -1): Float32Array[] => {
    const field = new Float64Array(turned.length);
    for (let i = 0; i < field.length; i++)
      field[i] = flat[i] === 0 ? -1 : Math.min(way * turned[i]! - limit, 2 * (heights[i]! - rim));
    return ringsAt(field, grid, 0, SMALLEST);
  };
  const shapes: Partial<Record<ToneKey, Float32Array[]>> = {};
  if (settings.shade > 0) {
    const limit = limitFor(settings.shade);
    shapes.shade = cut(limit, 1);
    if (settings.steps === 2) shapes.deep = cut(limit + (1 - limit) * 0.42, 1);
  }
  if (settings.light > 0) shapes.light = cut(limitFor(settings.light), -1);
  return shapes;
}
