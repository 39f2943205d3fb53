/** Checks types, each workspace with what it may see: core and demo without the page or Node.js, page and workers apart. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './system.mjs';

/** A file of core that asks for the page: a check that lets it pass is blind. */
const FIXTURE = 'scripts/fixtures/dom';

const tsc = (...args) =>
  spawnSync(process.execPath, [join(root, 'node_modules/typescript/bin/tsc'), ...args], {
    cwd: root,
    encoding: 'utf8',
  });
if (!tsc('-p', FIXTURE).stdout.includes("Cannot find name 'document'")) {
  console.error(`The check is blind: it lets ${FIXTURE}/page.ts pass.`);
  process.exit(1);
}
// One workspace after the other; those that have not changed since the last time are left out.
const { status, stdout } = tsc('--build');
process.stdout.write(stdout);
process.exit(status ?? 1);
