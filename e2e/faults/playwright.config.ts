import { defineConfig } from '@playwright/test';

/** One long test that starts everything it needs by itself. */
export default defineConfig({
  testDir: '.',
  outputDir: '../../test-results/faults',
  workers: 1,
  // What befalls a run is partly chance of the machine; a second one tells a fault from an unlucky hang, and both are reported.
  retries: 1,
  reporter: [['list']],
});
