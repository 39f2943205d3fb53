/** The frames of a shot as PNG, in order; frames that show the same are drawn and encoded once. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import { drawFrame, frameKey, sheetsOf } from '@tallow/core/render';
import { directPictures, makeSurface, pngOf } from './canvas.ts';

/** Yields each frame from 0 on. Guides are never in it. @param background whether the shot's background is. */
export async function* pngFrames(doc: ShotDocument, background: boolean): AsyncGenerator<Buffer> {
  const { width, height, length } = shotOf(doc);
  const pictures = directPictures(doc, width, height);
  const encoded = new Map<string, Promise<Buffer>>();
  const draw = (frame: number): Promise<Buffer> => {
    const key = frameKey(sheetsOf(doc, frame, { guides: false }));
    let png = encoded.get(key);
    if (!png) {
      const surface = makeSurface(width, height);
      drawFrame(surface, doc, frame, [1, 0, 0, 1, 0, 0], pictures, { guides: false, background });
      png = pngOf(surface);
      png.catch(() => undefined);
      encoded.set(key, png);
    }
    return png;
  };
  // The next frame is drawn while the one before is still being encoded on another thread.
  let ahead = draw(0);
  for (let frame = 0; frame < length; frame++) {
    const current = ahead;
    if (frame + 1 < length) ahead = draw(frame + 1);
    yield await current;
  }
}

/** Frame 0 is `0001`; five digits and more only where they are needed. */
export const frameNumber = (frame: number): string => String(frame + 1).padStart(4, '0');

/** A name that every file system takes, made from a shot's name. */
export function fileStem(name: string): string {
  const stem = name
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return stem || 'shot';
}
