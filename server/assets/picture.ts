/** What comes in as a picture: judged by its content, brought into a form that every part of Tallow draws alike. */
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { imageSize } from 'image-size';
import { Problem } from '../http/problem.ts';

/** Bytes and pixels at most. */
export const ASSET_LIMITS = { bytes: 50 * 1024 * 1024, pixels: 64_000_000 } as const;

/** Kinds that come in. SVG and GIF are kept as the PNG of what they show: SVG drawn once, of a GIF its first frame. */
const KINDS = { png: 'image/png', jpg: 'image/jpeg', webp: 'image/webp', gif: 'image/png', svg: 'image/png' } as const;

export interface KeptPicture {
  readonly content: Buffer;
  readonly type: string;
  readonly width: number;
  readonly height: number;
}

const broken = (): Problem =>
  new Problem(422, 'This file is broken or no picture. PNG, JPEG, WebP, SVG and GIF can come in.');

/** Whether a file goes on to its end: decoders fill what was cut off with nothing and say no word. */
function isWhole(content: Buffer, kind: keyof typeof KINDS): boolean {
  switch (kind) {
    case 'png':
      return content.lastIndexOf('IEND', undefined, 'latin1') > 0;
    case 'jpg':
      return content.lastIndexOf(Buffer.of(0xff, 0xd9)) > 0;
    case 'webp':
      return content.length >= 12 && content.readUInt32LE(4) + 8 <= content.length;
    case 'gif':
      return content.lastIndexOf(0x3b) > content.length - 64;
    case 'svg':
      return content.lastIndexOf('>') > 0;
  }
}

/**
 * Reads a picture. @throws a problem said to the user when it is broken, of another kind or too large.
 * @param named the file's name, for saying when its content is of another kind.
 */
export async function readPicture(content: Buffer, named: string): Promise<KeptPicture> {
  if (content.length === 0) throw new Problem(422, 'This file is empty.');
  if (content.length > ASSET_LIMITS.bytes)
    throw new Problem(413, `This file has ${Math.ceil(content.length / 1024 / 1024)} MB; 50 MB is the most.`);
  let found: { width: number; height: number; type?: string };
  try {
    found = imageSize(content);
  } catch {
    throw broken();
  }
  const kind = found.type as keyof typeof KINDS;
  if (!(kind in KINDS) || !isWhole(content, kind)) throw broken();
  const ending = /\.([a-z0-9]+)$/i.exec(named)?.[1]?.toLowerCase().replace('jpeg', 'jpg');
  if (ending && ending in KINDS && ending !== kind)
    throw new Problem(
      422,
      `${named} is no ${ending.toUpperCase()}: it holds a ${kind.toUpperCase()}. Rename it and try again.`,
    );
  if (found.width * found.height > ASSET_LIMITS.pixels)
    throw new Problem(
      413,
      `This picture has ${Math.round((found.width * found.height) / 1e6)} million pixels; 64 million is the most.`,
    );
  try {
    const image = await loadImage(content);
    if (image.width < 1 || image.height < 1) throw broken();
    const { width, height } = image;
    if (KINDS[kind] !== 'image/png' || kind === 'png') return { content, type: KINDS[kind], width, height };
    const canvas = createCanvas(width, height);
    canvas.getContext('2d').drawImage(image, 0, 0);
    return { content: await canvas.encode('png'), type: 'image/png', width, height };
  } catch {
    throw broken();
  }
}
