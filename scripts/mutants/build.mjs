/** Bundles the unit tests of some rooms, with the mutants in what they import, so that one process runs them again and again. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'vite';
import { TESTED_BY } from './rooms.mjs';

/** What reads a file beside itself, and what adds a kind for all that run in its process. */
const APART = ['stored-names.test.ts', 'invented-kind.test.ts'];

const tests = TESTED_BY[process.env['MUTANTS']].flatMap((room) =>
  readdirSync(join('core', room), { recursive: true })
    .filter((file) => file.endsWith('.test.ts') && !APART.some((name) => file.endsWith(name)))
    .map((file) => join('core', room, file)),
);
await build({
  configFile: false,
  logLevel: 'error',
  build: {
    ssr: true,
    target: 'node20',
    outDir: '.mutants',
    minify: false,
    rollupOptions: { input: Object.fromEntries(tests.map((file) => [file.replaceAll('/', '_').slice(0, -3), file])) },
  },
  ssr: { noExternal: [/^@tallow\//] },
});
