import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './tools/chromium.mjs';

/** Debian's Chromium; one server of its own for each worker (tests/browser/fixtures.ts). */
export default defineConfig({
  testDir: 'tests/browser',
  testMatch: '**/*.spec.ts',
  workers: 2,
  // One long file must not keep one worker busy while the other has nothing left to do.
  fullyParallel: true,
  retries: 0,
  timeout: 45_000,
  expect: { timeout: 10_000 },
  outputDir: 'test-results',
  reporter: 'line',
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    acceptDownloads: true,
    // Only the test of it needs the application to take itself over; elsewhere it would fetch all of itself each time.
    serviceWorkers: 'block',
    launchOptions: chromiumOptions,
  },
});
