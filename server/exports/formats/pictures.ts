/** The different pictures of a range, each cut to what is drawn, and when they are seen: what sheets are made of. */
import { createCanvas, ImageData, type Canvas } from '@napi-rs/canvas';
import { frameDrawer } from '../../render/frames.ts';
import { drawnBox, rawFrames, type Crop, type Pixels } from '../../render/raw-frames.ts';
import { exportRange } from './range.ts';
import type { Writing } from './writer.ts';

/** A picture of the range. */
export interface ExportPicture {
  /** Where in the whole picture it lies; null where nothing is drawn. */
  readonly box: Crop | null;
  readonly canvas: Canvas | null;
}

/** Frames that follow each other and show one picture. */
export interface ShownPicture {
  readonly picture: number;
  /** Frame of the shot, from 0. */
  readonly from: number;
  readonly frames: number;
}

export interface ExportPictures {
  readonly width: number;
  readonly height: number;
  readonly pictures: readonly ExportPicture[];
  readonly shown: readonly ShownPicture[];
}

function canvasOf(pixels: Pixels, width: number, { left, top, width: w, height: h }: Crop): Canvas {
  const canvas = createCanvas(w, h);
  const part = new Uint8ClampedArray(w * h * 4);
  for (let y = 0; y < h; y++) {
    const at = ((top + y) * width + left) * 4;
    part.set(pixels.subarray(at, at + w * 4), y * w * 4);
  }
  canvas.getContext('2d').putImageData(new ImageData(part, w, h), 0, 0);
  return canvas;
}

/**
 * Draws the pictures of an export.
 * @param reduced what is kept of each: itself, or less of it. @returns null when it was stopped.
 */
export async function picturesOf(
  { outline, documents, settings, tell, assets }: Writing,
  background: boolean,
  reduced: (canvas: Canvas) => Canvas = (canvas) => canvas,
): Promise<ExportPictures | null> {
  const range = { ...exportRange({ outline, settings, assets }), background };
  const { width, height } = frameDrawer(outline, range);
  const nthOf = new Map<string, number>();
  const pictures: ExportPicture[] = [];
  const shown: ShownPicture[] = [];
  let frame = range.from;
  for await (const { key, pixels } of rawFrames(outline, range, documents, 'straight')) {
    let nth = nthOf.get(key);
    if (nth === undefined) {
      nthOf.set(key, (nth = pictures.length));
      const data = pixels();
      const box = drawnBox(data, width);
      pictures.push({ box, canvas: box && reduced(canvasOf(data, width, box)) });
    }
    const last = shown.at(-1);
    if (last?.picture === nth) shown[shown.length - 1] = { ...last, frames: last.frames + 1 };
    else shown.push({ picture: nth, from: frame, frames: 1 });
    frame += 1;
    if (!(await tell(frame - range.from))) return null;
  }
  return { width, height, pictures, shown };
}
