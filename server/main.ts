/** The server program. DATABASE_URL, TALLOW_PORT and TALLOW_HOME come from the start command. */
import { resolve } from 'node:path';
import { createApp } from './app.ts';
import { migrate, openDatabase } from './db/database.ts';
import { ensureDemo } from './demo.ts';

const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is not set; use npm start');
const port = Number(process.env['TALLOW_PORT'] ?? 4600);
const database = openDatabase(url);
await migrate(database);
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
