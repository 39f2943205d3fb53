/** One archive, from its row to its file, or from its file to what it holds. */
import type { Id } from '@tallow/core/document';
import type { Knex } from 'knex';
import { mkdir, rename, stat, unlink } from 'node:fs/promises';
import type { PicturesService } from '../cards/pictures.service.ts';
import { whyLater } from '../db/database.ts';
import { staysAlive, Stopped, teller } from '../queue/telling.ts';
import { archiveFile, archivesFolder, type ArchiveRow } from './archives.service.ts';
import { ArchiveKeeper } from './keep-archive.ts';
import { writeArchive } from './write-archive.ts';
import { BadArchive, ZipReader } from './zip-reader.ts';

type Work = (row: ArchiveRow, database: Knex, pictures: PicturesService) => Promise<void>;

const begun = (database: Knex, id: Id) => (total: number) => database('archives').where({ id }).update({ total });

const write: Work = async ({ id, scope, of }, database, pictures) => {
  const [path, partial] = [archiveFile(id), `${archiveFile(id)}.partial`];
  await mkdir(archivesFolder(), { recursive: true });
  try {
    const isWhole = await writeArchive(database, { scope, of }, partial, {
      tell: teller(database, 'archives', id),
      begun: begun(database, id),
      preview: (shotId) => pictures.ofShot(shotId),
    });
    if (!isWhole) return;
    await rename(partial, path);
    const { size } = await stat(path);
    const told = await database('archives').where({ id, state: 'running' }).update({ state: 'done', bytes: size });
    if (told === 0) await unlink(path).catch(() => undefined);
  } finally {
    await unlink(partial).catch(() => undefined);
  }
};

const read: Work = async ({ id }, database) => {
  const path = archiveFile(id);
  const zip = await ZipReader.open(path);
  try {
    await database.transaction(async (tx) => {
      const keeper = new ArchiveKeeper(tx, zip, teller(database, 'archives', id));
      const shots = await keeper.keep(begun(database, id));
      const told = await tx('archives')
        .where({ id, state: 'running' })
        .update({ state: 'done', done: tx.ref('total'), told: JSON.stringify({ shots }) });
      if (told === 0) throw new Stopped();
    });
  } catch (error) {
    if (!(error instanceof Stopped)) throw error;
  } finally {
    zip.close();
  }
  await unlink(path).catch(() => undefined);
};

const WORK = { out: write, in: read } as const;

/** Writes or reads an archive. A repeat after a killed worker begins anew; what is done or stopped is left alone. */
export async function runArchive(database: Knex, pictures: PicturesService, archiveId: Id): Promise<void> {
  const rows = () => database<ArchiveRow>('archives').where({ id: archiveId });
  const claimed = await rows()
    .where({ state: 'waiting' })
    .update({ state: 'running' as const, done: 0, trouble: null, heard_at: new Date() });
  const row = await rows().first();
  if (claimed === 0 || !row) return;
  const endSigns = staysAlive(database, 'archives', archiveId);
  try {
    await WORK[row.direction](row, database, pictures);
  } catch (error) {
    const later = whyLater(error);
    const running = rows().where({ state: 'running' });
    if (later !== null) {
      // It is handed in again once it has been silent for a while.
      await running
        .update({ state: 'waiting', trouble: `${later}. It is tried again by itself.` })
        .catch(() => undefined);
      return;
    }
    if (!(error instanceof BadArchive)) console.warn(`worker: an archive failed: ${String(error)}`);
    const trouble =
      error instanceof BadArchive
        ? error.message
        : 'The archive failed at something unforeseen. Try it again; what happened is in the output of the worker.';
    await running.update({
      state: 'failed',
      trouble: `${trouble}${row.direction === 'in' ? ' Nothing was changed.' : ''}`,
    });
    await unlink(archiveFile(archiveId)).catch(() => undefined);
  } finally {
    endSigns();
  }
}
