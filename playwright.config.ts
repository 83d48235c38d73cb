import { defineConfig } from '@playwright/test';
import { chromiumLaunch } from './scripts/chromium.mjs';

/** Drives Debian's Chromium against the server that scripts/test.mjs has started. */
export default defineConfig({
  testDir: './e2e',
  // Shared machines can be many times slower at times; these are limits for what hangs, not measures.
  timeout: 600_000,
  expect: { timeout: 120_000 },
  workers: 1,
  reporter: [['list'], ['json', { outputFile: process.env.SCENOGRAPH_REPORT ?? 'test-results/report.json' }]],
  use: {
    baseURL: process.env.SCENOGRAPH_URL ?? 'http://127.0.0.1:4310',
    viewport: { width: 1280, height: 800 },
    launchOptions: chromiumLaunch,
  },
});
