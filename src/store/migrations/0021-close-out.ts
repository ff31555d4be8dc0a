import type { Migration } from './migration';
import { ID, NULL_ID, refuse, TABLE_END, to } from './sql';

const ERASING = '@logistra_erasing = 1';
const LOGS = ['close_note', 'lesson_word'];

/** What was left, bad or broken after a session; and what people decided about lessons. */
export const closeOut: Migration = {
  name: '0021-close-out',
  async up(run) {
    await run(
      `CREATE TABLE close_note (id ${ID} PRIMARY KEY, session_id ${ID}, what VARCHAR(20) NOT NULL, item VARCHAR(190) NOT NULL, percent INT NULL,
       bad INT NULL, pieces INT NULL, words LONGTEXT NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_session (session_id, at),
       ${to('session_id', 'session')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE lesson_word (id ${ID} PRIMARY KEY, programme_id ${ID}, recipe_id ${NULL_ID}, food VARCHAR(190) NOT NULL, word VARCHAR(20) NOT NULL,
       proposed INT NOT NULL, taken INT NULL, at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_programme (programme_id, at),
       ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    for (const name of LOGS)
      for (const change of ['UPDATE', 'DELETE'] as const) await run(refuse(name, change, ERASING));
  },
  async down(run) {
    for (const each of ['lesson_word', 'close_note']) await run(`DROP TABLE IF EXISTS ${each}`);
  },
};
