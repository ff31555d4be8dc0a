import type { RecipeBody } from '@/contracts/recipe';
import type { Filling } from '@/core/recipes/recipe/slots';
import { change, select } from './sql';
import type { Db } from './store';

/** The versions of a recipe, newest first, with who saved each. */
export const versionsOf = (db: Db, values: { recipeId: string }) =>
  select<{ version: number; title: string; body: RecipeBody; at: Date; byName: string | null }>(
    db,
    `SELECT v.version, v.title, v.body, v.at, COALESCE(m.name, t.name) AS byName FROM recipe_version v
         LEFT JOIN member m ON m.id = v.actor_id LEFT JOIN api_token t ON t.id = v.actor_id
        WHERE v.recipe_id = :recipeId ORDER BY v.version DESC`,
    values,
  );

/** The local variations of a recipe. */
export const variationsOf = (db: Db, values: { recipeId: string }) =>
  select<{ id: string; title: string }>(
    db,
    'SELECT id, title FROM recipe WHERE parent_id = :recipeId ORDER BY title',
    values,
  );

/** A recipe’s dishes in sessions to come whose newest sheet is locked, each with that sheet. */
export const lockedDishesOf = (db: Db, values: { recipeId: string; today: string }) =>
  select<{
    id: string;
    title: string;
    date: string;
    dishId: string;
    fillings: readonly Filling[];
    snapshot: string;
  }>(
    db,
    `SELECT s.id, s.title, s.date, d.id AS dishId, d.fillings, k.snapshot FROM dish d JOIN session s ON s.id = d.session_id
           JOIN kit_sheet k ON k.session_id = s.id
           LEFT JOIN kit_sheet n ON n.session_id = s.id AND n.revision > k.revision
          WHERE d.recipe_id = :recipeId AND s.date >= :today AND s.status = 'planned' AND n.id IS NULL`,
    values,
  );

/** The recipes of a programme, with how many dishes are made of each. */
export const recipesWithUse = (db: Db, values: { programmeId: string }) =>
  select<{ id: string; title: string; version: number; body: RecipeBody; sessions: number; lastUsed: string | null }>(
    db,
    `SELECT r.id, r.title, r.version, r.body, (SELECT COUNT(*) FROM dish d WHERE d.recipe_id = r.id) AS sessions,
            (SELECT MAX(s.date) FROM dish d JOIN session s ON s.id = d.session_id WHERE d.recipe_id = r.id AND s.status = 'planned') AS lastUsed
         FROM recipe r WHERE r.programme_id = :programmeId ORDER BY r.title`,
    values,
  );

/** The last fifty weighings of a food, newest first, with who put it on the scale. */
export const weighingsOf = (db: Db, values: { programmeId: string; name: string }) =>
  select<{ preparation: string; measure: string; grams: string; at: Date; by: string }>(
    db,
    `SELECT w.preparation, w.measure, w.grams, w.at, COALESCE(m.name, '') AS \`by\` FROM weighing w LEFT JOIN member m ON m.id = w.actor_id
        WHERE w.programme_id = :programmeId AND w.ingredient = :name ORDER BY w.at DESC, w.id DESC LIMIT 50`,
    values,
  );

/** No product of a food lends kits its label any more. */
export const useNoLabel = (db: Db, values: { programmeId: string; ingredient: string }) =>
  change(db, 'UPDATE product SET in_kits = 0 WHERE programme_id = :programmeId AND ingredient = :ingredient', values);

/** A product lends kits its label. */
export const useLabel = (db: Db, values: { productId: string }) =>
  change(db, 'UPDATE product SET in_kits = 1 WHERE id = :productId', values);
