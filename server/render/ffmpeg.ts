/** Frames handed to ffmpeg as raw pixels, in order; what it makes of them is said by its own arguments. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';

/** The arguments by which ffmpeg reads raw frames. */
export interface RawFrames {
  readonly width: number;
  readonly height: number;
  /** Frames a second. */
  readonly rate: number;
  /** Four bytes a pixel, or four times 16 bits; or the planes green, blue, red, alpha of 32-bit floats. */
  readonly pixels: 'rgba' | 'rgba64le' | 'gbrapf32le';
}

/** Frames that ffmpeg takes in while it encodes others: meanwhile the next are drawn. */
const AHEAD = 4;

/**
 * Encodes frames.
 * @param output arguments after the frames: more inputs, encoders, and where it goes.
 * @throws what ffmpeg said, when it fails.
 */
export async function encodeFrames(
  frames: AsyncIterable<Uint8Array | Uint8ClampedArray>,
  { width, height, rate, pixels }: RawFrames,
  output: readonly string[],
): Promise<void> {
  const raw = ['-f', 'rawvideo', '-pix_fmt', pixels, '-s', `${width}x${height}`, '-r', String(rate)];
  const input = ['-thread_queue_size', String(AHEAD), ...raw, '-i', '-'];
  const ffmpeg = spawn('ffmpeg', ['-v', 'error', '-y', ...input, ...output], { stdio: ['pipe', 'ignore', 'pipe'] });
  let said = '';
  ffmpeg.stderr.on('data', (data: Buffer) => (said = (said + data.toString()).slice(-2000)));
  ffmpeg.stdin.on('error', () => undefined);
  const closed = once(ffmpeg, 'close') as Promise<[number | null]>;
  try {
    for await (const frame of frames)
      if (!ffmpeg.stdin.write(frame)) await Promise.race([once(ffmpeg.stdin, 'drain'), closed]);
    ffmpeg.stdin.end();
    const [code] = await closed;
    if (code !== 0) throw new Error(`ffmpeg failed: ${said.trim().slice(0, 300)}`);
  } finally {
    if (ffmpeg.exitCode === null) ffmpeg.kill('SIGKILL');
  }
}
