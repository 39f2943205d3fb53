/** The server's canvas: the same drawing interface as the browser's. */
import type { ShotDocument } from '@tallow/core/document';
import {
  KeptParts,
  keptRendering,
  Rasters,
  SurfacePool,
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

/** Bytes of surfaces that lie ready at most. */
const POOL_BYTES = 128 * 1024 * 1024;

/**
 * Draws everything afresh on surfaces that are used again: for frames that are drawn once. Keeping what the next frame shows again,
 * as the desk does, took 230 MB more for a shot with a camera, where nothing is shown again.
 */
export function directRendering(doc: ShotDocument, make = makeSurface): RenderContext & { readonly pool: SurfacePool } {
  const pool = new SurfacePool(make, POOL_BYTES);
  const rasters = new Rasters(pool, 0, make);
  rasters.recoloured(doc);
  return { ...keptRendering(() => doc, pool, rasters, new KeptParts(pool, 0)), pool };
}

/** Encodes off the main thread. */
export const pngOf = (surface: Surface): Promise<Buffer> => (surface.picture as Canvas).encode('png');
