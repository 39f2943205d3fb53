import { defineConfig } from '@playwright/test';

/** One long test that starts everything it needs by itself. */
export default defineConfig({
  testDir: '.',
  outputDir: '../../test-results/faults',
  workers: 1,
  expect: { timeout: 25_000 },
  reporter: [['list']],
});
