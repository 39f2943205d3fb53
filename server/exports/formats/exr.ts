/** Frames as OpenEXR: half floats in linear light, colours times alpha, as the format is meant. */
import { asLight } from '@tallow/core/colour';
import type { FfmpegFrames } from './ffmpeg-frames.ts';

const LIGHT = Float32Array.from({ length: 256 }, (_, channel) => asLight(channel));

/** Straight bytes as the planes green, blue, red and alpha of floats. */
function planes(pixels: Uint8ClampedArray): Uint8Array {
  const count = pixels.length / 4;
  const floats = new Float32Array(pixels.length);
  for (let i = 0, p = 0; i < count; i++, p += 4) {
    const opaque = pixels[p + 3]!;
    // Most of a picture is empty, and zeros are there already.
    if (opaque === 0) continue;
    const alpha = opaque / 255;
    floats[i] = LIGHT[pixels[p + 1]!]! * alpha;
    floats[count + i] = LIGHT[pixels[p + 2]!]! * alpha;
    floats[2 * count + i] = LIGHT[pixels[p]!]! * alpha;
    floats[3 * count + i] = alpha;
  }
  return new Uint8Array(floats.buffer);
}

export const EXR: FfmpegFrames = {
  encoder: ['-c:v', 'exr', '-format', 'half', '-compression', 'zip16', '-pix_fmt', 'gbrapf32le'],
  ending: 'exr',
  told: () => 'straight',
  pixels: 'gbrapf32le',
  bytesOf: planes,
};
