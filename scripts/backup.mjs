/** `npm run backup [-- FILE]`: everything, to a file with its folder of pictures beside it; Tallow may go on running. */
import { resolve } from 'node:path';
import { backupFile, backupNow, ownDatabaseOnly } from './backups.mjs';
import { ensureBuilt } from './build.mjs';
import { findCluster, startCluster } from './database.mjs';
import { homeOf, isFilled } from './home.mjs';
import { ensurePackages, ensurePrograms } from './system.mjs';

ownDatabaseOnly('backed up');
const home = homeOf();
if (!isFilled(home)) {
  console.error(`There is nothing in ${home} yet.`);
  process.exit(1);
}
ensurePrograms();
ensurePackages();
ensureBuilt();
const file = process.argv[2] ? resolve(process.argv[2]) : backupFile(home, 'asked');
const running = findCluster(home);
const cluster = running ?? (await startCluster(home));
const { isDone } = backupNow(cluster, ['write', file]);
if (!running) await cluster.stop();
process.exit(isDone ? 0 : 1);
