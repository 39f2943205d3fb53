/** Filling and copying whole surfaces. */
import type { MakeSurface, Surface } from './surface.ts';

/** A context as it is when nothing is asked of it. */
export const plain = ({ context }: Surface): void => {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
};

/** Fills all of a surface, meeting what is there in one of the standard's ways. */
export function flood(target: Surface, fill: unknown, operation: string, opacity = 1): void {
  const { context, width, height } = target;
  plain(target);
  context.globalCompositeOperation = operation;
  context.globalAlpha = opacity;
  context.fillStyle = fill;
  context.fillRect(0, 0, width, height);
  plain(target);
}

export function copyOf({ picture, width, height }: Surface, make: MakeSurface): Surface {
  const copy = make(width, height);
  copy.context.drawImage(picture, 0, 0);
  return copy;
}
