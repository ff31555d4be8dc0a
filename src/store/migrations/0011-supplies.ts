import type { Migration } from './migration';
import { ID, NULL_ID, refuse, TABLE_END, to } from './sql';

/** What goes with kits beside measured food: supplies of a course, what families have at home, how lines travel. */
export const supplies: Migration = {
  name: '0011-supplies',
  async up(run) {
    await run(
      "ALTER TABLE course ADD kit_rules LONGTEXT NOT NULL DEFAULT '{}', ADD mode_places LONGTEXT NOT NULL DEFAULT '{}'",
    );
    await run("ALTER TABLE dish ADD ways LONGTEXT NOT NULL DEFAULT '[]', ADD serves INT NULL");
    await run("ALTER TABLE household ADD home LONGTEXT NOT NULL DEFAULT '{}'");
    await run("ALTER TABLE programme ADD containers LONGTEXT NOT NULL DEFAULT '[]'");
    await run(
      `CREATE TABLE issue (session_id ${ID}, enrolment_id ${ID}, supply_id VARCHAR(40) NOT NULL, units INT NOT NULL,
       drawn VARCHAR(120) NOT NULL, PRIMARY KEY (session_id, enrolment_id, supply_id),
       ${to('session_id', 'session')}, ${to('enrolment_id', 'enrolment')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE kit_fate (id ${ID} PRIMARY KEY, session_id ${ID}, kit_id ${ID}, fate VARCHAR(20) NOT NULL, to_id ${NULL_ID},
       at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_session (session_id, at), ${to('session_id', 'session')},
       ${to('kit_id', 'kit')}) ${TABLE_END}`,
    );
    for (const change of ['UPDATE', 'DELETE'] as const) await run(refuse('kit_fate', change));
  },
  async down(run) {
    await run('DROP TABLE IF EXISTS kit_fate');
    await run('DROP TABLE IF EXISTS issue');
    await run('ALTER TABLE programme DROP COLUMN containers');
    await run('ALTER TABLE household DROP COLUMN home');
    await run('ALTER TABLE dish DROP COLUMN ways, DROP COLUMN serves');
    await run('ALTER TABLE course DROP COLUMN kit_rules, DROP COLUMN mode_places');
  },
};
