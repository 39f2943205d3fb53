/** The small loop of a shot for its card, made by a worker whenever the shot has changed. */
import { flashesPerSecond, luminance, SAFE_FLASHES } from '@tallow/core/colour';
import type { Id, ShotDocument } from '@tallow/core/document';
import { shotOf } from '@tallow/core/document';
import type { Canvas } from '@napi-rs/canvas';
import { ByteCache, type AssetPicture } from '@tallow/core/render';
import type { Knex } from 'knex';
import { existsSync } from 'node:fs';
import { mkdir, rename, unlink } from 'node:fs/promises';
import { join } from 'node:path';
import { FramePictures, picturesIn } from '../assets/frame-pictures.ts';
import { encodeFrames } from '../render/ffmpeg.ts';
import { FrameDocuments } from '../render/frame-documents.ts';
import { frameDrawer, wholeShot } from '../render/frames.ts';
import type { ShotsService } from '../shots/shots.service.ts';
import { homeFolder } from '../home.ts';
import { notOvertaken, Overtaken } from './overtaken.ts';

const SIZE = { width: 480, height: 270 } as const;
/** Frames per second and frames at most: a card is a glance, not a screening. */
const MAX = { rate: 24, frames: 240 } as const;
/** Cells across and down in which flashing is looked for. */
const CELLS = { across: 16, down: 9 } as const;

const folder = (): string => homeFolder('loops');
export const loopPath = (shotId: Id): string => join(folder(), `${shotId}.webp`);
/** The loop of a named version: what it shows never changes, so it is made once. */
export const versionLoopPath = (versionId: Id): string => join(folder(), `version-${versionId}.webp`);

/** Relative luminance of each cell of a picture. */
function cellsOf(pixels: Uint8ClampedArray, width: number, height: number): Float32Array {
  const sums = new Float32Array(CELLS.across * CELLS.down);
  const counts = new Uint32Array(sums.length);
  for (let y = 0; y < height; y += 3) {
    for (let x = 0; x < width; x += 3) {
      const p = (y * width + x) * 4;
      const alpha = pixels[p + 3]! / 255;
      const cell = Math.floor((y * CELLS.down) / height) * CELLS.across + Math.floor((x * CELLS.across) / width);
      sums[cell]! += alpha * luminance(pixels[p]!, pixels[p + 1]!, pixels[p + 2]!);
      counts[cell]! += 1;
    }
  }
  return sums.map((sum, i) => sum / Math.max(1, counts[i]!));
}

interface Drawn {
  readonly pixels: Uint8ClampedArray;
  readonly cells: Float32Array;
}

/** Bytes of drawn frames kept for when they come round again. */
const KEPT_BYTES = 24 * 1024 * 1024;

/** How the loop is written. */
const WEBP = ['-c:v', 'libwebp_anim', '-q:v', '72', '-compression_level', '3', '-loop', '0', '-f', 'webp'];

/** Draws the loop frame by frame as it is written. @param mayGoOn asked before each; where it throws, the loop is given up. @returns whether it flashes more than is safe to show unasked. */
async function makeLoop(
  outline: ShotDocument,
  frames: FrameDocuments,
  path: string,
  assets: AssetPicture,
  mayGoOn: () => Promise<void>,
): Promise<boolean> {
  const shot = shotOf(outline);
  const step = Math.ceil(shot.rate / MAX.rate);
  const count = Math.min(MAX.frames, Math.ceil(shot.length / step));
  const scale = Math.min(SIZE.width / shot.width, SIZE.height / shot.height);
  const drawer = frameDrawer(outline, { ...wholeShot(outline, true), scale, assets });
  const { width, height } = drawer;
  const known = new ByteCache<Drawn>(KEPT_BYTES);
  const cells: Float32Array[] = [];
  async function* drawnInOrder(): AsyncGenerator<Uint8ClampedArray> {
    for (let i = 0; i < count; i++) {
      await mayGoOn();
      const doc = await frames.at(i * step);
      const key = drawer.keyOf(i * step, doc);
      let drawn = known.get(key);
      if (!drawn) {
        const surface = drawer.draw(i * step, doc);
        const pixels = (surface.picture as Canvas).getContext('2d').getImageData(0, 0, width, height).data;
        drawer.giveBack(surface);
        drawn = { pixels, cells: cellsOf(pixels, width, height) };
        known.set(key, drawn, pixels.length);
      }
      cells.push(drawn.cells);
      yield drawn.pixels;
    }
  }
  const rate = shot.rate / step;
  await encodeFrames(drawnInOrder(), { width, height, rate, pixels: 'rgba' }, [...WEBP, path]);
  return flashesPerSecond(cells, rate) > SAFE_FLASHES;
}

/** Makes the loop of a version, unless it is there. @param document of the version, with all its drawings. */
export async function runVersionLoop(
  database: Knex,
  document: (versionId: Id) => Promise<ShotDocument>,
  versionId: Id,
): Promise<void> {
  const path = versionLoopPath(versionId);
  if (existsSync(path)) return;
  const doc = await document(versionId);
  await mkdir(folder(), { recursive: true });
  try {
    const pictures = new FramePictures(doc, picturesIn(database));
    const frames = new FrameDocuments(doc, () => Promise.resolve([]), pictures);
    await makeLoop(doc, frames, `${path}.partial`, pictures.picture, () => Promise.resolve());
    await rename(`${path}.partial`, path);
  } catch (error) {
    await unlink(`${path}.partial`).catch(() => undefined);
    throw error;
  }
}

/** Makes the loop of a shot as it is now, unless the one that is there is of this revision. */
export async function runLoop(database: Knex, shots: ShotsService, shotId: Id): Promise<void> {
  const kept = await database<{ shot_id: Id; revision: number }>('loops').where({ shot_id: shotId }).first();
  const row = await shots.atOneMoment(shotId, async ({ outline, revision, isDrawn, drawings }) => {
    if (kept?.revision === revision) return null;
    if (!isDrawn) return { shot_id: shotId, revision, flashes: false, made: false };
    const partial = `${loopPath(shotId)}.${revision}.partial`;
    await mkdir(folder(), { recursive: true });
    try {
      const pictures = new FramePictures(outline, picturesIn(database));
      const frames = new FrameDocuments(outline, drawings, pictures);
      const mayGoOn = notOvertaken(database, { id: shotId, revision });
      const flashes = await makeLoop(outline, frames, partial, pictures.picture, mayGoOn);
      await rename(partial, loopPath(shotId));
      return { shot_id: shotId, revision, flashes, made: true };
    } catch (error) {
      await unlink(partial).catch(() => undefined);
      if (error instanceof Overtaken) return null;
      throw error;
    }
  });
  if (row) await database('loops').insert(row).onConflict('shot_id').merge();
}
