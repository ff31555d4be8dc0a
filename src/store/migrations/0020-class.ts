import type { Migration } from './migration';
import { ID, NULL_ID, refuse, TABLE_END, to } from './sql';

const SITTING = "sitting VARCHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT ''";
const JSON_TEXT = (column: string) => `${column} LONGTEXT NOT NULL CHECK (JSON_VALID(${column}))`;
const ERASING = '@logistra_erasing = 1';
/** Nothing in them is changed or taken out, but where a family is erased. */
const LOGS = ['class_event', 'incident', 'tasting', 'coming_note'];

/** What happens in a class, who is hurt, what children think of a dish, who comes late or is fetched, what families send of their cooking. */
export const classDay: Migration = {
  name: '0020-class',
  async up(run) {
    await run("ALTER TABLE programme ADD class_words LONGTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(class_words))");
    await run(
      `CREATE TABLE class_event (id ${ID} PRIMARY KEY, session_id ${ID}, ${SITTING}, seq INT NOT NULL, what VARCHAR(20) NOT NULL,
       item VARCHAR(190) NOT NULL, enrolment_id ${NULL_ID}, ${JSON_TEXT('value')}, at DATETIME(3) NOT NULL, actor_id ${ID},
       UNIQUE KEY in_order (session_id, sitting, seq), KEY by_enrolment (enrolment_id), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE incident (id ${ID} PRIMARY KEY, session_id ${ID}, about_id ${NULL_ID}, enrolment_id ${NULL_ID}, hurt VARCHAR(30) NOT NULL,
       words LONGTEXT NOT NULL, told VARCHAR(255) NOT NULL, has_called TINYINT NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID},
       KEY by_session (session_id, at), KEY by_enrolment (enrolment_id), ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE tasting (id ${ID} PRIMARY KEY, session_id ${ID}, dish_id ${ID}, face VARCHAR(20) NOT NULL, enrolment_id ${NULL_ID},
       at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_session (session_id, at), KEY by_enrolment (enrolment_id),
       ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE coming_note (id ${ID} PRIMARY KEY, session_id ${ID}, enrolment_id ${ID}, kind VARCHAR(20) NOT NULL, who VARCHAR(120) NOT NULL,
       at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_session (session_id, at), KEY by_enrolment (enrolment_id),
       ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE lesson_note (session_id ${ID} PRIMARY KEY, words LONGTEXT NOT NULL, version INT NOT NULL, ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE cooked_picture (id ${ID} PRIMARY KEY, session_id ${ID}, enrolment_id ${ID}, kind VARCHAR(40) NOT NULL, picture LONGBLOB NOT NULL,
       consent VARCHAR(20) NOT NULL, at DATETIME(3) NOT NULL, ends_on DATE NOT NULL, KEY by_session (session_id, at), KEY by_enrolment (enrolment_id),
       ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    for (const name of LOGS)
      for (const change of ['UPDATE', 'DELETE'] as const) await run(refuse(name, change, ERASING));
  },
  async down(run) {
    for (const each of ['cooked_picture', 'lesson_note', 'coming_note', 'tasting', 'incident', 'class_event'])
      await run(`DROP TABLE IF EXISTS ${each}`);
    await run('ALTER TABLE programme DROP class_words');
  },
};
