/** Mutation testing of one room of the core: `npm run mutants -- timing`. */
const room = process.env['MUTANTS'];

export default {
  testRunner: 'mocha',
  plugins: ['@stryker-mutator/mocha-runner'],
  mutate: [process.env['MUTANT_FILES'] ?? `core/${room}/*.ts`, '!core/**/*.test.ts'],
  buildCommand: 'node scripts/mutants/build.mjs',
  mochaOptions: { spec: ['.mutants/*.js'], require: ['scripts/mutants/words.mjs'] },
  coverageAnalysis: 'perTest',
  // What is worked out once as a file is loaded would need a new process for each mutant.
  ignoreStatic: true,
  concurrency: 2,
  ignorePatterns: ['dist', 'e2e', 'docs', 'bench', 'test-results', '.tallow'],
  reporters: ['clear-text', 'progress-append-only', 'json'],
  clearTextReporter: { logTests: false, reportTests: false },
  jsonReporter: { fileName: `dist/mutants/${room}.json` },
  tempDirName: 'dist/mutants/work',
  dryRunTimeoutMinutes: 20,
};
