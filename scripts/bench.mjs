/** Runs the benchmarks: builds, starts a throwaway database, prints a table and JSON. */
import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { startCluster } from './database.mjs';
import { ensurePackages, ensurePrograms, root } from './system.mjs';

ensurePrograms();
ensurePackages();
ensureBuilt();
execFileSync(
  process.execPath,
  [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--config', 'vite.bench.config.mjs', '--logLevel', 'warn'],
  { cwd: root, stdio: 'inherit' },
);
const home = mkdtempSync(join(tmpdir(), 'tallow-bench-'));
chmodSync(home, 0o755);
const cluster = await startCluster(home);
const env = { ...process.env, DATABASE_URL: cluster.url, TALLOW_HOME: home };
const { status } = spawnSync(
  process.execPath,
  ['--expose-gc', join(root, 'dist', 'node', 'bench.js'), ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
    env,
  },
);
await cluster.stop();
rmSync(home, { recursive: true, force: true });
process.exit(status ?? 1);
