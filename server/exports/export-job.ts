/** One export, from its row to its file. */
import {
  deliveredFrames,
  deliveriesOf,
  deliveryName,
  fileStem,
  sequencesOf,
  DEFAULT_EXPORT,
  type ExportSettings,
} from '@tallow/core/formats';
import type { AssetId, Id, ShotDocument } from '@tallow/core/document';
import { shotOf } from '@tallow/core/document';
import type { Knex } from 'knex';
import { mkdir, rename, stat, unlink } from 'node:fs/promises';
import { whyLater } from '../db/database.ts';
import type { ShotsService } from '../shots/shots.service.ts';
import { exportPath, exportsFolder, type ExportRow } from './exports.service.ts';
import { recordingOf } from '../assets/assets.service.ts';
import { FramePictures, picturesIn } from '../assets/frame-pictures.ts';
import { FrameDocuments } from '../render/frame-documents.ts';
import { dropCopy } from './drop-folder.ts';
import { WRITERS } from './formats/index.ts';
import { packTogether, type Delivered } from './together.ts';
import { staysAlive, teller } from '../queue/telling.ts';

/** Frames to be rendered, over all sequences. @throws where the shot has none of them. */
function framesOf(outline: ShotDocument, settings: ExportSettings): number {
  const { length, rate } = shotOf(outline);
  if (settings.to > length)
    throw new Error(`the shot is ${length} frames long by now, and frame ${settings.to} was asked for`);
  const sequences = sequencesOf(outline, settings).length;
  if (sequences === 0) throw new Error('there is no visible layer to take away');
  return deliveredFrames(settings, rate).length * sequences;
}

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
  const row = { ...found, settings: { ...DEFAULT_EXPORT, ...found.settings } };
  const partial = `${exportPath(id)}.partial`;
  const tell = teller(database, 'exports', id);
  const endSigns = staysAlive(database, 'exports', id);
  try {
    // What is drawn while it is written is not in it.
    const frames = await shots.atOneMoment(row.shot_id, async ({ outline, drawings }) => {
      const deliveries = deliveriesOf(row.settings);
      const counts = deliveries.map((each) => framesOf(outline, each));
      const count = counts.reduce((sum, each) => sum + each, 0);
      await database('exports').where({ id }).update({ frames: count, heard_at: database.fn.now() });
      await mkdir(exportsFolder(), { recursive: true });
      const pictures = new FramePictures(outline, picturesIn(database));
      const documents = new FrameDocuments(outline, drawings, pictures);
      const recording = (asset: AssetId) => recordingOf(database, asset);
      const parts: Delivered[] = [];
      let before = 0;
      try {
        for (const [i, settings] of deliveries.entries()) {
          const path = deliveries.length === 1 ? partial : `${partial}.${i}`;
          const isLast = i === deliveries.length - 1;
          const whole = await WRITERS[settings.format]({
            outline,
            documents,
            settings,
            frames: counts[i]!,
            path,
            tell: (done, over = false) => tell(before + done, over && isLast),
            assets: pictures.picture,
            recording,
          });
          if (!whole) return null;
          before += counts[i]!;
          parts.push({ path, settings, name: deliveryName(settings, i) });
        }
        if (parts.length > 1) await packTogether(parts, fileStem(shotOf(outline).name), partial);
      } finally {
        if (deliveries.length > 1) await Promise.all(parts.map(({ path }) => unlink(path).catch(() => undefined)));
      }
      return count;
    });
    if (frames === null) {
      await unlink(partial).catch(() => undefined);
      return;
    }
    await rename(partial, exportPath(id));
    const { size } = await stat(exportPath(id));
    const finished = await database('exports')
      .where({ id, state: 'running' })
      .update({ state: 'done', done: frames, bytes: size, trouble: await dropped(id, row.file_name) });
    if (finished === 0) await unlink(exportPath(id)).catch(() => undefined);
  } catch (error) {
    await unlink(partial).catch(() => undefined);
    await setBack(database, row, error);
  } finally {
    endSigns();
  }
}

/** Puts a copy into the drop folder. @returns why there is none though one is asked for, or null. */
async function dropped(id: Id, name: string): Promise<string | null> {
  try {
    await dropCopy(exportPath(id), name);
    return null;
  } catch (error) {
    return `It could not be put into the drop folder: ${(error as Error).message}`;
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
