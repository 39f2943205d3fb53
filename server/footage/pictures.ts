/** Footage as pictures at a rate: ffmpeg decodes, what it writes is cut into whole pictures as they come. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { NoFootage, SAFELY, type Probed } from './probe.ts';

/** ffmpeg's own words for the two decoders that read the see-through part of their videos. */
const SEES_ALPHA: Readonly<Record<string, string>> = { vp9: 'libvpx-vp9', vp8: 'libvpx' };

const PNG_END = Buffer.from('IEND', 'latin1');

/** The end of the first whole picture in what has come, or -1. Between a JPEG's marks the two bytes of its end cannot stand. */
function endOf(bytes: Buffer, isPng: boolean): number {
  if (isPng) {
    const at = bytes.indexOf(PNG_END);
    // After the word comes its check sum.
    return at < 0 || bytes.length < at + 8 ? -1 : at + 8;
  }
  const at = bytes.indexOf(Buffer.of(0xff, 0xd9));
  return at < 0 ? -1 : at + 2;
}

/**
 * Decodes a file at a rate, each picture as JPEG, or PNG where parts may be see-through. A frame is the one of the video
 * nearest to it in time.
 * @throws NoFootage where the file breaks off or cannot be decoded.
 */
export async function* pictures(
  path: string,
  { codec, alpha }: Probed,
  rate: number,
  max: number,
): AsyncGenerator<Buffer> {
  const reader = alpha ? SEES_ALPHA[codec] : undefined;
  const encode = alpha ? ['-c:v', 'png', '-pix_fmt', 'rgba'] : ['-c:v', 'mjpeg', '-q:v', '2', '-pix_fmt', 'yuvj444p'];
  const ffmpeg = spawn(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', '-xerror', ...SAFELY],
      ...(reader ? ['-c:v', reader] : []),
      ...['-i', path, '-an', '-sn', '-vf', `fps=${rate}:round=near`, '-frames:v', String(max)],
      ...['-f', 'image2pipe', ...encode, 'pipe:1'],
    ],
    { stdio: ['ignore', 'pipe', 'pipe'] },
  );
  let said = '';
  ffmpeg.stderr.on('data', (data: Buffer) => (said = (said + data.toString()).slice(-2000)));
  const closed = once(ffmpeg, 'close') as Promise<[number | null]>;
  try {
    let rest = Buffer.alloc(0);
    for await (const data of ffmpeg.stdout as AsyncIterable<Buffer>) {
      rest = Buffer.concat([rest, data]);
      for (let end = endOf(rest, alpha); end > 0; end = endOf(rest, alpha)) {
        yield Buffer.from(rest.subarray(0, end));
        rest = rest.subarray(end);
      }
    }
    const [code] = await closed;
    if (code !== 0 || said.trim() !== '') throw new NoFootage('This video is broken: not all of it can be decoded.');
  } finally {
    if (ffmpeg.exitCode === null) ffmpeg.kill('SIGKILL');
  }
}
