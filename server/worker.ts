/** A worker program: takes what is asked for (exports, archives, footage) or the loops of cards from the queue, one of each at a time. Any number may run. */
import { constants, setPriority } from 'node:os';
import { openDatabase } from './db/database.ts';
import { ensureShelf } from './demo.ts';
import { runArchive } from './archive/archive-job.ts';
import { PicturesService } from './cards/pictures.service.ts';
import { runExport } from './exports/export-job.ts';
import { takeApart } from './footage/footage-job.ts';
import {
  ARCHIVE_QUEUE,
  EXPORT_QUEUE,
  FOOTAGE_QUEUE,
  LOOP_QUEUE,
  TIDY_QUEUE,
  openQueue,
  type ArchiveJob,
  type ExportJob,
  type FootageJob,
  type LoopJob,
} from './queue/queue.ts';
import { runLoop, runVersionLoop } from './cards/loop-job.ts';
import { shotServices } from './shots/services.ts';
import { tidy } from './tidy/tidy.ts';
import { VersionsService } from './versions/versions.service.ts';

// Often all runs on the machine that is drawn on: the hand comes first, and what ffmpeg does for it too.
setPriority(process.argv[2] === 'cards' ? constants.priority.PRIORITY_LOW : constants.priority.PRIORITY_BELOW_NORMAL);
// What is written to the home is its owner's alone.
process.umask(0o077);
const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is not set; use npm start');
const database = openDatabase(url, 5);
const { shots, saves } = shotServices(database);
const versions = new VersionsService(database, shots, saves);
const pictures = new PicturesService(shots, database);
const queue = await openQueue(url, (error) => {
  console.warn(`worker: ${error.message}`);
});

const HOUR_MS = 60 * 60 * 1000;
/** The queue remembers what it has done for so long. */
const HALF_DAY_SECONDS = 12 * 60 * 60;

/** What is asked for and waited for never stands behind what Tallow makes by itself: each is a program of its own. */
const WORK = {
  asked: async () => {
    await queue.work<ExportJob>(EXPORT_QUEUE, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async (jobs) => {
      for (const job of jobs) await runExport(database, shots, job.data.exportId);
    });
    await queue.work<ArchiveJob>(ARCHIVE_QUEUE, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async (jobs) => {
      for (const job of jobs) await runArchive(database, pictures, job.data.archiveId);
    });
    await queue.work<FootageJob>(FOOTAGE_QUEUE, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async (jobs) => {
      for (const job of jobs) await takeApart(database, job.data.footageId);
    });
  },
  cards: async () => {
    await queue.work<LoopJob>(LOOP_QUEUE, { pollingIntervalSeconds: 2, batchSize: 1 }, async (jobs) => {
      for (const { data } of jobs)
        if ('versionId' in data) await runVersionLoop(database, (id) => versions.document(id), data.versionId);
        else await runLoop(database, shots, data.shotId);
    });
    await queue.work(TIDY_QUEUE, { pollingIntervalSeconds: 30, batchSize: 1 }, async () => {
      const { bodies, shots, exports, assets } = await tidy(database);
      if (bodies + shots + exports + assets > 0)
        console.log(
          `Tidied: ${bodies} older bodies, ${shots} deleted shots, ${exports} exports, ${assets} pictures and sounds.`,
        );
    });
    // Asked for at every start and every hour; the queue takes one in half a day.
    const ask = (): void => {
      queue
        .send(TIDY_QUEUE, {}, { singletonKey: 'tidy', singletonSeconds: HALF_DAY_SECONDS })
        .catch((error: unknown) => {
          console.warn(`worker: nothing could be tidied: ${error instanceof Error ? error.message : String(error)}`);
        });
    };
    ask();
    setInterval(ask, HOUR_MS).unref();
    // Beside the server, so that nobody waits for it; where it fails it is tried again at the next start.
    ensureShelf(database).catch((error: unknown) => {
      console.warn(`worker: the shelf could not be filled: ${error instanceof Error ? error.message : String(error)}`);
    });
  },
};
const work = process.argv[2] ?? '';
if (work !== 'asked' && work !== 'cards') throw new Error('say which work: asked, or cards');
await WORK[work]();
process.send?.({ ready: true });
process.on('disconnect', () => process.exit(0));
