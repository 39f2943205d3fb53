/** One export, from its row to its zip file. */
import type { Id } from '@tallow/core/document';
import { shotOf } from '@tallow/core/document';
import type { Knex } from 'knex';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { mkdir, rename, stat, unlink } from 'node:fs/promises';
import { ZipFile } from 'yazl';
import type { ShotsService } from '../shots/shots.service.ts';
import { exportPath, exportsFolder, type ExportRow } from './exports.service.ts';
import { fileStem, frameNumber, pngFrames } from './frames.ts';

/** Whether the row still asks for this work; tells it how far the work is. */
async function tell(database: Knex, id: Id, done: number): Promise<boolean> {
  const still = await database('exports').where({ id, state: 'running' }).update({ done, heard_at: database.fn.now() });
  return still > 0;
}

/**
 * Renders and packs an export. Nothing is left behind when it is stopped; a repeat after a killed
 * worker begins anew and gives the same file.
 */
export async function runExport(database: Knex, shots: ShotsService, id: Id): Promise<void> {
  const claimed = await database<ExportRow>('exports')
    .where({ id })
    .whereIn('state', ['waiting', 'running'])
    .update({ state: 'running' as const, done: 0 });
  const row = await database<ExportRow>('exports').where({ id }).first();
  if (claimed === 0 || !row) return;
  const partial = `${exportPath(id)}.partial`;
  try {
    const { doc } = await shots.document(row.shot_id);
    const shot = shotOf(doc);
    await database('exports').where({ id }).update({ frames: shot.length, heard_at: database.fn.now() });
    await mkdir(exportsFolder(), { recursive: true });
    const zip = new ZipFile();
    const file = createWriteStream(partial);
    const written = once(file, 'close');
    // A full disk ends the waiting below; until then it is nobody's business but this job's.
    written.catch(() => undefined);
    zip.outputStream.pipe(file);
    const stem = fileStem(shot.name);
    let done = 0;
    let told = Date.now();
    for await (const png of pngFrames(doc, row.background)) {
      zip.addBuffer(png, `${stem}/${stem}-${frameNumber(done)}.png`, { compress: false });
      done += 1;
      if (Date.now() - told < 150 && done < shot.length) continue;
      told = Date.now();
      if (!(await tell(database, id, done))) {
        zip.outputStream.unpipe(file);
        file.destroy();
        await unlink(partial).catch(() => undefined);
        return;
      }
    }
    zip.end();
    await written;
    await rename(partial, exportPath(id));
    const { size } = await stat(exportPath(id));
    const finished = await database('exports')
      .where({ id, state: 'running' })
      .update({ state: 'done', done, bytes: size });
    if (finished === 0) await unlink(exportPath(id)).catch(() => undefined);
  } catch (error) {
    await unlink(partial).catch(() => undefined);
    const full = (error as { code?: string }).code === 'ENOSPC';
    const trouble = full
      ? 'The disk is full. Make room and export again.'
      : `The export failed: ${(error as Error).message}`;
    await database('exports').where({ id, state: 'running' }).update({ state: 'failed', trouble });
  }
}
