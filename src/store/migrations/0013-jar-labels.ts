import type { Migration } from '../migrate';

/** What a jar of the course held when it went out: later sessions judge it by its own label, not by that of another product. */
export const jarLabels: Migration = {
  name: '0013-jar-labels',
  async up(run) {
    await run('ALTER TABLE issue ADD COLUMN label TEXT NULL');
  },
  async down(run) {
    await run('ALTER TABLE issue DROP COLUMN label');
  },
};
