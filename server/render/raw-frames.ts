/** Frames of a shot as raw pixels, in order; those that show the same are drawn once while they are at hand. */
import type { ShotDocument } from '@tallow/core/document';
import type { AlphaKind } from '@tallow/core/formats';
import { ByteCache } from '@tallow/core/render';
import type { Canvas } from '@napi-rs/canvas';
import type { FrameDocuments } from './frame-documents.ts';
import { frameDrawer, framesOf, type FrameRange } from './frames.ts';

export type Pixels = Uint8ClampedArray;

/** Bytes of drawn frames kept for when they come round again. */
const KEPT_BYTES = 96 * 1024 * 1024;

/** A part of the picture, px. */
export interface Crop {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** How pixels are written: as formats can, or laid on black where nothing can be seen through. */
export type Told = AlphaKind | 'on black';

const OPAQUE = 0xff000000;

/** Turns straight pixels into how they are written, in place. */
export function tellAlpha(pixels: Pixels, told: Told): Pixels {
  if (told === 'straight') return pixels;
  // Four bytes at a time, alpha uppermost: most pixels are empty or opaque.
  const words = new Uint32Array(pixels.buffer, pixels.byteOffset, pixels.length >> 2);
  const closed = told === 'premultiplied' ? 0 : OPAQUE;
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    const alpha = word >>> 24;
    if (told === 'matte') words[i] = alpha * 0x10101 + OPAQUE;
    else if (alpha === 0) words[i] = closed;
    else if (alpha < 255) {
      for (let c = 4 * i; c < 4 * i + 3; c++) pixels[c] = Math.round((pixels[c]! * alpha) / 255);
      if (closed) pixels[4 * i + 3] = 255;
    }
  }
  return pixels;
}

interface RawFrame {
  /** Frames of the same key look the same. */
  readonly key: string;
  /** Draws it, unless it is at hand; the pixels are not to be changed. */
  readonly pixels: () => Pixels;
}

/** Each frame of a range. @param crop what of it is wanted; all of it if left out. */
export async function* rawFrames(
  doc: ShotDocument,
  range: FrameRange,
  documents: FrameDocuments,
  told: Told,
  crop?: Crop,
): AsyncGenerator<RawFrame> {
  const drawer = frameDrawer(doc, range);
  const { left, top, width, height } = crop ?? { left: 0, top: 0, width: drawer.width, height: drawer.height };
  const known = new ByteCache<Pixels>(KEPT_BYTES);
  for (const frame of framesOf(range)) {
    const at = await documents.at(frame);
    const key = drawer.keyOf(frame, at);
    yield {
      key,
      pixels: () => {
        const kept = known.get(key);
        if (kept) return kept;
        const surface = drawer.draw(frame, at);
        const { data } = (surface.picture as Canvas).getContext('2d').getImageData(left, top, width, height);
        drawer.giveBack(surface);
        const pixels = tellAlpha(data, told);
        known.set(key, pixels, pixels.length);
        return pixels;
      },
    };
  }
}

/** What of a picture is drawn on; null where nothing is. @param pixels straight. @param width of it, px. */
export function drawnBox(pixels: Pixels, width: number): Crop | null {
  // Four bytes at a time: straight pixels with nothing on them are 0 as a whole.
  const words = new Uint32Array(pixels.buffer, pixels.byteOffset, pixels.length >> 2);
  let [left, top, right, bottom] = [width, -1, -1, -1];
  for (let row = 0, y = 0; row < words.length; row += width, y++) {
    let first = 0;
    while (first < width && words[row + first] === 0) first++;
    if (first === width) continue;
    let last = width - 1;
    // What lies left of the rightmost pixel so far cannot move it.
    while (last > right && words[row + last] === 0) last--;
    if (first < left) left = first;
    if (last > right) right = last;
    if (top < 0) top = y;
    bottom = y;
  }
  return right < 0 ? null : { left, top, width: right - left + 1, height: bottom - top + 1 };
}

/** What of a range is drawn on at all, over all its frames; null where nothing is. @param goesOn asked on every frame. */
export async function drawnPart(
  doc: ShotDocument,
  range: FrameRange,
  documents: FrameDocuments,
  goesOn: () => Promise<boolean>,
): Promise<Crop | null | 'stopped'> {
  const { width } = frameDrawer(doc, range);
  let whole: Crop | null = null;
  const seen = new Set<string>();
  for await (const { key, pixels } of rawFrames(doc, range, documents, 'straight')) {
    if (!(await goesOn())) return 'stopped';
    if (seen.has(key)) continue;
    seen.add(key);
    const box = drawnBox(pixels(), width);
    if (box) whole = whole ? both(whole, box) : box;
  }
  return whole;
}

function both(a: Crop, b: Crop): Crop {
  const [left, top] = [Math.min(a.left, b.left), Math.min(a.top, b.top)];
  const right = Math.max(a.left + a.width, b.left + b.width);
  const bottom = Math.max(a.top + a.height, b.top + b.height);
  return { left, top, width: right - left, height: bottom - top };
}
