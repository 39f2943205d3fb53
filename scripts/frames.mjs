/**
 * Renders every frame of the stored demo with the code as it is, before and after a change of the code:
 * `npm run frames -- --write before.json`, then `npm run frames -- --against before.json`, which must be equal to the byte.
 */
import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './build.mjs';
import { restore, startCluster } from './database.mjs';
import { ensurePackages, ensurePrograms, root } from './system.mjs';

const { values } = parseArgs({ options: { write: { type: 'string' }, against: { type: 'string' } } });
if (!values.write === !values.against) {
  console.error('Say where to: npm run frames -- --write FILE, or --against FILE.');
  process.exit(2);
}
ensurePrograms();
ensurePackages();
ensureBuilt();
const home = mkdtempSync(join(tmpdir(), 'tallow-frames-'));
chmodSync(home, 0o755);
const cluster = await startCluster(home, { settings: ['fsync=off'] });
restore(cluster.url, join(root, 'server', 'test', 'stored', 'demo.dump'));
const file = values.write ? resolve(values.write) : join(home, 'frames.json');
const { status } = spawnSync(process.execPath, [join(root, 'dist', 'node', 'frames.js'), file], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: cluster.url, TALLOW_HOME: home },
});
let failed = status !== 0;
if (!failed && values.against) {
  const [before, after] = [resolve(values.against), file].map((each) => JSON.parse(readFileSync(each, 'utf8')));
  for (const shot of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const [was, is] = [before[shot] ?? [], after[shot] ?? []];
    const other = Array.from({ length: Math.max(was.length, is.length) }, (_, i) => i).filter((i) => was[i] !== is[i]);
    if (other.length === 0) continue;
    failed = true;
    console.error(`${shot}: ${other.length} frames differ, the first is ${other[0] + 1}`);
  }
  if (!failed) console.log('All frames are equal to the byte.');
}
await cluster.stop();
rmSync(home, { recursive: true, force: true });
process.exit(failed ? 1 : 0);
