/** The server's canvas: the same drawing interface as the browser's. */
import type { ShotDocument } from '@tallow/core/document';
import { isEmpty, multiply, translation } from '@tallow/core/geometry';
import {
  drawDrawing,
  paintsOf,
  roomFor,
  roomOn,
  Scratch,
  SurfacePool,
  wholeSight,
  type MakeSurface,
  type RenderContext,
  type Surface,
} from '@tallow/core/render';
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

const POOL_BYTES = 128 * 1024 * 1024;

/** Draws each item afresh on surfaces that are used again: for frames that are drawn once. */
export function directRendering(doc: ShotDocument, make = makeSurface): RenderContext & { readonly pool: SurfacePool } {
  const pool = new SurfacePool(make, POOL_BYTES);
  const scratch = new Scratch(make);
  return {
    pool,
    make: pool.make,
    during: (work) => pool.during(work),
    pictureOf: (item, matrix, width, height) => {
      const { drawing } = item;
      const seen = roomOn(drawing, matrix, { width, height });
      if (isEmpty(seen)) return { picture: pool.make(1, 1).picture, left: 0, top: 0 };
      const whole = wholeSight(drawing, { width, height, matrix });
      const at = whole?.sight.matrix ?? matrix;
      const { left, top, right, bottom } = whole ? roomFor(drawing, at) : seen;
      const surface = pool.make(right - left, bottom - top);
      drawDrawing(surface, scratch, drawing, paintsOf(doc, item), multiply(translation(-left, -top), at));
      return { picture: surface.picture, left: left + (whole?.x ?? 0), top: top + (whole?.y ?? 0) };
    },
  };
}

/** Encodes off the main thread. */
export const pngOf = (surface: Surface): Promise<Buffer> => (surface.picture as Canvas).encode('png');
