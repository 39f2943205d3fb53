/** The server's canvas: the same drawing interface as the browser's. */
import type { ShotDocument } from '@tallow/core/document';
import { drawDrawing, paintsOf, Scratch, type MakeSurface, type Means, type Surface } from '@tallow/core/render';
import { createCanvas, type Canvas } from '@napi-rs/canvas';

export const makeSurface: MakeSurface = (width, height, deep = false) => {
  const canvas = createCanvas(width, height);
  // It takes pixels as it gives them, which its types say more narrowly.
  return {
    width,
    height,
    picture: canvas,
    context: canvas.getContext('2d', { colorType: deep ? 'float16' : 'unorm8' }) as unknown as Surface['context'],
  };
};

/** Draws each sheet afresh on surfaces that are used again: for frames that are drawn once. */
export function directMeans(doc: ShotDocument): Means {
  const surfaces = new Map<string, Surface>();
  const scratch = new Scratch(makeSurface);
  const surfaceOf = (width: number, height: number): Surface => {
    const key = `${width}x${height}`;
    const known = surfaces.get(key) ?? makeSurface(width, height);
    surfaces.set(key, known);
    return known;
  };
  return {
    make: makeSurface,
    pictureOf: (sheet, matrix, width, height) => {
      const surface = surfaceOf(width, height);
      drawDrawing(surface, scratch, sheet.drawing, paintsOf(doc, sheet), matrix);
      return surface.picture;
    },
  };
}

/** Encodes off the main thread. */
export const pngOf = (surface: Surface): Promise<Buffer> => (surface.picture as Canvas).encode('png');
