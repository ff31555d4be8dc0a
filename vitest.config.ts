import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    include: ['scripts/**/*.test.ts', 'src/**/*.test.ts', 'bench/**/*.test.ts'],
    globalSetup: ['tests/database.ts'],
    // Files that use the database share it: each makes a programme of its own.
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});
