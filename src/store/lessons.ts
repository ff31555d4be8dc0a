// What lessons ask of the database: of all sessions that were closed, as little as tells something.
import type { RecipeBody } from '@/contracts/recipe';
import type { Face } from '@/core/classday/tasting';
import { find } from './query';
import { groupedBy } from './session-bundles';
import { select } from './sql';
import type { Db } from './store';

/** The closed sessions of a programme in order of time: the newest word on each is that it was closed. */
export async function closedSessions(db: Db, values: { programmeId: string }) {
  // Three plain questions, put together here: as one, the database took four times as long.
  const [sessions, words, dishes] = await Promise.all([
    select<{ id: string; courseId: string; course: string; title: string; date: string }>(
      db,
      `SELECT s.id, c.id AS courseId, c.title AS course, s.title, s.date FROM session s JOIN course c ON c.id = s.course_id
        WHERE c.programme_id = :programmeId ORDER BY s.date, s.id`,
      values,
    ),
    select<{ sessionId: string; closed: Date | null; opened: Date | null }>(
      db,
      `SELECT n.session_id AS sessionId, MAX(IF(n.what = 'closed', n.at, NULL)) AS closed, MAX(IF(n.what = 'opened again', n.at, NULL)) AS opened
         FROM course c JOIN session s ON s.course_id = c.id JOIN close_note n ON n.session_id = s.id
        WHERE c.programme_id = :programmeId AND n.what IN ('closed', 'opened again') GROUP BY n.session_id`,
      values,
    ),
    select<{ sessionId: string; recipeId: string }>(
      db,
      `SELECT DISTINCT d.session_id AS sessionId, d.recipe_id AS recipeId FROM course c JOIN session s ON s.course_id = c.id JOIN dish d ON d.session_id = s.id
        WHERE c.programme_id = :programmeId`,
      values,
    ),
  ]);
  const wordOn = new Map(words.map((word) => [word.sessionId, word]));
  const cooked = groupedBy(dishes, ({ sessionId }) => sessionId);
  return sessions.flatMap((session) => {
    const { closed = null, opened = null } = wordOn.get(session.id) ?? {};
    // Of two words in a row each comes a moment after the one before.
    if (!closed || (opened && opened > closed)) return [];
    return [{ ...session, closedAt: closed, recipeIds: cooked(session.id).map(({ recipeId }) => recipeId) }];
  });
}

/** What was noted of these sessions and says something: the newest of each thing, what was left at all, bad, or timed. */
export const tellingNotes = (db: Db, values: { programmeId: string }) =>
  select<{
    sessionId: string;
    what: 'left' | 'bad' | 'trim' | 'step' | 'job';
    item: string;
    percent: number | null;
    bad: number | null;
    pieces: number | null;
    /** Of a step: what it says. */
    words: string;
  }>(
    db,
    // Looked up from the few that say something: numbering all notes to find the newest took four times as long.
    `SELECT n.session_id AS sessionId, n.what, n.item, n.percent, n.bad, n.pieces, IF(n.what = 'step', n.words, '') AS words
       FROM close_note n JOIN session s ON s.id = n.session_id JOIN course c ON c.id = s.course_id
            LEFT JOIN close_note newer ON newer.session_id = n.session_id AND newer.what = n.what AND newer.item = n.item
              AND (newer.at > n.at OR newer.at = n.at AND newer.id > n.id)
      WHERE c.programme_id = :programmeId AND n.what IN ('left', 'bad', 'trim', 'step', 'job') AND (n.what <> 'left' OR n.percent > 0)
        AND newer.id IS NULL`,
    values,
  );

/** What was tapped as short in the classes of a programme. */
export const shortBySession = (db: Db, values: { programmeId: string }) =>
  select<{ sessionId: string; food: string; percent: number | null }>(
    db,
    `SELECT e.session_id AS sessionId, e.item AS food, MAX(CAST(JSON_VALUE(e.value, '$.percent') AS INT)) AS percent
       FROM class_event e JOIN session s ON s.id = e.session_id JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND e.what = 'short' GROUP BY e.session_id, e.item`,
    values,
  );

/** In which shop some foods were bought that sessions used, by session; and, with session null, where each was bought last. */
export const shopsOfFoods = (db: Db, values: { programmeId: string; foods: readonly string[] }) =>
  values.foods.length === 0
    ? Promise.resolve([])
    : select<{ sessionId: string | null; food: string; shop: string }>(
        db,
        `SELECT DISTINCT m.session_id AS sessionId, l.ingredient AS food, h.name AS shop
           FROM stock_lot l JOIN trip t ON t.id = l.trip_id JOIN shop h ON h.id = t.shop_id
                JOIN stock_move m ON m.lot_id = l.id AND m.kind = 'used' AND m.session_id IS NOT NULL
          WHERE l.programme_id = :programmeId AND l.ingredient IN (:foods)
         UNION SELECT NULL, ingredient, name FROM (
                 SELECT l.ingredient, h.name, ROW_NUMBER() OVER (PARTITION BY l.ingredient ORDER BY l.at DESC, l.id DESC) AS newest
                   FROM stock_lot l JOIN trip t ON t.id = l.trip_id JOIN shop h ON h.id = t.shop_id
                  WHERE l.programme_id = :programmeId AND l.ingredient IN (:foods)) x WHERE newest = 1`,
        values,
      );

