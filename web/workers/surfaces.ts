/** Browser canvases as rendering surfaces. Kept in main memory, so that every engine draws them the same way. */
import type { MakeSurface, Surface } from '@tallow/core/render';

export interface BrowserSurface extends Surface {
  readonly picture: OffscreenCanvas;
}

export const makeSurface: MakeSurface = (width, height, deep = false): BrowserSurface => {
  const picture = new OffscreenCanvas(width, height);
  const context = picture.getContext('2d', { willReadFrequently: true, colorType: deep ? 'float16' : 'unorm8' });
  if (!context) throw new Error('This browser gives no 2D canvas');
  return { width, height, picture, context: context };
};

/** Draws what the surface has noted so far: browsers put that off until the picture is read, then all of it holds up the thread at once. */
export const drawNow = ({ context }: Surface): unknown => context.getImageData(0, 0, 1, 1);

/** A surface's picture for handing over; the surface is empty after it. */
export const bitmapOf = ({ picture }: Surface): ImageBitmap => (picture as OffscreenCanvas).transferToImageBitmap();
