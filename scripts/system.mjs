/** What must be on the machine before anything else: Debian's packages and the npm packages of the lock file. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export const root = join(import.meta.dirname, '..');

/** Where Debian puts PostgreSQL, a folder for each version. */
const POSTGRES = '/usr/lib/postgresql';

/** The versions of PostgreSQL that are installed with a server, newest first. */
export function postgresVersions(base = POSTGRES) {
  if (!existsSync(base)) return [];
  return readdirSync(base)
    .filter((version) => existsSync(join(base, version, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a));
}

/** The folder of PostgreSQL's programs: of one version, or the newest; null when it is not installed. */
export function postgresPrograms(version = undefined, base = POSTGRES) {
  const found = postgresVersions(base).find((each) => version === undefined || each === version);
  return found === undefined ? null : join(base, found, 'bin');
}

const onPath = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;

/** Installs the Debian packages that are missing, as root or through sudo; else says exactly what to run. */
export function ensurePrograms() {
  const missing = [
    ...(postgresPrograms() ? [] : ['postgresql']),
    ...(existsSync('/usr/bin/chromium') ? [] : ['chromium']),
    ...(onPath('ffmpeg') ? [] : ['ffmpeg']),
  ];
  if (missing.length === 0) return;
  const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  const isRoot = process.getuid?.() === 0;
  const prefix = isRoot ? '' : spawnSync('sudo', ['-n', 'true']).status === 0 ? 'sudo ' : null;
  if (prefix === null) {
    console.error(
      `Tallow needs ${missing.join(', ')}. Run this, then start again:\n\n  sudo apt-get update && sudo ${command}\n`,
    );
    process.exit(1);
  }
  console.log(`Installing ${missing.join(', ')} …`);
  execFileSync(
    'sh',
    ['-c', `${prefix}apt-get update -qq && ${prefix}env DEBIAN_FRONTEND=noninteractive ${command} >/dev/null`],
    { stdio: 'inherit' },
  );
}

/** Installs the npm packages when the lock file has changed since they were. */
export function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.tallow-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages …');
  // Not `npm ci`: it refuses a lock file that leaves out optional builds for other systems. This installs the
  // versions of the lock file just the same and writes nothing back.
  execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: 'inherit',
  });
  writeFileSync(stamp, lock);
}