/** The recipes that closed sessions cooked, each once. */
export const cookedRecipes = (db: Db, values: { programmeId: string }) =>
  select<{ id: string; title: string; version: number; body: RecipeBody }>(
    db,
    `SELECT r.id, r.title, r.version, r.body FROM recipe r WHERE r.programme_id = :programmeId
        AND r.id IN (SELECT d.recipe_id FROM close_note n JOIN dish d ON d.session_id = n.session_id WHERE n.what = 'closed')`,
    values,
  );

/** What was thought of each recipe, by the age of who tasted, the newest word of each where it was said with a name. */
export const votesByRecipe = (db: Db, values: { programmeId: string }) =>
  select<{ recipeId: string; title: string; age: number | null; face: Face; votes: number }>(
    db,
    `SELECT recipeId, title, age, face, COUNT(*) AS votes FROM (
       SELECT r.id AS recipeId, r.title, e.age, t.face, t.enrolment_id,
              ROW_NUMBER() OVER (PARTITION BY t.dish_id, COALESCE(t.enrolment_id, t.id) ORDER BY t.at DESC, t.id DESC) AS newest
         FROM tasting t JOIN dish d ON d.id = t.dish_id JOIN recipe r ON r.id = d.recipe_id LEFT JOIN enrolment e ON e.id = t.enrolment_id
        WHERE r.programme_id = :programmeId) x
      WHERE newest = 1 GROUP BY recipeId, title, age, face`,
    values,
  );

/** How often each question of attendance was answered with yes and no, by the mode of the session: the newest word of each person. */
export const answersByMode = (db: Db, values: { programmeId: string }) =>
  select<{ mode: string; state: string; count: number }>(
    db,
    `SELECT mode, state, COUNT(*) AS count FROM (
       SELECT s.mode, a.state, ROW_NUMBER() OVER (PARTITION BY a.session_id, a.enrolment_id,
                CASE WHEN a.state IN ('came', 'absent') THEN 1 WHEN a.state IN ('collected', 'not collected') THEN 2 ELSE 3 END
                ORDER BY a.at DESC, a.id DESC) AS newest
         FROM attendance a JOIN session s ON s.id = a.session_id JOIN course c ON c.id = s.course_id
        WHERE c.programme_id = :programmeId) x
      WHERE newest = 1 GROUP BY mode, state`,
    values,
  );

/** Packs of which food was thrown away because it was left over, against what came in of them. */
export const lostPacks = (db: Db, values: { programmeId: string }) =>
  select<{ ingredient: string; name: string; packGrams: number; lots: number; lost: number; came: number }>(
    db,
    `SELECT l.ingredient, l.name, l.pack_grams AS packGrams, COUNT(DISTINCT l.id) AS lots,
            SUM(IF(m.kind = 'thrown away' AND m.reason IN ('left over, not kept', 'past its day'), m.packs * l.pack_grams + m.grams, 0)) AS lost,
            SUM(IF(m.kind = 'received', m.packs * l.pack_grams + m.grams, 0)) AS came
       FROM stock_lot l JOIN stock_move m ON m.lot_id = l.id
      WHERE l.programme_id = :programmeId AND l.pack_grams IS NOT NULL AND m.kind IN ('received', 'thrown away')
      GROUP BY l.ingredient, l.name, l.pack_grams HAVING lost > 0 ORDER BY lost DESC LIMIT 20`,
    values,
  );

/** The dishes that courses cook, by session in order of time. */
export const dishesOfCourses = (db: Db, values: { courseIds: readonly string[] }) =>
  select<{ id: string; recipeId: string; title: string; date: string }>(
    db,
    `SELECT d.id, r.id AS recipeId, r.title, s.date FROM dish d JOIN session s ON s.id = d.session_id JOIN recipe r ON r.id = d.recipe_id
      WHERE s.course_id IN (:courseIds) AND s.status = 'planned' ORDER BY s.date, s.starts_at, d.position`,
    values,
  );

/** All versions of some recipes, oldest first. */
export const versionsAt = (db: Db, { ids }: { ids: readonly string[] }) =>
  find(db, db.models.recipeVersion, { recipeId: [...ids] }, [['version', 'ASC']]);
