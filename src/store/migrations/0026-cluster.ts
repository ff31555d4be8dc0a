import type { Migration } from './migration';
import { TABLE_END } from './sql';

/** What is held for the rest of a transaction; see hold.ts. */
const HELD = ['programme', 'course', 'session', 'bench', 'crew_member', 'promise', 'stock_lot', 'trip'];

/** What several servers need of one another: what is held is written down, and who works in the background says so. */
export const cluster: Migration = {
  name: '0026-cluster',
  async up(run) {
    for (const table of HELD) await run(`ALTER TABLE ${table} ADD held INT UNSIGNED NOT NULL DEFAULT 0`);
    await run(
      `CREATE TABLE background (owner VARCHAR(190) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
       began_at DATETIME(3) NOT NULL, seen_at DATETIME(3) NOT NULL, done INT UNSIGNED NOT NULL,
       KEY by_seen (seen_at)) ${TABLE_END}`,
    );
    await run("ALTER TABLE job ADD request VARCHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT ''");
  },
  async down(run) {
    await run('ALTER TABLE job DROP request');
    await run('DROP TABLE background');
    for (const table of HELD) await run(`ALTER TABLE ${table} DROP held`);
  },
};
