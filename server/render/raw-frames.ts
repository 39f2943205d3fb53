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

/** Turns straight pixels into how they are written, in place. */
export function tellAlpha(pixels: Pixels, told: Told): Pixels {
  if (told === 'straight') return pixels;
  for (let p = 0; p < pixels.length; p += 4) {
    const alpha = pixels[p + 3]!;
    if (told === 'matte') pixels[p] = pixels[p + 1] = pixels[p + 2] = alpha;
    else if (alpha < 255) for (let c = p; c < p + 3; c++) pixels[c] = Math.round((pixels[c]! * alpha) / 255);
    if (told !== 'premultiplied') pixels[p + 3] = 255;
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

/** What of a picture is drawn on; null where nothing is. @param width of it, px. */
export function drawnBox(pixels: Pixels, width: number): Crop | null {
  let [left, top, right, bottom] = [Infinity, -1, -1, -1];
  for (let p = 3, x = 0, y = 0; p < pixels.length; p += 4) {
    if (pixels[p] !== 0) {
      if (x < left) left = x;
      if (x > right) right = x;
      if (top < 0) top = y;
      bottom = y;
    }
    x += 1;
    if (x < width) continue;
    x = 0;
    y += 1;
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
