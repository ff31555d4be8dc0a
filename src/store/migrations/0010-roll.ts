import type { Migration } from './migration';
import { ID, refuse, TABLE_END, to } from './sql';

/** How somebody is on a roll and since when, who is away, who came, and what was decided about a locked sheet. */
export const roll: Migration = {
  name: '0010-roll',
  async up(run) {
    await run('ALTER TABLE enrolment ADD since DATE NULL, ADD shared_kit TINYINT NOT NULL DEFAULT 0');
    await run("ALTER TABLE course ADD waitlist_rule VARCHAR(20) NOT NULL DEFAULT 'first come'");
    await run(
      "ALTER TABLE programme ADD reserve_costs LONGTEXT NOT NULL DEFAULT '{}', ADD column_words LONGTEXT NOT NULL DEFAULT '{}'",
    );
    await run(
      `CREATE TABLE away (session_id ${ID}, enrolment_id ${ID}, mode VARCHAR(20) NULL, PRIMARY KEY (session_id, enrolment_id),
       ${to('session_id', 'session')}, ${to('enrolment_id', 'enrolment')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE attendance (id ${ID} PRIMARY KEY, session_id ${ID}, enrolment_id ${ID}, state VARCHAR(20) NOT NULL,
       at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_session (session_id, at), ${to('session_id', 'session')},
       ${to('enrolment_id', 'enrolment')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE sheet_note (id ${ID} PRIMARY KEY, session_id ${ID}, kind VARCHAR(20) NOT NULL, revision INT NOT NULL,
       basis CHAR(64) NOT NULL, reason VARCHAR(255) NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID},
       KEY by_session (session_id, at), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    for (const name of ['attendance', 'sheet_note'])
      for (const change of ['UPDATE', 'DELETE'] as const) await run(refuse(name, change));
  },
  async down(run) {
    for (const name of ['sheet_note', 'attendance', 'away']) await run(`DROP TABLE IF EXISTS ${name}`);
    await run('ALTER TABLE programme DROP COLUMN reserve_costs, DROP COLUMN column_words');
    await run('ALTER TABLE course DROP COLUMN waitlist_rule');
    await run('ALTER TABLE enrolment DROP COLUMN since, DROP COLUMN shared_kit');
  },
};
