/** Asks the registry for known faults of the packages that Tallow runs with; where it does not answer, says that this was skipped. */
import { spawnSync } from 'node:child_process';
import { root } from './system.mjs';

const PATIENCE_MS = 30_000;
/** What stops a release. */
const GRAVE = ['high', 'critical'];

const { stdout } = spawnSync('npm', ['audit', '--omit=dev', '--json'], {
  cwd: root,
  encoding: 'utf8',
  timeout: PATIENCE_MS,
});
let found = null;
try {
  found = JSON.parse(stdout);
} catch {
  // It said nothing that can be read: as if it had not answered.
}
if (!found?.vulnerabilities) {
  console.log(`Audit of packages: SKIPPED, the registry does not answer it (${found?.message ?? 'no answer'}).`);
} else {
  const grave = Object.values(found.vulnerabilities).filter(({ severity }) => GRAVE.includes(severity));
  for (const { name, severity, range } of grave) console.log(`${name} ${range}: ${severity}`);
  console.log(`Audit of packages: ${grave.length} of high severity or above.`);
  process.exit(grave.length > 0 ? 1 : 0);
}
