// What closing out asks of the database beyond single rows.
import type { RecipeBody } from '@/contracts/recipe';
import { select } from './sql';
import type { Db } from './store';

/** What was tapped as short in the classes of a programme. */
export const shortBySession = (db: Db, values: { programmeId: string }) =>
  select<{ sessionId: string; food: string; percent: number | null }>(
    db,
    `SELECT e.session_id AS sessionId, e.item AS food, MAX(CAST(JSON_VALUE(e.value, '$.percent') AS INT)) AS percent
       FROM class_event e JOIN session s ON s.id = e.session_id JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND e.what = 'short' GROUP BY e.session_id, e.item`,
    values,
  );

/** Recipes that closed sessions cooked, with when each session was closed. */
export const closedDishes = (db: Db, values: { programmeId: string }) =>
  select<{
    sessionId: string;
    title: string;
    date: string;
    closedAt: Date;
    recipeId: string;
    recipe: string;
    version: number;
    body: RecipeBody;
  }>(
    db,
    `SELECT s.id AS sessionId, s.title, s.date, k.at AS closedAt, r.id AS recipeId, r.title AS recipe, r.version, r.body
       FROM (SELECT session_id, MAX(at) AS at FROM close_note WHERE what = 'closed' GROUP BY session_id) k
            JOIN session s ON s.id = k.session_id JOIN course c ON c.id = s.course_id
            JOIN dish d ON d.session_id = s.id JOIN recipe r ON r.id = d.recipe_id
      WHERE c.programme_id = :programmeId ORDER BY s.date, s.id`,
    values,
  );
