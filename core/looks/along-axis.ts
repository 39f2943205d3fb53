/** Gradients along an element's axis, and the soft rim of a picture: what several looks are made of. */
import { blurred, flood, plain, type Surface } from '../canvas/index.ts';
import { apply, type Point } from '../geometry/index.ts';
import type { LookPlace } from './look.ts';

/** A gradient along the axis on device pixels. @param stops shares of the axis and what is there. */
export function alongAxis(target: Surface, place: LookPlace, stops: readonly (readonly [number, string])[]): unknown {
  const { axis, matrix } = place;
  const [a, b] = [apply(matrix, axis.from), apply(matrix, axis.to)];
  const [min, max] = [stops[0]![0], stops.at(-1)![0]];
  const at = (share: number): Point => ({ x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share });
  const [from, to] = [at(min), at(Math.max(max, min + 1e-4))];
  const gradient = target.context.createLinearGradient(from.x, from.y, to.x, to.y);
  for (const [share, colour] of stops) gradient.addColorStop((share - min) / Math.max(1e-4, max - min), colour);
  return gradient;
}

/** What lies outside a picture within a distance of it, softly: 0 far inside, half at the edge. */
export function outsideOf(source: Surface, deviation: number, { rough, make }: LookPlace): Surface {
  const outside = make(source.width, source.height);
  flood(outside, '#000000', 'source-over');
  outside.context.globalCompositeOperation = 'destination-out';
  outside.context.drawImage(source.picture, 0, 0);
  plain(outside);
  return blurred(outside, deviation, rough, make);
}
