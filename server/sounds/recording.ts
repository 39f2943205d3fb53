/**
 * What comes in as a sound: judged by its content, decoded from beginning to end, and kept in a form that every browser and
 * every export reads to the same samples: FLAC, 16 bits, 48,000 samples a second, one channel or two.
 */
import { SOUND_LIMITS } from '@tallow/core/document';
import { execFile } from 'node:child_process';
import { open, stat } from 'node:fs/promises';
import { promisify } from 'node:util';

const run = promisify(execFile);

export const SOUND_FILE_LIMITS = { bytes: 200 * 1024 * 1024, said: '200 MB' } as const;
/** ms that looking at a file, and decoding it, may take. */
const PROBE_MS = 20_000;
const DECODE_MS = 120_000;
/** A file that decodes to so much less than it says it holds has been cut off, s. */
const SHORT_S = 0.25;

/** Kinds that come in; a playlist under another name is none, and nothing but the file itself is opened. */
const SAFELY = ['-format_whitelist', 'wav,ogg,mp3,flac', '-protocol_whitelist', 'file'] as const;

/** What is wrong with a sound, said to the user. */
export class NoSound extends Error {}

interface Said {
  readonly streams?: readonly {
    readonly codec_type?: string;
    readonly channels?: number;
    readonly duration?: string;
  }[];
  readonly format?: { readonly duration?: string; readonly format_name?: string };
}

const broken = (): NoSound => new NoSound('This file is broken or no sound. WAV, OGG, MP3 and FLAC can come in.');
const cutOff = (): NoSound => new NoSound('This sound breaks off: the file is not whole. Bring it in again.');

async function probe(path: string, signal: AbortSignal): Promise<Said> {
  try {
    const { stdout } = await run(
      'ffprobe',
      ['-v', 'error', ...SAFELY, '-show_streams', '-show_format', '-of', 'json', path],
      { timeout: PROBE_MS, maxBuffer: 4 * 1024 * 1024, signal },
    );
    return JSON.parse(stdout) as Said;
  } catch (error) {
    if (signal.aborted) throw error;
    throw broken();
  }
}

const inWords = (seconds: number): string => `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;

/** Whether an Ogg file has the page that ends its stream: its decoder says no word where it is cut off. */
async function isEnded(path: string): Promise<boolean> {
  const { size } = await stat(path);
  const length = Math.min(size, 128 * 1024);
  const file = await open(path);
  try {
    const { buffer } = await file.read(Buffer.alloc(length), 0, length, size - length);
    const last = buffer.lastIndexOf('OggS', undefined, 'latin1');
    // The third bit of the page's flags marks the last one (RFC 3533).
    return last >= 0 && (buffer[last + 5]! & 4) !== 0;
  } finally {
    await file.close();
  }
}

/**
 * Reads a sound file and writes what is kept of it.
 * @param signal ends it early. @returns how long it is, s. @throws NoSound where it is broken, cut off, of another kind or too long.
 */
export async function readRecording(path: string, kept: string, signal: AbortSignal): Promise<{ seconds: number }> {
  const said = await probe(path, signal);
  const audio = said.streams?.find(({ codec_type: kind }) => kind === 'audio');
  if (!audio) throw new NoSound('There is no sound in this file.');
  const claimed = Number(audio.duration ?? said.format?.duration ?? 0);
  if (claimed > SOUND_LIMITS.seconds)
    throw new NoSound(
      `This sound lasts ${inWords(claimed)}; ${inWords(SOUND_LIMITS.seconds)} is the most. Cut it first.`,
    );
  const decode = [
    ...['-v', 'error', '-nostdin', '-xerror', ...SAFELY, '-i', path, '-map', '0:a:0'],
    ...['-t', String(SOUND_LIMITS.seconds + 1), '-map_metadata', '-1', '-fflags', '+bitexact'],
    ...['-ac', (audio.channels ?? 2) > 1 ? '2' : '1', '-ar', '48000', '-sample_fmt', 's16', '-f', 'flac', kept],
  ];
  try {
    const { stderr } = await run('ffmpeg', decode, { timeout: DECODE_MS, maxBuffer: 4 * 1024 * 1024, signal });
    if (stderr.trim() !== '') throw broken();
  } catch (error) {
    if (signal.aborted) throw error;
    throw broken();
  }
  const seconds = Number((await probe(kept, signal)).format?.duration ?? 0);
  if (seconds > SOUND_LIMITS.seconds) throw new NoSound(`This sound lasts more than ${inWords(SOUND_LIMITS.seconds)}.`);
  if (!(seconds >= SOUND_LIMITS.shortest)) throw new NoSound('There is no sound in this file.');
  if (seconds < claimed - SHORT_S) throw cutOff();
  if (said.format?.format_name === 'ogg' && !(await isEnded(path))) throw cutOff();
  return { seconds };
}
