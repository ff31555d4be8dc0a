import type { Migration } from './migration';
import { ID, TABLE_END, to } from './sql';

/** A photograph of the receipt of a trip; and what was taken off the shelves for a session is found by it. */
export const receipts: Migration = {
  name: '0017-receipts',
  async up(run) {
    await run(
      `CREATE TABLE trip_receipt (id ${ID} PRIMARY KEY, programme_id ${ID}, trip_id ${ID}, kind VARCHAR(40) NOT NULL,
       picture LONGBLOB NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID}, UNIQUE KEY one_trip (trip_id),
       ${to('programme_id', 'programme')}, ${to('trip_id', 'trip')}) ${TABLE_END}`,
    );
    await run('ALTER TABLE stock_move ADD KEY by_session (session_id, kind)');
  },
  async down(run) {
    await run('ALTER TABLE stock_move DROP KEY by_session');
    await run('DROP TABLE IF EXISTS trip_receipt');
  },
};
