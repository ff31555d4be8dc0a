import type { Migration } from './migration';
import { ID, refuse, TABLE_END, to } from './sql';

/** Who is reported to and in which words; lessons of several kinds, edible shares among them; families who were asked after a session. */
export const reports: Migration = {
  name: '0023-reports',
  async up(run) {
    await run(
      `CREATE TABLE funder (id ${ID} PRIMARY KEY, programme_id ${ID}, name VARCHAR(190) NOT NULL, intro LONGTEXT NOT NULL,
       words LONGTEXT NOT NULL CHECK (JSON_VALID(words)), from_day DATE NULL, to_day DATE NULL, currency VARCHAR(10) NOT NULL, rate VARCHAR(20) NOT NULL,
       logo_kind VARCHAR(40) NOT NULL, logo LONGBLOB NOT NULL, version INT NOT NULL, KEY by_programme (programme_id),
       ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    // The newest note of a thing is found in the index alone.
    await run('ALTER TABLE close_note ADD KEY by_item (session_id, what, item, at, id)');
    await run("ALTER TABLE lesson_word ADD kind VARCHAR(20) NOT NULL DEFAULT 'amount' AFTER recipe_id");
    await run(
      `CREATE TABLE asked_after (session_id ${ID}, household_id ${ID}, at DATETIME(3) NOT NULL, PRIMARY KEY (session_id, household_id),
       ${to('session_id', 'session')}, ${to('household_id', 'household')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE own_yield (id ${ID} PRIMARY KEY, programme_id ${ID}, ingredient VARCHAR(80) NOT NULL, preparation VARCHAR(80) NOT NULL,
       edible_portion VARCHAR(20) NOT NULL, at DATETIME(3) NOT NULL, actor_id ${ID}, KEY by_food (programme_id, ingredient, at),
       ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    await run(refuse('own_yield', 'UPDATE'));
  },
  async down(run) {
    for (const each of ['own_yield', 'asked_after', 'funder']) await run(`DROP TABLE IF EXISTS ${each}`);
    await run('ALTER TABLE lesson_word DROP kind');
    await run('ALTER TABLE close_note DROP KEY by_item');
  },
};
