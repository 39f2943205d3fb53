/** The queue of long work, kept in the database so that any number of workers can share it. */
import PgBoss from 'pg-boss';

export const EXPORT_QUEUE = 'export-frames';
/** Small loops of shots for their cards. */
export const LOOP_QUEUE = 'shot-loops';
/** Footage taken apart into pictures. */
export const FOOTAGE_QUEUE = 'footage';
/** Archives written and read. */
export const ARCHIVE_QUEUE = 'archives';
/** What nobody can need any more goes. */
export const TIDY_QUEUE = 'tidy';
/** Seconds without a sign of life after which a running export is given to another worker. */
export const SILENCE_SECONDS = 20;

export interface ExportJob {
  readonly exportId: string;
}

export interface FootageJob {
  readonly footageId: string;
}

export interface ArchiveJob {
  readonly archiveId: string;
}

/** The loop of a shot as it is, or of a version of one. */
export type LoopJob = { readonly shotId: string } | { readonly versionId: string };

/** Opens the queue. Losing the database is not an error here: the queue finds it again. */
export async function openQueue(url: string, lost: (error: Error) => void): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: url, max: 3 });
  boss.on('error', lost);
  await boss.start();
  await boss.createQueue(EXPORT_QUEUE, { name: EXPORT_QUEUE, retryLimit: 5, retryDelay: 1, expireInSeconds: 60 * 60 });
  for (const name of [FOOTAGE_QUEUE, ARCHIVE_QUEUE])
    await boss.createQueue(name, { name, retryLimit: 3, retryDelay: 1, expireInSeconds: 60 * 60 });
  await boss.createQueue(TIDY_QUEUE, { name: TIDY_QUEUE, retryLimit: 2, expireInSeconds: 60 * 60 });
  // One job for a shot waits at a time: it makes the loop of whatever is newest when it runs.
  await boss.createQueue(LOOP_QUEUE, { name: LOOP_QUEUE, policy: 'short', retryLimit: 2, expireInSeconds: 600 });
  return boss;
}
