/** Frames as PNG. */
import { pngFrames } from '../../render/frames.ts';
import { ffmpegFrames, type FfmpegFrames } from './ffmpeg-frames.ts';
import { framesZip, type EncodeSequence } from './frames-zip.ts';

const told: Parameters<typeof ffmpegFrames>[0]['told'] = ({ writing }) => writing.settings.alpha;

/** 8 bits: as the canvas encodes them, unless they are cut or told in another way. */
const png8: EncodeSequence = async function* (sequence) {
  const { writing, range, crop } = sequence;
  if (crop || writing.settings.alpha !== 'straight') {
    yield* ffmpegFrames({ encoder: ['-c:v', 'png', '-pix_fmt', 'rgba'], ending: 'png', told })(sequence);
    return;
  }
  for await (const png of pngFrames(writing.outline, range, writing.documents)) yield { drawn: 1, files: [png] };
};

export const writePng = framesZip(png8);

/** 255 is 65535: each byte twice over. */
function doubled(pixels: Uint8ClampedArray): Uint8Array {
  const wide = new Uint16Array(pixels.length);
  // A loop: `from` with a function takes twenty times as long.
  for (let i = 0; i < pixels.length; i++) wide[i] = pixels[i]! * 257;
  return new Uint8Array(wide.buffer);
}

export const PNG16: FfmpegFrames = {
  encoder: ['-c:v', 'png', '-pix_fmt', 'rgba64be'],
  ending: 'png',
  told,
  pixels: 'rgba64le',
  bytesOf: doubled,
};

export const TIFF: FfmpegFrames = {
  encoder: ['-c:v', 'tiff', '-pix_fmt', 'rgba', '-compression_algo', 'deflate'],
  ending: 'tif',
  told,
};
