import type { Migration } from './migration';
import { ID, NULL_ID, refuse, TABLE_END, to } from './sql';

const JSON_TEXT = (column: string) => `${column} LONGTEXT NOT NULL CHECK (JSON_VALID(${column}))`;
const ERASING = '@logistra_erasing = 1';
/** Nothing in them is changed or taken out, but where a family is erased. */
const LOGS = ['hand_out', 'temperature', 'prep_event', 'weighing_in', 'bench_lot'];

/** Who was handed which kit, the rounds to the doors, what families say of their kits; what was made ahead, weighed and ticked off. */
export const handOut: Migration = {
  name: '0019-hand-out',
  async up(run) {
    await run('ALTER TABLE bench ADD handed_seq INT NOT NULL DEFAULT 0');
    await run("ALTER TABLE household ADD door LONGTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(door))");
    await run("ALTER TABLE programme ADD roads LONGTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(roads))");
    await run(
      `ALTER TABLE access_link ADD household_id ${NULL_ID}, ADD session_id ${NULL_ID}, ADD KEY by_household (household_id)`,
    );
    await run(
      `CREATE TABLE door_round (id ${ID} PRIMARY KEY, session_id ${ID}, date DATE NOT NULL, crew_id ${NULL_ID}, driver VARCHAR(120) NOT NULL,
       from_minute INT NOT NULL, to_minute INT NOT NULL, litres INT NULL, is_home TINYINT NOT NULL, leaves INT NOT NULL, ${JSON_TEXT('stops')},
       left_at DATETIME(3) NULL, ended_at DATETIME(3) NULL, told_late_at DATETIME(3) NULL, version INT NOT NULL,
       KEY by_crew (crew_id, date), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE hand_out (id ${ID} PRIMARY KEY, session_id ${ID}, kit_id ${ID}, enrolment_id ${ID}, seq INT NOT NULL,
       what VARCHAR(20) NOT NULL, who VARCHAR(120) NOT NULL, item VARCHAR(120) NOT NULL, round_id ${NULL_ID}, was_away TINYINT NOT NULL,
       at DATETIME(3) NOT NULL, actor_id ${ID}, UNIQUE KEY in_order (session_id, seq), KEY by_enrolment (enrolment_id),
       ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE kit_word (id ${ID} PRIMARY KEY, session_id ${ID}, enrolment_id ${ID}, word VARCHAR(20) NOT NULL,
       note VARCHAR(255) NOT NULL, at DATETIME(3) NOT NULL, KEY by_session (session_id, at), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE made_batch (id ${ID} PRIMARY KEY, session_id ${ID}, name VARCHAR(190) NOT NULL, food VARCHAR(20) NOT NULL, kind VARCHAR(20) NOT NULL,
       grams INT NULL, least INT NULL, most INT NULL, begun_at DATETIME(3) NOT NULL, ended_at DATETIME(3) NULL, outcome VARCHAR(20) NOT NULL, note VARCHAR(255) NOT NULL,
       lot_id ${NULL_ID}, actor_id ${ID}, version INT NOT NULL, KEY by_session (session_id, begun_at), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE temperature (id ${ID} PRIMARY KEY, session_id ${ID}, batch_id ${ID}, tenths INT NOT NULL, source VARCHAR(10) NOT NULL,
       at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_batch (batch_id, at), ${to('session_id', 'session')}, ${to('batch_id', 'made_batch')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE prep_event (id ${ID} PRIMARY KEY, programme_id ${ID}, day DATE NOT NULL, seq INT NOT NULL, motion VARCHAR(190) NOT NULL, cut VARCHAR(90) NOT NULL,
       grams INT NOT NULL, action VARCHAR(20) NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID}, UNIQUE KEY in_order (programme_id, day, seq),
       ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE weighing_in (id ${ID} PRIMARY KEY, session_id ${ID}, kit_id ${ID}, component VARCHAR(255) NOT NULL, tenths INT NOT NULL,
       at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_session (session_id, at), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE bench_lot (id ${ID} PRIMARY KEY, session_id ${ID}, ingredient VARCHAR(190) NOT NULL, lot_id ${ID}, from_seq INT NOT NULL,
       at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_session (session_id, from_seq), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE pack_line (session_id ${ID} PRIMARY KEY, packers INT NOT NULL, version INT NOT NULL, ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    for (const name of LOGS)
      for (const change of ['UPDATE', 'DELETE'] as const) await run(refuse(name, change, ERASING));
  },
  async down(run) {
    for (const each of [
      'pack_line',
      'bench_lot',
      'weighing_in',
      'prep_event',
      'temperature',
      'made_batch',
      'kit_word',
      'hand_out',
      'door_round',
    ])
      await run(`DROP TABLE IF EXISTS ${each}`);
    await run('ALTER TABLE access_link DROP KEY by_household, DROP household_id, DROP session_id');
    await run('ALTER TABLE programme DROP roads');
    await run('ALTER TABLE household DROP door');
    await run('ALTER TABLE bench DROP handed_seq');
  },
};
