import type { Migration } from './migration';

/** How a programme says dates and times; NULL where it has not chosen. */
export const manner: Migration = {
  name: '0015-manner',
  async up(run) {
    await run('ALTER TABLE programme ADD COLUMN manner LONGTEXT NULL CHECK (JSON_VALID(manner))');
  },
  async down(run) {
    await run('ALTER TABLE programme DROP COLUMN manner');
  },
};
