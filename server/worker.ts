/** A worker program: takes exports from the queue, one at a time. Any number may run. */
import { openDatabase } from './db/database.ts';
import { runExport } from './exports/export-job.ts';
import { EXPORT_QUEUE, openQueue, type ExportJob } from './exports/queue.ts';
import { SavesService } from './shots/saves.service.ts';
import { ShotsService } from './shots/shots.service.ts';

const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is not set; use npm start');
const database = openDatabase(url, 3);
const shots = new ShotsService(database, new SavesService(database));
const queue = await openQueue(url, (error) => {
  console.warn(`worker: ${error.message}`);
});
await queue.work<ExportJob>(EXPORT_QUEUE, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async (jobs) => {
  for (const job of jobs) await runExport(database, shots, job.data.exportId);
});
process.send?.({ ready: true });
process.on('disconnect', () => process.exit(0));
