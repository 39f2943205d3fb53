/** Taking footage apart: all its pictures, or none. */
import { loadImage } from '@napi-rs/canvas';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, unlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { footagePath, type FootageRow } from './footage.service.ts';
import { FOOTAGE_LIMITS, NoFootage, probe } from './probe.ts';
import { pictures } from './pictures.ts';

/** Pictures between two signs of life. */
const TELL_EVERY = 8;
/** Rates a shot can have. */
const RATES = { min: 1, max: 120 } as const;

const rounded = (rate: number): string => String(Math.round(rate * 100) / 100);

/** Which frame of the footage comes from where, in words. */
function toldOf(own: number, rate: number): string {
  if (Math.abs(own - rate) < 0.01) return `each of its frames, ${rounded(rate)} a second`;
  return `${rounded(own)} frames a second shown at ${rate}: each frame is the one nearest in time`;
}

/** Takes footage apart that was handed in. What has been stopped, or is done, is left alone. */
export async function takeApart(database: Knex, footageId: string): Promise<void> {
  const rows = () => database<FootageRow>('footage').where({ id: footageId });
  const [row] = await rows()
    .whereIn('state', ['waiting', 'running'])
    .update({ state: 'running', heard_at: database.fn.now() as never })
    .returning('*');
  if (!row) return;
  const path = footagePath(footageId);
  const folder = await mkdtemp(join(tmpdir(), 'tallow-footage-'));
  try {
    const found = await probe(path);
    const rate = row.rate ?? Math.min(RATES.max, Math.max(RATES.min, Math.round(found.rate)));
    const expected = Math.max(1, Math.round(found.duration * rate));
    if (expected > FOOTAGE_LIMITS.frames)
      throw new NoFootage(
        `This video has ${expected} frames at ${rate} a second; ${FOOTAGE_LIMITS.frames} is the most. Cut it first.`,
      );
    await rows().update({
      frames: expected,
      width: found.width,
      height: found.height,
      rate,
      told: toldOf(found.rate, rate),
    });
    const names: string[] = [];
    for await (const picture of pictures(path, found, rate, FOOTAGE_LIMITS.frames)) {
      await writeFile(join(folder, String(names.length)), picture);
      names.push(createHash('sha256').update(picture).digest('hex'));
      if (names.length % TELL_EVERY !== 0) continue;
      const [now] = await rows()
        .update({ done: names.length, heard_at: database.fn.now() as never })
        .returning('state');
      // It was stopped meanwhile.
      if (now?.state !== 'running') return;
    }
    if (names.length === 0) throw new NoFootage('There is no picture in this video.');
    const size = await sizeOf(join(folder, '0'));
    const type = found.alpha ? 'image/png' : 'image/jpeg';
    await database.transaction(async (change) => {
      for (const [i, sha256] of names.entries())
        await change('assets')
          .insert({ sha256, type, ...size, content: await readFile(join(folder, String(i))) })
          .onConflict('sha256')
          .ignore();
      await change<FootageRow>('footage')
        .where({ id: footageId, state: 'running' })
        .update({
          state: 'done',
          done: names.length,
          frames: names.length,
          ...size,
          assets: JSON.stringify(names) as never,
        });
    });
    await unlink(path).catch(() => undefined);
  } catch (error) {
    if (!(error instanceof NoFootage)) throw error;
    await rows().whereIn('state', ['waiting', 'running']).update({ state: 'failed', trouble: error.message });
    await unlink(path).catch(() => undefined);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The size a picture has once it is decoded: turned as the video says. */
async function sizeOf(path: string): Promise<{ width: number; height: number }> {
  const { width, height } = await loadImage(path);
  return { width, height };
}
