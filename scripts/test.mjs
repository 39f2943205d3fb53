/** All checks and tests: build, types, lint and a minute of faults beside the unit tests, then the interface, which takes both cores. */
import { spawn } from 'node:child_process';
import { ensurePackages, ensurePrograms, root } from './system.mjs';

ensurePrograms();
ensurePackages();

const bin = (name) => `${root}/node_modules/${name}`;
const CHECKS = {
  build: ['scripts/build.mjs'],
  types: ['scripts/types.mjs'],
  circles: ['scripts/circles.mjs'],
  names: ['scripts/names.mjs'],
  papers: ['scripts/papers.mjs'],
  unused: ['scripts/unused.mjs'],
  parts: ['scripts/parts.mjs'],
  audit: ['scripts/audit.mjs'],
  lint: [bin('eslint/bin/eslint.js'), '.'],
  format: [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.'],
  unit: ['--experimental-vm-modules', '--no-warnings', bin('jest/bin/jest.js')],
  interface: [bin('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts'],
  faults: [bin('@playwright/test/cli.js'), 'test', '--config', 'e2e/faults/playwright.config.ts'],
};

/** Tests that failed are run once more by themselves; what passes only then is reported, and is to be mended. */
const AGAIN = { unit: ['--onlyFailures'] };

/** Runs a check, shows what it said when it is done, and tells whether it passed. */
async function run(name) {
  if (await once(name, CHECKS[name])) return true;
  if (!AGAIN[name]) return false;
  const passes = await once(name, [...CHECKS[name], ...AGAIN[name]]);
  if (passes) console.log(`FLAKY: ${name} passed only when it was run again\n`);
  return passes;
}

function once(name, command) {
  return new Promise((done) => {
    const began = Date.now();
    const child = spawn(process.execPath, command, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, FORCE_COLOR: '0' },
    });
    const said = [];
    child.stdout.on('data', (data) => said.push(data));
    child.stderr.on('data', (data) => said.push(data));
    child.once('exit', (code) => {
      process.stdout.write(Buffer.concat(said));
      // A run that found nothing to run has shown nothing.
      const passed = code === 0 && !Buffer.concat(said).includes('No failed test found');
      console.log(`${passed ? 'passed' : 'FAILED'}: ${name} (${Math.round((Date.now() - began) / 1000)} s)\n`);
      done(passed);
    });
  });
}

/** One after the other; after a build that failed nothing that needs it. */
async function lane(names) {
  const results = [];
  for (const name of names) {
    results.push(await run(name));
    if (name === 'build' && !results[0]) break;
  }
  return results;
}
const beside = await Promise.all([
  lane(['build', 'faults', 'types', 'lint', 'circles', 'names', 'papers', 'unused', 'parts', 'audit', 'format']),
  lane(['unit']),
]);
const results = [...beside.flat(), ...(beside[0][0] ? await lane(['interface']) : [])];
const passed = results.filter(Boolean).length;
console.log(`${passed} passed, ${results.length - passed} failed`);
process.exit(passed === results.length ? 0 : 1);
