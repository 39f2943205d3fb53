/** A looping GIF: one palette for all frames, whole delays that last as long as the loop should. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import { gifTimes } from '@tallow/core/timing';
import type { Canvas } from '@napi-rs/canvas';
// The package is CommonJS, so it comes as one object.
import gifenc from 'gifenc';
import { writeFile } from 'node:fs/promises';
import { frameDrawer, framesOf, type FrameRange } from '../../render/frames.ts';
import type { FrameDocuments } from '../../render/frame-documents.ts';
import { KeptFrames } from './kept-frames.ts';
import { exportRange } from './range.ts';
import type { Writing } from './writer.ts';

const { applyPalette, GIFEncoder, quantize } = gifenc;

/** Pixels looked at for the palette, over all frames together. */
const SAMPLED = 600_000;
/** Below this alpha (0 to 255) a pixel is left open: a GIF knows no half-open ones. */
const OPEN_BELOW = 128;

/** Pictures kept with their colours found, for cycles that come round again. */
const KEPT = 48;
/** Bytes of drawn frames kept from the first pass, in which the palette is found, to the second. */
const KEPT_BYTES = { plain: 96 * 1024 * 1024, packed: 64 * 1024 * 1024 } as const;

interface Part {
  readonly frame: number;
  readonly key: string;
  /** 1/100 s. */
  delay: number;
}

/** Frames that are shown, each with its delay; neighbours that look alike are one, held longer. */
async function partsOf(
  keyOf: (frame: number) => Promise<string>,
  frames: readonly number[],
  rate: number,
): Promise<Part[]> {
  const { kept, delays } = gifTimes(frames.length, rate);
  const parts: Part[] = [];
  let lastKey: string | null = null;
  for (const [i, offset] of kept.entries()) {
    const frame = frames[offset]!;
    const key = await keyOf(frame);
    if (key === lastKey) parts.at(-1)!.delay += delays[i]!;
    else parts.push({ frame, key, delay: delays[i]! });
    lastKey = key;
  }
  return parts;
}

/**
 * Makes the GIF. @param doc the shot, with or without its drawings. @param tell is called with how many of how many frames are done and answers whether to go on.
 * @returns the file, or null when it was stopped.
 */
async function makeGif(
  doc: ShotDocument,
  range: FrameRange,
  documents: FrameDocuments,
  tell: (done: number, of: number) => Promise<boolean>,
): Promise<Uint8Array | null> {
  const drawer = frameDrawer(doc, range);
  const keyOf = async (frame: number): Promise<string> => drawer.keyOf(frame, await documents.at(frame));
  const parts = await partsOf(keyOf, framesOf(range), range.rate ?? shotOf(doc).rate);
  const { width, height } = drawer;
  const kept = new KeptFrames(KEPT_BYTES);
  const pixelsOf = async ({ frame, key }: Part): Promise<Uint8Array> => {
    const before = kept.of(key);
    if (before) return before;
    const surface = drawer.draw(frame, await documents.at(frame));
    const { data } = (surface.picture as Canvas).getContext('2d').getImageData(0, 0, width, height);
    drawer.giveBack(surface);
    const pixels = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    kept.keep(key, pixels);
    return pixels;
  };
  const open = !range.background || shotOf(doc).background === null;
  const sampled: number[] = [];
  const different = [...new Map(parts.map((part) => [part.key, part])).values()];
  const every = Math.max(1, Math.floor((width * height * different.length) / SAMPLED));
  for (const [i, part] of different.entries()) {
    const pixels = await pixelsOf(part);
    for (let p = (i % every) * 4; p < pixels.length; p += every * 4)
      if (pixels[p + 3]! >= OPEN_BELOW) sampled.push(pixels[p]!, pixels[p + 1]!, pixels[p + 2]!, 255);
    if (!(await tell(Math.floor(((i + 1) * parts.length) / different.length / 2), parts.length))) return null;
  }
  const palette = quantize(Uint8Array.from(sampled.length > 0 ? sampled : [0, 0, 0, 255]), open ? 255 : 256, {
    format: 'rgb565',
  });
  const openIndex = palette.length;
  const indexed = new Map<string, Uint8Array>();
  const indexOf = async (part: Part): Promise<Uint8Array> => {
    const { key } = part;
    const known = indexed.get(key);
    if (known) return known;
    const pixels = await pixelsOf(part);
    const index = applyPalette(pixels, palette, 'rgb565');
    if (open) for (let p = 0; p < index.length; p++) if (pixels[p * 4 + 3]! < OPEN_BELOW) index[p] = openIndex;
    if (indexed.size < KEPT) indexed.set(key, index);
    return index;
  };
  const encoder = GIFEncoder();
  for (const [i, part] of parts.entries()) {
    const index = await indexOf(part);
    const { delay } = part;
    encoder.writeFrame(index, width, height, {
      ...(i === 0 ? { palette: open ? [...palette, [0, 0, 0] as [number, number, number]] : palette, repeat: 0 } : {}),
      delay: delay * 10,
      dispose: open ? 2 : 1,
      ...(open ? { transparent: true, transparentIndex: openIndex } : {}),
    });
    if (!(await tell(Math.floor((parts.length + i + 1) / 2), parts.length))) return null;
  }
  encoder.finish();
  return encoder.bytes();
}

export async function writeGif({
  outline,
  documents,
  settings,
  frames,
  path,
  tell,
  assets,
}: Writing): Promise<boolean> {
  const range = exportRange({ outline, settings, assets });
  const bytes = await makeGif(outline, range, documents, (done, of) => tell(Math.round((done * frames) / of)));
  if (bytes) await writeFile(path, bytes);
  return bytes !== null;
}
