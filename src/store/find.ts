// What is looked for by its name, from all rooms at once.
import { select } from './sql';
import type { Db } from './store';

/** Courses, sessions from a day on, people on their rolls, recipes and the crew of a programme: one query. */
export const findRows = (db: Db, values: { programmeId: string; from: string }) =>
  select<{
    kind: 'course' | 'session' | 'person' | 'recipe' | 'crew';
    id: string;
    title: string;
    beside: string;
    /** The course of a person. */
    of: string | null;
    date: string | null;
  }>(
    db,
    `SELECT 'course' AS kind, id, title, audience AS beside, NULL AS \`of\`, NULL AS date FROM course WHERE programme_id = :programmeId
     UNION ALL SELECT 'session', s.id, s.title, c.title, NULL, s.date FROM session s JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND s.status = 'planned' AND s.date >= :from
     UNION ALL SELECT 'person', e.id, e.name, c.title, c.id, NULL FROM enrolment e JOIN course c ON c.id = e.course_id
      WHERE c.programme_id = :programmeId AND e.status <> 'erased'
     UNION ALL SELECT 'recipe', id, title, '', NULL, NULL FROM recipe WHERE programme_id = :programmeId
     UNION ALL SELECT 'crew', id, name, '', NULL, NULL FROM crew_member WHERE programme_id = :programmeId AND erased_at IS NULL`,
    values,
  );
