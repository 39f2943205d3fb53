/**
 * The program for backups; the scripts say where the database is and who may make others beside it.
 * `write FILE`, `restore FILE`, `look FILE`, `daily FOLDER` and `before-upgrade FOLDER`.
 */
import { join } from 'node:path';
import { constants, setPriority } from 'node:os';
import { isDue, isUpgrade, ownName, thinBackups } from './backup/own-backups.ts';
import { readBackup, restoreBackup } from './backup/restore-backup.ts';
import { liesWithin, type BackupPlace } from './backup/place.ts';
import type { Manifest } from './backup/manifest.ts';
import { writeBackup } from './backup/write-backup.ts';

// What is written to the home is its owner's alone.
process.umask(0o077);

function told(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; use npm run backup or npm run restore`);
  return value;
}

const place: BackupPlace = {
  url: told('DATABASE_URL'),
  adminUrl: told('TALLOW_ADMIN_URL'),
  bin: told('TALLOW_POSTGRES'),
};

const inWords = ({ tables, assets, madeAt }: Manifest): string =>
  `${tables['shots']?.rows ?? 0} shots, ${tables['entities']?.rows ?? 0} things in them, ${assets.length} pictures and sounds, as of ${madeAt}`;

async function own(folder: string): Promise<void> {
  const file = join(folder, ownName(new Date()));
  await writeBackup(place, file);
  await thinBackups(folder);
}

const WORK: Readonly<Record<string, (path: string) => Promise<void>>> = {
  write: async (file) => {
    console.log(`${file}: ${inWords(await writeBackup(place, file))}. Read back and compared.`);
  },
  look: async (file) => {
    console.log(inWords(await readBackup(file)));
  },
  restore: async (file) => {
    console.log(`Restored: ${inWords(await restoreBackup(place, file))}.`);
  },
  daily: async (folder) => {
    // The hand comes first.
    setPriority(constants.priority.PRIORITY_LOW);
    if (await isDue(folder, new Date())) await own(folder);
  },
  'before-upgrade': async (folder) => {
    if (!(await liesWithin(place.url, isUpgrade))) return;
    console.log('The database is about to be changed by a newer Tallow; a backup is written first …');
    await own(folder);
  },
};

const [name = '', path] = process.argv.slice(2);
const work = WORK[name];
if (!work || !path) throw new Error(`say one of ${Object.keys(WORK).join(', ')}, and a path`);
try {
  await work(path);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
}
