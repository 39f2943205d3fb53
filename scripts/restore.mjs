/** `npm run restore -- FILE [--yes]`: a backup in the place of what is there, which is backed up itself first. */
import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { backupFile, backupNow, ownDatabaseOnly } from './backups.mjs';
import { ensureBuilt } from './build.mjs';
import { startCluster } from './database.mjs';
import { homeOf, isFilled } from './home.mjs';
import { ensurePackages, ensurePrograms } from './system.mjs';

async function main() {
  const [name] = process.argv.slice(2).filter((word) => !word.startsWith('--'));
  if (!name) throw new Error('Say which backup: npm run restore -- FILE');
  const file = resolve(name);
  ownDatabaseOnly('restored');
  const home = homeOf();
  ensurePrograms();
  ensurePackages();
  ensureBuilt();
  const isFresh = !isFilled(home);
  mkdirSync(home, { recursive: true, mode: 0o700 });
  const cluster = await startCluster(home);
  try {
    const { isDone, said } = backupNow(cluster, ['look', file], true);
    if (!isDone) throw new Error('Nothing was changed.');
    console.log(`${file} holds ${said}.`);
    if (!isFresh) {
      if (!process.argv.includes('--yes')) {
        if (!process.stdin.isTTY) throw new Error(`It would replace all that is in ${home}. Say so with --yes.`);
        const asking = createInterface({ input: process.stdin, output: process.stdout });
        const answer = await asking.question(`It replaces all that is in ${home}. Type "replace" to go on: `);
        asking.close();
        if (answer.trim() !== 'replace') throw new Error('Nothing was changed.');
      }
      const before = backupFile(home, 'before-restore');
      console.log('What is there now is backed up first …');
      if (!backupNow(cluster, ['write', before]).isDone) throw new Error('Nothing was changed.');
    }
    if (!backupNow(cluster, ['restore', file]).isDone) throw new Error('Nothing was changed.');
  } finally {
    await cluster.stop();
  }
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
