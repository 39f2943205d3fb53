/** One export, from its row to its file. */
import { sequencesOf, takenFrames, USUAL_EXPORT } from '@tallow/core/formats';
import type { AssetId, Id } from '@tallow/core/document';
import { shotOf } from '@tallow/core/document';
import type { Knex } from 'knex';
import { mkdir, rename, stat, unlink } from 'node:fs/promises';
import { whyLater } from '../db/database.ts';
import type { ShotsService } from '../shots/shots.service.ts';
import { exportPath, exportsFolder, type ExportRow } from './exports.service.ts';
import { assetPictures, recordingOf } from '../assets/assets.service.ts';
import { FrameDocuments } from '../render/frame-documents.ts';
import { WRITERS } from './formats/index.ts';
import { staysAlive, teller } from '../queue/telling.ts';

/**
 * Renders and packs an export. Nothing is left behind when it is stopped; a repeat after a killed
 * worker begins anew and gives the same file.
 */
export async function runExport(database: Knex, shots: Pick<ShotsService, 'atOneMoment'>, id: Id): Promise<void> {
  const claimed = await database<ExportRow>('exports')
    .where({ id })
    // One that runs and has fallen silent is set waiting again first, so that no two workers write one file.
    .where({ state: 'waiting' })
    .update({ state: 'running' as const, done: 0, trouble: null, try_at: null, heard_at: new Date() });
  const found = await database<ExportRow>('exports').where({ id }).first();
  if (claimed === 0 || !found) return;
  // One that was asked for by an older page says less.
  const row = { ...found, settings: { ...USUAL_EXPORT, ...found.settings } };
  const partial = `${exportPath(id)}.partial`;
  const tell = teller(database, 'exports', id);
  const endSigns = staysAlive(database, 'exports', id);
  try {
    // What is drawn while it is written is not in it.
    const frames = await shots.atOneMoment(row.shot_id, async ({ outline, drawings }) => {
      const { length } = shotOf(outline);
      if (row.settings.to > length)
        throw new Error(`the shot is ${length} frames long by now, and frame ${row.settings.to} was asked for`);
      const sequences = sequencesOf(outline, row.settings).length;
      if (sequences === 0) throw new Error('there is no visible layer to take away');
      const taken = takenFrames(row.settings);
      const count = (taken.to - taken.from) * sequences;
      await database('exports').where({ id }).update({ frames: count, heard_at: database.fn.now() });
      await mkdir(exportsFolder(), { recursive: true });
      const assets = await assetPictures(database, outline, taken.from, taken.to);
      const documents = new FrameDocuments(outline, drawings);
      const recording = (asset: AssetId) => recordingOf(database, asset);
      const shot = {
        outline,
        documents,
        settings: row.settings,
        frames: count,
        path: partial,
        tell,
        assets,
        recording,
      };
      return (await WRITERS[row.settings.format](shot)) ? count : null;
    });
    if (frames === null) {
      await unlink(partial).catch(() => undefined);
      return;
    }
    await rename(partial, exportPath(id));
    const { size } = await stat(exportPath(id));
    const finished = await database('exports')
      .where({ id, state: 'running' })
      .update({ state: 'done', done: frames, bytes: size });
    if (finished === 0) await unlink(exportPath(id)).catch(() => undefined);
  } catch (error) {
    await unlink(partial).catch(() => undefined);
    await setBack(database, row, error);
  } finally {
    endSigns();
  }
}

/** Seconds until an export is tried again: growing, a minute at most. */
const secondsAfter = (tries: number): number => Math.min(60, 2 ** tries);

/** Notes why an export has not come about: it is tried again by itself where that passes, else it has failed. */
async function setBack(database: Knex, { id, tries }: ExportRow, error: unknown): Promise<void> {
  const later = whyLater(error);
  const running = database('exports').where({ id, state: 'running' });
  if (later === null) {
    await running.update({ state: 'failed', trouble: `The export failed: ${(error as Error).message}` });
    return;
  }
  const seconds = secondsAfter(tries);
  // Where not even this can be noted, its silence is noticed.
  await running
    .update({
      state: 'waiting',
      done: 0,
      tries: tries + 1,
      try_at: database.raw(`now() + interval '${seconds} seconds'`),
      trouble: `${later}. It is tried again by itself.`,
    })
    .catch(() => undefined);
}
