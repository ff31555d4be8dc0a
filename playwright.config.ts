import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './scripts/chromium.mjs';

export default defineConfig({
  testDir: 'tests/browser',
  // One story builds on the demo database at a time. Screens are only looked at, beside them, on a database of their own.
  workers: 1,
  projects: [
    { name: 'stories', testIgnore: 'screens.spec.ts' },
    { name: 'screens', testMatch: 'screens.spec.ts' },
  ],
  // Generous, since they only end a test that hangs: a small machine under load is slow, not wrong.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  reporter: [['list'], ['json']],
  use: {
    baseURL: process.env.BASE_URL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    acceptDownloads: true,
    launchOptions: chromiumOptions(),
  },
});
