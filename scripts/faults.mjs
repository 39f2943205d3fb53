/** Draws while everything is killed, for up to 20 minutes or 300 kills: `npm run faults -- --seed 7 --minutes 20 --pace 900`. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './build.mjs';
import { ensurePackages, ensurePrograms, root } from './system.mjs';

const { values } = parseArgs({
  options: {
    seed: { type: 'string' },
    pace: { type: 'string' },
    minutes: { type: 'string', default: '20' },
    kills: { type: 'string', default: '300' },
  },
});
ensurePrograms();
ensurePackages();
ensureBuilt();
const env = {
  ...process.env,
  TALLOW_FAULTS_MINUTES: values.minutes,
  TALLOW_FAULTS_KILLS: values.kills,
  ...(values.pace ? { TALLOW_FAULTS_PACE: values.pace } : {}),
  ...(values.seed ? { TALLOW_FAULTS_SEED: values.seed } : {}),
};
const playwright = join(root, 'node_modules', '@playwright', 'test', 'cli.js');
const { status } = spawnSync(process.execPath, [playwright, 'test', '--config', 'e2e/faults/playwright.config.ts'], {
  cwd: root,
  stdio: 'inherit',
  env,
});
process.exit(status ?? 1);
