// What setting up asks of the database, and how a sample is taken away whole.
import type { FirstRun, SetUp } from '@/core/plan/first-run';
import { change, select } from './sql';
import type { Db } from './store';

/** Where setting up goes on: the newest course, and the first session to come that has no locked sheet. */
export async function whereToGoOn(db: Db, values: { programmeId: string; today: string }) {
  const [found] = await select<{ courseId: string | null; sessionId: string | null }>(
    db,
    `SELECT (SELECT MAX(id) FROM course WHERE programme_id = :programmeId) AS courseId,
            (SELECT s.id FROM session s JOIN course c ON c.id = s.course_id
              WHERE c.programme_id = :programmeId AND s.status = 'planned' AND s.date >= :today
                AND NOT EXISTS (SELECT 1 FROM kit_sheet k WHERE k.session_id = s.id)
              ORDER BY s.date, s.starts_at LIMIT 1) AS sessionId`,
    values,
  );
  return { courseId: found?.courseId ?? null, sessionId: found?.sessionId ?? null };
}

/** What a programme has of everything that is set up, and how far its first run has come: one query, whatever there is. */
export async function setUpNow(db: Db, values: { programmeId: string }): Promise<{ has: SetUp; firstRun: FirstRun }> {
  const has = (what: string) => `EXISTS (SELECT 1 FROM ${what})`;
  const [found] = await select<SetUp & { firstRun: FirstRun | string }>(
    db,
    `SELECT p.country <> '' AS country, ${has('place WHERE programme_id = p.id')} AS place,
            ${has('closure_calendar WHERE programme_id = p.id')} AS closures, ${has('course WHERE programme_id = p.id')} AS course,
            ${has('session s JOIN course c ON c.id = s.course_id WHERE c.programme_id = p.id')} AS sessions,
            ${has('recipe WHERE programme_id = p.id')} AS recipes,
            ${has('enrolment e JOIN course c ON c.id = e.course_id WHERE c.programme_id = p.id')} AS roll,
            ${has('kit_sheet k JOIN session s ON s.id = k.session_id JOIN course c ON c.id = s.course_id WHERE c.programme_id = p.id')} AS kits,
            p.first_run AS firstRun
       FROM programme p WHERE p.id = :programmeId`,
    values,
  );
  if (!found) throw new Error('There is no such programme.');
  const { firstRun, ...there } = found;
  return { has: there, firstRun: typeof firstRun === 'string' ? (JSON.parse(firstRun) as FirstRun) : firstRun };
}

interface Reference {
  readonly child: string;
  readonly field: string;
  readonly hasId: number;
}

/** What hangs on such a row and is nothing by itself: it goes with it. */
const OWN = {
  place: ['travel'],
  recipe: ['recipe_version', 'lesson_word'],
  household: ['access_link', 'asked_after', 'message'],
} as const;

/** Which of some rows something else still names, in any table: a session at a place, a dish of a recipe, a child of a household. */
export async function usedElsewhere(
  db: Db,
  table: keyof typeof OWN,
  ids: readonly string[],
): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set();
  const columns = await select<{ child: string; field: string }>(
    db,
    `SELECT table_name AS child, column_name AS field FROM information_schema.columns
      WHERE table_schema = DATABASE() AND column_name = :named AND table_name NOT IN (:own)
     UNION SELECT table_name, column_name FROM information_schema.key_column_usage
      WHERE table_schema = DATABASE() AND referenced_table_name = :table AND table_name NOT IN (:own)`,
    { table, named: `${table}_id`, own: [...OWN[table]] },
  );
  const used = new Set<string>();
  for (const { child, field } of columns) {
    const rows = await select<{ id: string }>(
      db,
      `SELECT DISTINCT ${field} AS id FROM ${child} WHERE ${field} IN (:ids)`,
      { ids },
    );
    for (const { id } of rows) used.add(id);
  }
  return used;
}

/**
 * Takes rows away with everything that hangs on them, whatever table it is in.
 *
 * @param ids of rows of the table
 */
export async function removeWhole(
  db: Db,
  table: string,
  ids: readonly string[],
  seen = new Set<string>(),
): Promise<void> {
  const fresh = ids.filter((id) => !seen.has(`${table} ${id}`));
  if (fresh.length === 0) return;
  for (const id of fresh) seen.add(`${table} ${id}`);
  const references = await select<Reference>(
    db,
    `SELECT k.table_name AS child, k.column_name AS field,
            EXISTS (SELECT 1 FROM information_schema.columns c
                     WHERE c.table_schema = k.table_schema AND c.table_name = k.table_name AND c.column_name = 'id') AS hasId
       FROM information_schema.key_column_usage k
      WHERE k.table_schema = DATABASE() AND k.referenced_table_name = :table AND k.referenced_column_name = 'id'`,
    { table },
  );
  for (const { child, field, hasId } of references) {
    // Names come from the database's own list of its tables.
    if (hasId) {
      const rows = await select<{ id: string }>(db, `SELECT id FROM ${child} WHERE ${field} IN (:ids)`, { ids: fresh });
      await removeWhole(
        db,
        child,
        rows.map(({ id }) => id),
        seen,
      );
    } else await change(db, `DELETE FROM ${child} WHERE ${field} IN (:ids)`, { ids: fresh });
  }
  await change(db, `DELETE FROM ${table} WHERE id IN (:ids)`, { ids: fresh });
}
