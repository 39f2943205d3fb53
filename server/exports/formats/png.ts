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
  const words = new Uint32Array(pixels.buffer, pixels.byteOffset, pixels.length >> 2);
  const wide = new Uint32Array(pixels.length >> 1);
  // Four bytes at a time, and none where nothing is: a byte at a time takes six times as long.
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    if (word === 0) continue;
    wide[2 * i] = (word & 0xff) * 0x101 + ((word >>> 8) & 0xff) * 0x1010000;
    wide[2 * i + 1] = ((word >>> 16) & 0xff) * 0x101 + (word >>> 24) * 0x1010000;
  }
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
