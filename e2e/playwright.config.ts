import { defineConfig } from '@playwright/test';

/** The real interface in Chromium against a started application with a throwaway database. */
export default defineConfig({
  testDir: '.',
  // Run by themselves: see faults/.
  testIgnore: 'faults/**',
  outputDir: '../test-results',
  fullyParallel: false,
  workers: 1,
  timeout: 150_000,
  expect: { timeout: 25_000 },
  reporter: [['list']],
  globalSetup: './setup.ts',
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
