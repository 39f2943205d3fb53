/** What comes in as a picture: judged by its content, brought into a form that every part of Tallow draws alike. */
import { imageSize } from 'image-size';
import { execFile } from 'node:child_process';
import { Problem } from '../http/problem.ts';
import { inLine } from './in-line.ts';
import { decodePicture } from './picture-decoder.ts';

/** Bytes and pixels at most. */
export const ASSET_LIMITS = { bytes: 50 * 1024 * 1024, pixels: 64_000_000 } as const;

/** Kinds that come in. SVG and GIF are kept as the PNG of what they show: SVG drawn once, of a GIF its first frame. */
const KINDS = { png: 'image/png', jpg: 'image/jpeg', webp: 'image/webp', gif: 'image/png', svg: 'image/png' } as const;

interface KeptPicture {
  readonly content: Buffer;
  readonly type: string;
  readonly width: number;
  readonly height: number;
}

const broken = (): Problem =>
  Problem.ofBody('This file is broken or no picture. PNG, JPEG, WebP, SVG and GIF can come in.');

const tooLarge = (pixels: number): Problem =>
  new Problem(413, `This picture has ${Math.round(pixels / 1e6)} million pixels; 64 million is the most.`);

/** Whether a file goes on to its end: decoders fill what was cut off with nothing and say no word. A PNG is looked at whole when it is decoded. */
function isWhole(content: Buffer, kind: keyof typeof KINDS): boolean {
  switch (kind) {
    case 'png':
      return true;
    case 'jpg':
      // Cameras write what they like behind the end.
      return content.lastIndexOf(Buffer.of(0xff, 0xd9)) > content.length / 2;
    case 'webp':
      return content.length >= 12 && content.readUInt32LE(4) + 8 <= content.length;
    case 'gif':
      return content.lastIndexOf(0x3b) > content.length - 64;
    case 'svg':
      return content.lastIndexOf('>') > 0;
  }
}

/** ms that ffmpeg may look at a JPEG. */
const LOOK_MS = 10_000;

const looking = inLine();

/** Whether all of a JPEG can be decoded: ffmpeg tells of damage that other readers draw over in grey. */
const decodesWhole = (content: Buffer): Promise<boolean> =>
  looking(
    () =>
      new Promise((resolve) => {
        const input = ['-f', 'image2pipe', '-c:v', 'mjpeg', '-err_detect', 'explode', '-i', '-'];
        const look = ['-v', 'error', '-xerror', '-threads', '1', ...input, '-frames:v', '1', '-f', 'null', '-'];
        const ffmpeg = execFile('ffmpeg', look, { timeout: LOOK_MS }, (error, _, said) => {
          resolve(!error && said === '');
        });
        ffmpeg.stdin?.on('error', () => undefined);
        ffmpeg.stdin?.end(content);
      }),
  );

/** Text of two bytes a letter as one that readers of SVG know. */
function asUtf8(content: Buffer): Buffer {
  const mark = content.length > 1 ? content.readUInt16BE(0) : 0;
  if (mark !== 0xfffe && mark !== 0xfeff) return content;
  const text = new TextDecoder(mark === 0xfffe ? 'utf-16le' : 'utf-16be').decode(content);
  const declared = text.startsWith('<?xml') ? Math.max(0, text.indexOf('?>')) : 0;
  return Buffer.from(text.slice(0, declared).replace(/\sencoding=["'][^"']*["']/, '') + text.slice(declared));
}

/**
 * Reads a picture. @throws a problem said to the user when it is broken, of another kind or too large.
 * @param named the file's name, for saying when its content is of another kind.
 */
export async function readPicture(given: Buffer, named: string): Promise<KeptPicture> {
  const content = asUtf8(given);
  if (content.length === 0) throw Problem.ofBody('This file is empty.');
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
    throw Problem.ofBody(
      `${named} is no ${ending.toUpperCase()}: it holds a ${kind.toUpperCase()}. Rename it and try again.`,
    );
  if (found.width * found.height > ASSET_LIMITS.pixels) throw tooLarge(found.width * found.height);
  if (kind === 'jpg' && !(await decodesWhole(content))) throw broken();
  const keeps = KINDS[kind] !== 'image/png' || kind === 'png';
  const answer = await decodePicture({ content, kind, keeps, pixels: ASSET_LIMITS.pixels });
  if (answer === null) throw broken();
  if ('tooLarge' in answer) throw tooLarge(answer.tooLarge);
  if ('tookTooMuch' in answer)
    throw Problem.ofBody(
      `This picture takes too long or too much memory to draw. ${kind === 'svg' || kind === 'gif' ? 'Save it as PNG' : 'Make it smaller'} and bring that in.`,
    );
  const { width, height } = answer;
  if (answer.content === null) return { content, type: KINDS[kind], width, height };
  return { content: Buffer.from(answer.content), type: 'image/png', width, height };
}
