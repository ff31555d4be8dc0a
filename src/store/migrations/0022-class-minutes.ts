import type { Migration } from './migration';
import { ID, TABLE_END, to } from './sql';

/** How a class spends the minutes in which nobody cooks; and what its run sheet asked to be settled when it was last worked out. */
export const classMinutes: Migration = {
  name: '0022-class-minutes',
  async up(run) {
    await run(
      `CREATE TABLE class_minutes (session_id ${ID} PRIMARY KEY, opening INT NOT NULL, demonstration INT NOT NULL, eating INT NOT NULL,
       cleaning INT NOT NULL, ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE class_outlook (session_id ${ID}, sitting VARCHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
       settle LONGTEXT NOT NULL CHECK (JSON_VALID(settle)), at DATETIME(3) NOT NULL, PRIMARY KEY (session_id, sitting),
       ${to('session_id', 'session')}) ${TABLE_END}`,
    );
  },
  async down(run) {
    for (const each of ['class_outlook', 'class_minutes']) await run(`DROP TABLE IF EXISTS ${each}`);
  },
};
