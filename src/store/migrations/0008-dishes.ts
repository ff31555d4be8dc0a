import type { Migration } from './migration';

/** What fills the flexible slots of a dish in a session, and whose label kits use. */
export const dishes: Migration = {
  name: '0008-dishes',
  async up(run) {
    await run("ALTER TABLE dish ADD fillings LONGTEXT NOT NULL DEFAULT '[]'");
    await run('ALTER TABLE product ADD in_kits TINYINT NOT NULL DEFAULT 0');
  },
  async down(run) {
    await run('ALTER TABLE product DROP COLUMN in_kits');
    await run('ALTER TABLE dish DROP COLUMN fillings');
  },
};
