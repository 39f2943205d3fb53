/** Laying pictures on a surface: the background, a picture of its size, a part of an item. */
import { operationOf, type Picture, type Surface } from '../canvas/index.ts';
import { shotOf, type Blend, type ShotDocument } from '../document/index.ts';
import { IDENTITY, type Matrix } from '../geometry/index.ts';
import type { Placed, ShownPart } from './render-context.ts';

/**
 * Fills the shot's frame with its background, if it has one.
 * @param view from shot px to device pixels. @param instead a colour in its place, for judging.
 */
export function drawBackground(target: Surface, doc: ShotDocument, view: Matrix, instead: string | null = null): void {
  const { background, width, height } = shotOf(doc);
  const colour = instead ?? background;
  if (!colour) return;
  target.context.setTransform(...view);
  target.context.fillStyle = colour;
  target.context.fillRect(0, 0, width, height);
}

/** Lays a picture over what is there. @param operation of the canvas, where no blend names it. @param rest what it is mapped by. */
export function layPicture(
  { context }: Surface,
  picture: Picture,
  opacity: number,
  blend: Blend,
  operation = operationOf(blend),
  left = 0,
  top = 0,
  rest = IDENTITY,
): void {
  context.setTransform(...rest);
  context.globalAlpha = opacity;
  context.globalCompositeOperation = operation;
  context.drawImage(picture, left, top);
  if (rest !== IDENTITY) context.setTransform(...IDENTITY);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** Draws a picture where it belongs over what is there. */
export const putPlaced = (target: Surface, { picture, left, top, rest }: Placed): void => {
  layPicture(target, picture, 1, 'normal', 'source-over', left, top, rest);
};

/** Lays a part of an item where it belongs. */
export const layPart = (target: Surface, { picture, opacity, blend, left, top, rest }: ShownPart): void => {
  layPicture(target, picture, opacity, blend, operationOf(blend), left, top, rest);
};
