/** The server's canvas: the same drawing interface as the browser's. */
import type { ShotDocument } from '@tallow/core/document';
import { drawDrawing, paintsOf, type MakeSurface, type PictureOf, type Surface } from '@tallow/core/render';
import { createCanvas, type Canvas } from '@napi-rs/canvas';

export const makeSurface: MakeSurface = (width, height) => {
  const canvas = createCanvas(width, height);
  return { width, height, picture: canvas, context: canvas.getContext('2d') };
};

/** Draws each sheet afresh on one reused surface: for frames that are drawn once. */
export function directPictures(doc: ShotDocument, width: number, height: number): PictureOf {
  const surface = makeSurface(width, height);
  const scratch = makeSurface(width, height);
  return (sheet, matrix) => {
    drawDrawing(surface, scratch, sheet.drawing, paintsOf(doc, sheet), matrix);
    return surface.picture;
  };
}

/** Encodes off the main thread. */
export const pngOf = (surface: Surface): Promise<Buffer> => (surface.picture as Canvas).encode('png');
