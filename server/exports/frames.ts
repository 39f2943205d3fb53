/** The frames of a shot as PNG, in order; frames that show the same are drawn and encoded once. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import { drawFrame, frameKey, sheetsOf } from '@tallow/core/render';
import { directPictures, makeSurface, pngOf } from './canvas.ts';

/** Different pictures kept encoded, for cycles that come round again. */
const KEPT = 240;
/** Pictures drawn ahead while others are still being encoded on another thread. */
const AHEAD = 3;

/** Yields each frame from 0 on. Guides are never in it. @param background whether the shot's background is. */
export async function* pngFrames(doc: ShotDocument, background: boolean): AsyncGenerator<Buffer> {
  const { width, height, length } = shotOf(doc);
  const pictures = directPictures(doc, width, height);
  const encoded = new Map<string, Promise<Buffer>>();
  let encoding = 0;
  const draw = (frame: number): Promise<Buffer> => {
    const key = frameKey(sheetsOf(doc, frame, { guides: false }));
    const known = encoded.get(key);
    if (known) return known;
    const surface = makeSurface(width, height);
    drawFrame(surface, doc, frame, [1, 0, 0, 1, 0, 0], pictures, makeSurface, { guides: false, background });
    encoding += 1;
    const png = pngOf(surface).finally(() => {
      encoding -= 1;
    });
    png.catch(() => undefined);
    encoded.set(key, png);
    if (encoded.size > KEPT) encoded.delete(encoded.keys().next().value!);
    return png;
  };
  const drawn: Promise<Buffer>[] = [];
  let next = 0;
  for (let frame = 0; frame < length; frame++) {
    while (next < length && (drawn.length === 0 || (encoding < AHEAD && drawn.length < KEPT / 2)))
      drawn.push(draw(next++));
    yield await drawn.shift()!;
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
