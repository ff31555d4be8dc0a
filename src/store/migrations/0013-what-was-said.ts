import type { Migration } from './migration';

/** What a jar of the course held when it went out: later sessions judge it by its own label. Who said what a word means. */
export const whatWasSaid: Migration = {
  name: '0013-what-was-said',
  async up(run) {
    await run('ALTER TABLE issue ADD COLUMN label TEXT NULL');
    await run("ALTER TABLE avoidance_meaning ADD COLUMN giver_name VARCHAR(120) NOT NULL DEFAULT ''");
  },
  async down(run) {
    await run('ALTER TABLE avoidance_meaning DROP COLUMN giver_name');
    await run('ALTER TABLE issue DROP COLUMN label');
  },
};
