import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    include: ['src/**/*.test.ts', 'bench/**/*.test.ts', 'tests/unit/**/*.test.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});
