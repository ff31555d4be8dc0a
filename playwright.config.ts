import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './scripts/chromium.mjs';

export default defineConfig({
  testDir: 'tests/browser',
  // Generous, since they only end a test that hangs: a small machine under load is slow, not wrong.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  reporter: [['list'], ['json']],
  // Screens are only looked at, two at a time, on the demo as it ships: what stories leave behind makes pages long.
  // Stories change it, so one at a time.
  workers: 2,
  projects: [
    { name: 'screens', testMatch: 'screens.spec.ts', fullyParallel: true },
    { name: 'stories', testIgnore: 'screens.spec.ts', workers: 1, dependencies: ['screens'] },
  ],
  use: {
    baseURL: process.env.BASE_URL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    acceptDownloads: true,
    launchOptions: chromiumOptions(),
  },
});
