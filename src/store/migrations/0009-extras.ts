import type { Migration } from './migration';

/** What is made beside the kits of a roll: its kits belong to nobody who is enrolled. */
export const extras: Migration = {
  name: '0009-extras',
  async up(run) {
    await run("ALTER TABLE session ADD extras LONGTEXT NOT NULL DEFAULT '{}'");
    await run('ALTER TABLE dish ADD swap_in INT NOT NULL DEFAULT 0');
    await run('ALTER TABLE kit DROP FOREIGN KEY kit_ibfk_2');
  },
  async down(run) {
    await run('DELETE FROM kit WHERE enrolment_id NOT IN (SELECT id FROM enrolment)');
    await run('ALTER TABLE kit ADD CONSTRAINT kit_ibfk_2 FOREIGN KEY (enrolment_id) REFERENCES enrolment (id)');
    await run('ALTER TABLE dish DROP COLUMN swap_in');
    await run('ALTER TABLE session DROP COLUMN extras');
  },
};
