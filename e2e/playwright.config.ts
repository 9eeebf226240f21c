import { defineConfig } from '@playwright/test';
import { chromium } from './launch';

export default defineConfig({
  testDir: './journeys',
  workers: 2,
  fullyParallel: false,
  // Guards against hanging, not measures of speed: a shared machine can be four times slower.
  timeout: 480_000,
  expect: { timeout: 60_000 },
  reporter: 'list',
  outputDir: './test-results',
  use: {
    launchOptions: chromium,
    // The page that opens without a connection has a journey of its own.
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // The browser sits elsewhere than the studio: times must be said in the studio's zone.
    timezoneId: 'America/New_York',
    // A trace costs every journey a fifth of its time: it is asked for by hand (`--trace on`).
    trace: 'off',
  },
});
