/** The queue of long work, kept in the database so that any number of workers can share it. */
import PgBoss from 'pg-boss';

export const EXPORT_QUEUE = 'export-frames';
/** Seconds without a sign of life after which a running export is given to another worker. */
export const SILENCE_SECONDS = 20;

export interface ExportJob {
  readonly exportId: string;
}

/** Opens the queue. Losing the database is not an error here: the queue finds it again. */
export async function openQueue(url: string, lost: (error: Error) => void): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: url, max: 3 });
  boss.on('error', lost);
  await boss.start();
  await boss.createQueue(EXPORT_QUEUE, { name: EXPORT_QUEUE, retryLimit: 5, retryDelay: 1, expireInSeconds: 60 * 60 });
  return boss;
}
