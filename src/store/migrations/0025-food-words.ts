import type { Migration } from './migration';
import { ID, TABLE_END, to } from './sql';

/** What a coordinator answered about a food's name is known for the programme from then on. */
export const foodWords: Migration = {
  name: '0025-food-words',
  async up(run) {
    await run(
      `CREATE TABLE food_word (programme_id ${ID}, word VARCHAR(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL, ingredient VARCHAR(255) NOT NULL,
       PRIMARY KEY (programme_id, word), ${to('programme_id', 'programme')}) ${TABLE_END}`,
    );
  },
  async down(run) {
    await run('DROP TABLE food_word');
  },
};
