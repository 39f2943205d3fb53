/** The server program. DATABASE_URL, TALLOW_PORT and TALLOW_HOME come from the start command. */
import { resolve } from 'node:path';
import { createApp } from './app.ts';
import { migrate, NewerDatabase, openDatabase } from './db/database.ts';
import { ensureDemo } from './demo.ts';

// What is written to the home is its owner's alone.
process.umask(0o077);
const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is not set; use npm start');
const port = Number(process.env['TALLOW_PORT'] ?? 4600);
const database = openDatabase(url);
try {
  await migrate(database);
} catch (error) {
  if (!(error instanceof NewerDatabase)) throw error;
  console.error(error.message);
  // EX_CONFIG of sysexits.h: to be started again would be of no use.
  process.exit(78);
}
await ensureDemo(database, process.argv.includes('--fresh-demo'));
const app = await createApp(database, resolve('dist/web'));
await app.listen(port, '127.0.0.1');
process.send?.({ ready: port });

const stop = (): void => {
  void app
    .close()
    .then(() => database.destroy())
    .finally(() => process.exit(0));
};
process.on('disconnect', stop);
