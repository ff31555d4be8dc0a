import type { Migration } from './migration';
import { ID, refuse, TABLE_END, to } from './sql';

export const reference: Migration = {
  name: '0005-reference',
  async up(run) {
    await run(
      `CREATE TABLE own_food (id ${ID} PRIMARY KEY, programme_id ${ID}, name VARCHAR(80) NOT NULL, body LONGTEXT NOT NULL,
       version INT NOT NULL, UNIQUE KEY one_name (programme_id, name), ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    await run(
      `CREATE TABLE weighing (id ${ID} PRIMARY KEY, programme_id ${ID}, ingredient VARCHAR(80) NOT NULL,
       preparation VARCHAR(80) NOT NULL, measure VARCHAR(20) NOT NULL, grams VARCHAR(20) NOT NULL, at DATETIME(3) NOT NULL,
       actor_id ${ID}, KEY by_food (programme_id, ingredient, at), ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
    // What was weighed stays in the history; a new weighing takes its place.
    await run(refuse('weighing', 'UPDATE'));
  },
  async down(run) {
    await run('DROP TABLE IF EXISTS weighing');
    await run('DROP TABLE IF EXISTS own_food');
  },
};
