import type { Migration } from './migration';
import { ID, NULL_ID, TABLE_END, to } from './sql';

const JSON_TEXT = (column: string) => `${column} LONGTEXT NOT NULL CHECK (JSON_VALID(${column}))`;

/** The people who help, what they were asked for and promised, what was changed about duties by hand, and the hours they gave. */
export const crew: Migration = {
  name: '0018-crew',
  async up(run) {
    await run(
      `CREATE TABLE crew_member (id ${ID} PRIMARY KEY, programme_id ${ID}, member_id ${NULL_ID}, name VARCHAR(120) NOT NULL,
       contact VARCHAR(255) NOT NULL, languages VARCHAR(255) NOT NULL, is_adult TINYINT NOT NULL, ${JSON_TEXT('skills')},
       ${JSON_TEXT('free')}, ${JSON_TEXT('limits')}, ${JSON_TEXT('likes')}, ${JSON_TEXT('rather_not')}, ${JSON_TEXT('with_whom')},
       ${JSON_TEXT('apart')}, ${JSON_TEXT('goes_to')}, sick_until DATE NULL,
       ends_on DATE NULL, erased_at DATETIME(3) NULL, version INT NOT NULL, KEY by_programme (programme_id, name),
       ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE promise (id ${ID} PRIMARY KEY, session_id ${ID}, duty VARCHAR(90) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, crew_id ${ID}, state VARCHAR(20) NOT NULL,
       is_pinned TINYINT NOT NULL, is_offered TINYINT NOT NULL, told LONGTEXT NULL CHECK (JSON_VALID(told)), note VARCHAR(255) NOT NULL,
       asked_at DATETIME(3) NULL, reminded_at DATETIME(3) NULL, answered_at DATETIME(3) NULL, version INT NOT NULL,
       UNIQUE KEY one_place (session_id, duty, crew_id), KEY by_crew (crew_id, state),
       ${to('session_id', 'session')}, ${to('crew_id', 'crew_member')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE duty_change (id ${ID} PRIMARY KEY, session_id ${ID}, duty VARCHAR(90) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, is_left_out TINYINT NOT NULL,
       ${JSON_TEXT('changed_to')}, reason VARCHAR(255) NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID},
       UNIQUE KEY one_duty (session_id, duty), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE crew_hours (id ${ID} PRIMARY KEY, session_id ${ID}, crew_id ${ID}, date DATE NOT NULL, came INT NOT NULL,
       went INT NULL, note VARCHAR(255) NOT NULL, version INT NOT NULL, KEY by_crew (crew_id, date),
       ${to('session_id', 'session')}, ${to('crew_id', 'crew_member')}) ${TABLE_END}`,
    );
    await run(`ALTER TABLE access_link ADD crew_id ${NULL_ID}, ADD KEY by_crew (crew_id)`);
    await run(`ALTER TABLE message ADD crew_id ${NULL_ID}, ADD KEY by_crew (crew_id)`);
    await run("ALTER TABLE programme ADD adult_ratios LONGTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(adult_ratios))");
  },
  async down(run) {
    await run('ALTER TABLE programme DROP adult_ratios');
    await run('ALTER TABLE message DROP KEY by_crew, DROP crew_id');
    await run('ALTER TABLE access_link DROP KEY by_crew, DROP crew_id');
    for (const each of ['crew_hours', 'duty_change', 'promise', 'crew_member'])
      await run(`DROP TABLE IF EXISTS ${each}`);
  },
};
