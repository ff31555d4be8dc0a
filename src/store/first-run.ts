// What setting up asks of the database, and how a sample is taken away whole.
import type { SetUpCounts } from '@/core/plan/first-run';
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

/** How much a programme has of everything that is set up. */
export async function setUpCounts(db: Db, values: { programmeId: string }): Promise<SetUpCounts> {
  const [found] = await select<SetUpCounts>(
    db,
    `SELECT p.country,
            (SELECT COUNT(*) FROM place WHERE programme_id = p.id) AS places,
            (SELECT COUNT(*) FROM closure_calendar WHERE programme_id = p.id) AS closures,
            (SELECT COUNT(*) FROM course WHERE programme_id = p.id) AS courses,
            (SELECT COUNT(*) FROM session s JOIN course c ON c.id = s.course_id WHERE c.programme_id = p.id) AS sessions,
            (SELECT COUNT(*) FROM recipe WHERE programme_id = p.id) AS recipes,
            (SELECT COUNT(*) FROM enrolment e JOIN course c ON c.id = e.course_id WHERE c.programme_id = p.id) AS people,
            (SELECT COUNT(*) FROM kit_sheet k JOIN session s ON s.id = k.session_id JOIN course c ON c.id = s.course_id
              WHERE c.programme_id = p.id) AS locked
       FROM programme p WHERE p.id = :programmeId`,
    values,
  );
  if (!found) throw new Error('There is no such programme.');
  return found;
}

interface Reference {
  readonly child: string;
  readonly field: string;
  readonly hasId: number;
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
