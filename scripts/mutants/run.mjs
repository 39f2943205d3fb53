/** Changes one room of the core in thousands of small ways, and tells which of them no test notices. */
import { spawnSync } from 'node:child_process';
import { TESTED_BY } from './rooms.mjs';
import { root } from '../system.mjs';

const [room, files] = process.argv.slice(2);
if (!room || !(room in TESTED_BY)) {
  console.error(`npm run mutants -- <room> [files], with a room of ${Object.keys(TESTED_BY).join(', ')}`);
  process.exit(2);
}
const env = { ...process.env, MUTANTS: room, ...(files ? { MUTANT_FILES: files } : {}) };
const { status } = spawnSync('npx', ['stryker', 'run', 'scripts/mutants/stryker.config.mjs'], {
  cwd: root,
  env,
  stdio: 'inherit',
});
process.exit(status ?? 1);
