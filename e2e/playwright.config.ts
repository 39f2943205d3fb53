import { defineConfig } from '@playwright/test';
import { CHROMIUM, FLAGS } from './chromium.ts';

/** The real interface in Chromium against a started application with a throwaway database. */
export default defineConfig({
  testDir: '.',
  // Run by themselves: see faults/.
  testIgnore: 'faults/**',
  outputDir: '../test-results',
  fullyParallel: false,
  workers: 2,
  // One that passes only at the second try is reported as flaky, and is to be mended.
  retries: 1,
  timeout: 150_000,
  expect: { timeout: 25_000 },
  reporter: [['list']],
  globalSetup: './setup.ts',
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: CHROMIUM, args: FLAGS },
  },
});
