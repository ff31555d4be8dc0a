import { defineConfig } from 'vitest/config';

const PURE = ['src/{core,formats}/**/*.test.ts', 'bench/**/*.test.ts', 'tests/*.test.ts'];
/** A search through the services, beside the sets it belongs to: it needs the database. */
const SEARCHES = ['tests/stock-search.test.ts', 'tests/moving.test.ts', 'tests/apart.test.ts'];
/** Puts other facts in place of those that ship. */
const CHANGES_FACTS = ['src/core/safety/later-allergen.test.ts'];

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    // Every core: by default one is left free.
    maxWorkers: '100%',
    testTimeout: 30_000,
    hookTimeout: 60_000,
    projects: [
      {
        extends: true,
        test: {
          name: 'pure',
          include: PURE,
          exclude: [...CHANGES_FACTS, ...SEARCHES],
          // Pure functions leave nothing behind: their modules are loaded once for all files.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'alone',
          include: ['scripts/**/*.test.ts', 'src/!(core|formats)/**/*.test.ts', ...SEARCHES],
          globalSetup: ['tests/database.ts'],
          // Files share the database, and the modules: each makes a programme of its own.
          isolate: false,
        },
      },
      { extends: true, test: { name: 'other facts', include: CHANGES_FACTS } },
      // A cluster of its own.
      { extends: true, test: { name: 'cluster', include: ['tests/cluster/*.test.ts'] } },
    ],
  },
});
