/** Rows of export formats whose encoder is a library in this process: each against it alone, given the same frames drawn already. */
import { entitiesOf, shotOf, type ShotDocument } from '@tallow/core/document';
import { createCanvas, type Canvas } from '@napi-rs/canvas';
import gifenc from 'gifenc';
import { frameDrawer, wholeShot, type FrameRange } from '../server/render/frames.ts';
import { drawnBox } from '../server/render/raw-frames.ts';
import { sideBySide, timeRow, type Row } from './measure.ts';

const { applyPalette, GIFEncoder, quantize } = gifenc;
const GOAL = 1.3;
/** As many pixels as the export looks at for its palette. */
const SAMPLED = 600_000;

type Export = (format: 'gif' | 'ora') => () => Promise<void>;

const pictureOn = (doc: ShotDocument, range: FrameRange, frame: number): Canvas =>
  frameDrawer(doc, range).draw(frame).picture as Canvas;

const pixelsOf = (picture: Canvas) => picture.getContext('2d').getImageData(0, 0, picture.width, picture.height).data;

/** A GIF of given frames: its palette, the colour of each pixel, its packing. */
function gifOf(frames: readonly Uint8ClampedArray[], width: number, height: number): Uint8Array {
  const every = Math.max(1, Math.floor((width * height * frames.length) / SAMPLED));
  const sampled: number[] = [];
  for (const pixels of frames)
    for (let p = 0; p < pixels.length; p += every * 4)
      if (pixels[p + 3]! >= 128) sampled.push(pixels[p]!, pixels[p + 1]!, pixels[p + 2]!, 255);
  const palette = quantize(Uint8Array.from(sampled), 255, { format: 'rgb565' });
  const encoder = GIFEncoder();
  for (const [i, pixels] of frames.entries()) {
    const index = applyPalette(new Uint8Array(pixels.buffer), palette, 'rgb565');
    encoder.writeFrame(index, width, height, { ...(i === 0 ? { palette, repeat: 0 } : {}), delay: 80, dispose: 2 });
  }
  encoder.finish();
  return encoder.bytes();
}

/** The pictures of one frame as OpenRaster has them: each layer cut to what is drawn, and all of it. */
function partsOf(doc: ShotDocument, frame: number): Canvas[] {
  const { width } = shotOf(doc);
  const layers = entitiesOf(doc, 'layer').flatMap(({ id }) => {
    const whole = pictureOn(doc, { ...wholeShot(doc, false), options: { guides: false, alone: id } }, frame);
    const box = drawnBox(pixelsOf(whole), width);
    if (!box) return [];
    const cut = createCanvas(box.width, box.height);
    cut.getContext('2d').drawImage(whole, -box.left, -box.top);
    return [cut];
  });
  return [...layers, pictureOn(doc, wholeShot(doc, false), frame)];
}

/** @param doc a shot whose frames differ by twos. @param exported makes an export of it. */
export async function pictureFormatRows(doc: ShotDocument, exported: Export): Promise<Row[]> {
  const { width, height, length } = shotOf(doc);
  const different = Array.from({ length: length / 2 }, (_, i) => 2 * i);
  const frames = different.map((frame) => pixelsOf(pictureOn(doc, wholeShot(doc, false), frame)));
  const parts = different.map((frame) => partsOf(doc, frame));
  const packed = async () => {
    for (const pictures of parts) await Promise.all(pictures.map((picture) => picture.encode('png')));
  };
  return [
    timeRow(
      'export as gif',
      'its encoder alone',
      GOAL,
      await sideBySide(3, exported('gif'), () => gifOf(frames, width, height)),
    ),
    timeRow('export as ora', 'its encoder alone', GOAL, await sideBySide(3, exported('ora'), packed)),
  ];
}
