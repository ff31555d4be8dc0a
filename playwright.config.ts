import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './scripts/chromium.mjs';

export default defineConfig({
  testDir: 'tests/browser',
  // One story builds on the demo database at a time.
  workers: 1,
  // Generous, since they only end a test that hangs: a small machine under load is slow, not wrong.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  reporter: [['list'], ['json']],
  // Screens are walked on the demo as it ships: what the stories leave behind makes pages long, and looking through them slow.
  projects: [
    { name: 'screens', testMatch: 'screens.spec.ts' },
    { name: 'stories', testIgnore: 'screens.spec.ts' },
  ],
  use: {
    baseURL: process.env.BASE_URL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    acceptDownloads: true,
    launchOptions: chromiumOptions(),
  },
});
