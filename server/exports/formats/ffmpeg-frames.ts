/** Frames as files of a format that ffmpeg writes; frames that show the same are encoded once. */
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { encodeFrames, type RawFrames } from '../../render/ffmpeg.ts';
import { frameDrawer } from '../../render/frames.ts';
import { rawFrames, type Pixels, type Told } from '../../render/raw-frames.ts';
import { shotOf } from '@tallow/core/document';
import type { Came, EncodeSequence, ToEncode } from './frames-zip.ts';

export interface FfmpegFrames {
  /** ffmpeg's arguments for the encoder. */
  readonly encoder: readonly string[];
  readonly ending: string;
  /** How pixels are written, and handed over. */
  readonly told: (sequence: ToEncode) => Told;
  readonly pixels?: RawFrames['pixels'];
  /** What is handed over for a frame; its pixels as they are unless it is said otherwise. */
  readonly bytesOf?: (pixels: Pixels) => Uint8Array | Uint8ClampedArray;
}

/** Frames are encoded while they are drawn; their files come when the last of them is there. */
export const ffmpegFrames = ({ encoder, ending, told, pixels = 'rgba', bytesOf }: FfmpegFrames): EncodeSequence =>
  async function* (sequence): AsyncGenerator<Came> {
    const { writing, range, crop, folder } = sequence;
    const { outline, documents } = writing;
    const { width, height } = crop ?? frameDrawer(outline, range);
    const nthOf = new Map<string, number>();
    const order: number[] = [];
    const came: Came[] = [];
    let wake = (): void => undefined;
    async function* different(): AsyncGenerator<Uint8Array | Uint8ClampedArray> {
      for await (const frame of rawFrames(outline, range, documents, told(sequence), crop)) {
        const known = nthOf.get(frame.key);
        const nth = known ?? nthOf.size;
        nthOf.set(frame.key, nth);
        order.push(nth);
        came.push({ drawn: 1, files: [] });
        wake();
        if (known !== undefined) continue;
        const drawn = frame.pixels();
        yield bytesOf ? bytesOf(drawn) : drawn;
      }
    }
    let isDone = false;
    const stream = { width, height, rate: shotOf(outline).rate, pixels };
    const encoded = encodeFrames(different(), stream, [...encoder, join(folder, `%08d.${ending}`)]).finally(() => {
      isDone = true;
      wake();
    });
    // What fails is reported where it is awaited.
    encoded.catch(() => undefined);
    while (!isDone || came.length > 0) {
      const next = came.shift();
      if (next) yield next;
      else if (!isDone)
        await new Promise<void>((resolve) => {
          wake = resolve;
        });
    }
    await encoded;
    const files = (await readdir(folder)).sort().map((name) => join(folder, name));
    yield { drawn: 0, files: order.map((nth) => files[nth]!) };
  };
