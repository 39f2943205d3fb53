/** Assets of an archive: their bytes have to be what they are named after, and a picture or a sound that can be drawn or heard. */
import type { ArchivedAsset } from '@tallow/core/formats';
import { createHash } from 'node:crypto';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPicture } from '../assets/picture.ts';
import { Problem } from '../http/problem.ts';
import { NoSound, readRecording } from '../sounds/recording.ts';
import { BadArchive } from './zip-reader.ts';

/** How much what is measured of a sound may differ from what was said of it, s. */
const NEAR_S = 0.1;

async function secondsOf(content: Buffer): Promise<number> {
  const folder = await mkdtemp(join(tmpdir(), 'tallow-archive-'));
  try {
    const file = join(folder, 'sound');
    await writeFile(file, content);
    return (await readRecording(file, join(folder, 'decoded.flac'), new AbortController().signal)).seconds;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** @param name of its entry. @throws BadArchive */
export async function checkAsset(content: Buffer, told: ArchivedAsset, name: string): Promise<void> {
  const bad = (what: string): BadArchive => new BadArchive(`${name} ${what}.`);
  if (createHash('sha256').update(content).digest('hex') !== told.sha256) throw bad('is not what it is named after');
  try {
    if (told.type === 'audio/flac') {
      const seconds = await secondsOf(content);
      if (told.seconds === null || Math.abs(seconds - told.seconds) > NEAR_S) throw bad('is of another length');
      return;
    }
    const picture = await readPicture(content, '');
    const { type, width, height } = picture;
    if (type !== told.type || width !== told.width || height !== told.height || picture.content !== content)
      throw bad('is another picture than is said of it');
  } catch (error) {
    if (error instanceof Problem || error instanceof NoSound) throw bad(`is no asset: ${error.message}`);
    throw error;
  }
}
