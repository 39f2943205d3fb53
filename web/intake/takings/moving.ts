/** Animated GIF, APNG and WebP as plates that move: decoded by the browser, each different frame sent once. */
import { PLATE_FRAMES, shotOf } from '@tallow/core/document';
import { layFootage, sent, type Brought } from '../../references/references.ts';
import { say, useDocument } from '../../shot/document.ts';
import { called, endingOf, fileHolds, stemOf, type Taking } from '../taking.ts';

const TYPES: Readonly<Record<string, string>> = {
  gif: 'image/gif',
  png: 'image/png',
  apng: 'image/png',
  webp: 'image/webp',
};
/** What the first bytes of one that moves hold. */
const MOVES: Readonly<Record<string, string>> = { gif: 'NETSCAPE', png: 'acTL', apng: 'acTL', webp: 'ANIM' };
/** s a frame lasts that says it lasts none, as browsers have it. */
const DEFAULT = 0.1;

interface Shown {
  readonly asset: Brought;
  /** s. */
  readonly lasts: number;
}

/** Which of some frames is seen at each frame of the shot. @param rate frames a second. */
export function framesAt(lasting: readonly number[], rate: number): number[] {
  const all = lasting.reduce((sum, each) => sum + each, 0);
  const count = Math.max(1, Math.round(all * rate));
  let [at, until] = [0, lasting[0] ?? 0];
  return Array.from({ length: count }, (_, frame) => {
    // Told in the middle of a frame: both ends belong to neighbours.
    const time = Math.min((frame + 0.5) / rate, all - 1e-9);
    while (time >= until && at < lasting.length - 1) until += lasting[++at]!;
    return at;
  });
}

async function decoded(file: File, signal: AbortSignal, tell: (done: number, of: number) => void): Promise<Shown[]> {
  if (!('ImageDecoder' in window))
    throw new Error('This browser cannot take moving pictures apart. Bring it in as a video, or as numbered pictures.');
  const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type: TYPES[endingOf(file)]! });
  try {
    await decoder.tracks.ready;
    await decoder.completed;
    const count = decoder.tracks.selectedTrack?.frameCount ?? 1;
    if (count > PLATE_FRAMES) throw new Error(`${file.name} has ${count} frames; ${PLATE_FRAMES} is the most.`);
    const shown: Shown[] = [];
    for (let frameIndex = 0; frameIndex < count; frameIndex++) {
      signal.throwIfAborted();
      const { image } = await decoder.decode({ frameIndex });
      const canvas = new OffscreenCanvas(image.displayWidth, image.displayHeight);
      canvas.getContext('2d')!.drawImage(image, 0, 0);
      const lasts = (image.duration ?? 0) / 1e6 || DEFAULT;
      image.close();
      const png = new File([await canvas.convertToBlob({ type: 'image/png' })], `${frameIndex}.png`);
      shown.push({ asset: await sent(png, signal), lasts });
      tell(shown.length, count);
    }
    return shown;
  } catch (error) {
    if (signal.aborted || (error instanceof Error && error.message.startsWith(file.name))) throw error;
    if (error instanceof DOMException) throw new Error(`${file.name} is broken: it cannot be taken apart.`);
    throw error;
  } finally {
    decoder.close();
  }
}

export const moving: Taking = {
  label: 'A plate that moves',
  says: 'Its frames, at the rate of the shot.',
  fits: async (files) =>
    files.length === 1 &&
    called(files, ...Object.keys(MOVES)) &&
    (await fileHolds(files[0], MOVES[endingOf(files[0])]!)),
  bring: async ([file], signal, tell) => {
    const { doc } = useDocument.getState();
    if (!doc) return;
    const shown = await decoded(file, signal, tell);
    const { rate } = shotOf(doc);
    const frames = framesAt(
      shown.map(({ lasts }) => lasts),
      rate,
    ).slice(0, PLATE_FRAMES);
    const { width, height } = shown[0]!.asset;
    layFootage({ assets: frames.map((at) => shown[at]!.asset.sha256), width, height }, stemOf(file, 'Loop'));
    say(`${shown.length} pictures came in, seen on ${frames.length} frames at ${rate} a second.`);
  },
};
