import type { Migration } from './migration';
import { ID, NULL_ID, TABLE_END, to } from './sql';

const JSON_TEXT = (column: string) => `${column} LONGTEXT NOT NULL CHECK (JSON_VALID(${column}))`;

/** The people who help, with what they can do, when they have time, and what they would rather not. */
export const crew: Migration = {
  name: '0018-crew',
  async up(run) {
    await run(
      `CREATE TABLE crew_member (id ${ID} PRIMARY KEY, programme_id ${ID}, member_id ${NULL_ID}, name VARCHAR(120) NOT NULL,
       contact VARCHAR(255) NOT NULL, languages VARCHAR(255) NOT NULL, is_adult TINYINT NOT NULL, ${JSON_TEXT('skills')},
       ${JSON_TEXT('free')}, ${JSON_TEXT('limits')}, ${JSON_TEXT('rather_not')}, ${JSON_TEXT('apart')}, sick_until DATE NULL,
       ends_on DATE NULL, erased_at DATETIME(3) NULL, version INT NOT NULL, KEY by_programme (programme_id, name),
       ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
  },
  async down(run) {
    await run('DROP TABLE IF EXISTS crew_member');
  },
};
