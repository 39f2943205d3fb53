/** What footage is, before any of it is taken apart: judged by its content, never by its name. */
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);

/** Bytes, pixels of a frame and frames at most. */
export const FOOTAGE_LIMITS = { bytes: 2 * 1024 * 1024 * 1024, pixels: 8192 * 8192, frames: 2000 } as const;
/** ms that looking at a file may take. */
const PROBE_MS = 20_000;

/** Containers that are read; a playlist under another name is none, and nothing but the file itself is opened. */
export const SAFELY = [
  '-format_whitelist',
  'mov,matroska,ogg',
  '-protocol_whitelist',
  'file',
  '-max_pixels',
  String(FOOTAGE_LIMITS.pixels),
] as const;

export interface Probed {
  readonly width: number;
  readonly height: number;
  /** Seconds. */
  readonly duration: number;
  /** Frames a second, as it says of itself. */
  readonly rate: number;
  readonly codec: string;
  /** Whether parts of it may be see-through. */
  readonly alpha: boolean;
}

/** What is wrong with footage, said to the user. */
export class NoFootage extends Error {}

const ratio = (text: string | undefined): number => {
  const [over, of = '1'] = (text ?? '').split('/');
  const value = Number(over) / Number(of);
  return Number.isFinite(value) ? value : 0;
};

interface Stream {
  readonly codec_type?: string;
  readonly codec_name?: string;
  readonly width?: number;
  readonly height?: number;
  readonly avg_frame_rate?: string;
  readonly r_frame_rate?: string;
  readonly duration?: string;
  readonly pix_fmt?: string;
  readonly tags?: Readonly<Record<string, string>>;
  readonly side_data_list?: readonly { readonly rotation?: number }[];
}

/** Looks at a file. @throws NoFootage where it is none, or more than is taken. */
export async function probe(path: string): Promise<Probed> {
  let said: { streams?: readonly Stream[]; format?: { duration?: string } };
  try {
    const { stdout } = await run(
      'ffprobe',
      ['-v', 'error', ...SAFELY, '-show_streams', '-show_format', '-of', 'json', path],
      { timeout: PROBE_MS, maxBuffer: 4 * 1024 * 1024 },
    );
    said = JSON.parse(stdout) as typeof said;
  } catch {
    throw new NoFootage('This file is broken or no video. WebM, MP4, MOV and OGV can come in.');
  }
  const video = said.streams?.find(({ codec_type: kind }) => kind === 'video');
  if (!video?.width || !video.height) throw new NoFootage('There is no picture in this file: it holds no video.');
  const rate = ratio(video.avg_frame_rate) || ratio(video.r_frame_rate);
  const duration = Number(video.duration ?? said.format?.duration ?? 0);
  if (!(rate > 0) || !(duration > 0)) throw new NoFootage('This video does not say how long it is: it may be cut off.');
  if (video.width * video.height > FOOTAGE_LIMITS.pixels)
    throw new NoFootage(`This video is ${video.width} by ${video.height} px; 8192 by 8192 is the most.`);
  const isTurned = Math.abs(video.side_data_list?.find(({ rotation }) => rotation)?.rotation ?? 0) % 180 === 90;
  const [width, height] = isTurned ? [video.height, video.width] : [video.width, video.height];
  const alpha =
    video.tags?.['alpha_mode'] === '1' ||
    video.tags?.['ALPHA_MODE'] === '1' ||
    /^(yuva|rgba|argb|bgra|gbrap)/.test(video.pix_fmt ?? '');
  return { width, height, duration, rate, codec: video.codec_name ?? '', alpha };
}
