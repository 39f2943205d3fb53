/** Runs the program for backups on a home's own cluster. */
import { spawn, spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './system.mjs';

/** Where Tallow's own backups go, or null where they are turned off. @param home */
export function backupFolder(home, env = process.env) {
  const set = env.TALLOW_BACKUPS;
  if (set === 'off') return null;
  return set || join(home, 'backups');
}

/** A file for a backup that somebody asked for, or that is made before something replaces all: it goes to the home where Tallow's own are off. */
export function backupFile(home, named) {
  const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
  return join(backupFolder(home) ?? join(home, 'backups'), `${named}-${stamp}.dump`);
}

const argsOf = (words) => ['--enable-source-maps', join(root, 'dist', 'node', 'backup.js'), ...words];

/** @param cluster as `startCluster` or `findCluster` gives it. */
const envOf = ({ url, adminUrl, bin }) => ({
  ...process.env,
  DATABASE_URL: url,
  TALLOW_ADMIN_URL: adminUrl,
  TALLOW_POSTGRES: bin,
});

/** Does one thing and waits for it. @returns whether it went well, and what it said. */
export function backupNow(cluster, words, quiet = false) {
  const { status, stdout } = spawnSync(process.execPath, argsOf(words), {
    env: envOf(cluster),
    stdio: ['ignore', quiet ? 'pipe' : 'inherit', 'inherit'],
  });
  return { isDone: status === 0, said: stdout?.toString().trim() ?? '' };
}

const SOON_MS = 10 * 60 * 1000;
const HOUR_MS = 60 * 60 * 1000;

/** Looks every hour whether a day has gone by since the last one. @param children takes the program while it runs. */
export function backUpDaily(clusterNow, folder, children) {
  const look = () => {
    const child = spawn(process.execPath, argsOf(['daily', folder]), {
      env: envOf(clusterNow()),
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    let said = '';
    child.stderr.on('data', (text) => (said = (said + text).slice(-2000)));
    children.add(child);
    child.once('close', (code) => {
      children.delete(child);
      if (code) console.log(`The daily backup could not be written: ${said.trim()}. It is tried again in an hour.`);
    });
  };
  setTimeout(look, SOON_MS).unref();
  setInterval(look, HOUR_MS).unref();
}

/** Ends the program where the database is somebody else's to look after. @param what what would have been done. */
export function ownDatabaseOnly(what) {
  if (!process.env.DATABASE_URL) return;
  console.error(
    `DATABASE_URL is set: that database is yours to look after, and nothing was ${what}. Unset it for the home’s own.`,
  );
  process.exit(1);
}
