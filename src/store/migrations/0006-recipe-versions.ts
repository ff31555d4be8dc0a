import type { Migration } from './migration';
import { ID, NULL_ID, refuse, TABLE_END, to } from './sql';

export const recipeVersions: Migration = {
  name: '0006-recipe-versions',
  async up(run) {
    await run(
      `CREATE TABLE recipe_version (recipe_id ${ID}, version INT NOT NULL, title VARCHAR(120) NOT NULL,
       body LONGTEXT NOT NULL, at DATETIME(3) NOT NULL, actor_id ${NULL_ID}, PRIMARY KEY (recipe_id, version),
       ${to('recipe_id', 'recipe')}) ${TABLE_END}`,
    );
    // What recipes were before versions were kept is not known; what they are now is the first that is.
    await run('INSERT INTO recipe_version SELECT id, version, title, body, NOW(3), NULL FROM recipe');
    await run(refuse('recipe_version', 'UPDATE'));
    await run(`ALTER TABLE recipe ADD parent_id ${NULL_ID}, ADD parent_version INT NULL,
      ADD CONSTRAINT varies ${to('parent_id', 'recipe')}`);
  },
  async down(run) {
    await run('ALTER TABLE recipe DROP FOREIGN KEY varies');
    await run('ALTER TABLE recipe DROP COLUMN parent_id, DROP COLUMN parent_version');
    await run('DROP TABLE IF EXISTS recipe_version');
  },
};
