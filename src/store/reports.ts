// What reports ask of the database.
import type { RecipeBody } from '@/contracts/recipe';
import type { Face } from '@/core/classday/tasting';
import type { AttendanceState } from '@/core/roll/attendance';
import { select } from './sql';
import type { Db } from './store';

/** Which past sessions a report is of: all between two days, those of one course, or one. */
export interface ReportScope {
  readonly programmeId: string;
  readonly from: string;
  readonly to: string;
  /** '' for all. */
  readonly courseId: string;
  readonly sessionId: string;
}

/** Over `session s JOIN course c`: those of a report. */
const IN_SCOPE = `c.programme_id = :programmeId AND s.date BETWEEN :from AND :to AND (:courseId = '' OR c.id = :courseId)
   AND (:sessionId = '' OR s.id = :sessionId)`;

const inScope = <Row extends object>(db: Db, scope: ReportScope, columns: string, table: string, rest = '') =>
  select<Row>(
    db,
    `SELECT ${columns} FROM ${table} x JOIN session s ON s.id = x.session_id JOIN course c ON c.id = s.course_id
      WHERE ${IN_SCOPE} ${rest}`,
    { ...scope },
  );

/** The sessions of a report, cancelled ones too, in order of time. */
export const reportSessions = (db: Db, scope: ReportScope) =>
  select<{
    id: string;
    courseId: string;
    course: string;
    title: string;
    date: string;
    startsAt: string;
    minutes: number;
    mode: string;
    status: 'planned' | 'cancelled';
    kits: number;
    incidents: number;
  }>(
    db,
    `SELECT s.id, c.id AS courseId, c.title AS course, s.title, s.date, s.starts_at AS startsAt, s.minutes, s.mode, s.status,
            (SELECT COUNT(*) FROM kit k WHERE k.session_id = s.id) AS kits,
            (SELECT COUNT(*) FROM incident i WHERE i.session_id = s.id AND i.about_id IS NULL) AS incidents
       FROM session s JOIN course c ON c.id = s.course_id WHERE ${IN_SCOPE} ORDER BY s.date, s.starts_at, s.id`,
    { ...scope },
  );

/** Everybody who was seen at these sessions, with what was noted of them in order: "absent|came". */
export const reportSeen = (db: Db, scope: ReportScope) =>
  select<{ sessionId: string; enrolmentId: string; states: string }>(
    db,
    `SELECT x.session_id AS sessionId, x.enrolment_id AS enrolmentId,
            GROUP_CONCAT(x.state ORDER BY x.at, x.id SEPARATOR '|') AS states
       FROM attendance x JOIN session s ON s.id = x.session_id JOIN course c ON c.id = s.course_id
      WHERE ${IN_SCOPE} GROUP BY x.session_id, x.enrolment_id`,
    { ...scope },
  );

/** The rolls of the courses of these sessions: whose family, and the name by which the same person on two rolls is known. */
export const reportPeople = (db: Db, scope: ReportScope) =>
  select<{ id: string; householdId: string; name: string; age: number | null; servings: number }>(
    db,
    `SELECT e.id, e.household_id AS householdId, e.name, e.age, e.servings FROM enrolment e
      WHERE e.course_id IN (SELECT s.course_id FROM session s JOIN course c ON c.id = s.course_id WHERE ${IN_SCOPE})`,
    { ...scope },
  );

export const reportTastings = (db: Db, scope: ReportScope) =>
  inScope<{ sessionId: string; dishId: string; enrolmentId: string | null; face: Face }>(
    db,
    scope,
    'x.session_id AS sessionId, x.dish_id AS dishId, x.enrolment_id AS enrolmentId, x.face',
    'tasting',
    'ORDER BY x.at, x.id',
  );

export const reportStays = (db: Db, scope: ReportScope) =>
  inScope<{ sessionId: string; crewId: string; came: number; went: number }>(
    db,
    scope,
    'x.session_id AS sessionId, x.crew_id AS crewId, x.came, x.went',
    'crew_hours',
    'AND x.went IS NOT NULL',
  );

/** The dishes of these sessions, and the recipes they cook, each sent once. */
export async function reportDishes(db: Db, scope: ReportScope) {
  const rows = await select<{ id: string; sessionId: string | null; recipeId: string | null; body: RecipeBody | null }>(
    db,
    `SELECT d.id, d.session_id AS sessionId, d.recipe_id AS recipeId, NULL AS body
       FROM dish d JOIN session s ON s.id = d.session_id JOIN course c ON c.id = s.course_id WHERE ${IN_SCOPE}
     UNION ALL SELECT r.id, NULL, NULL, r.body FROM recipe r WHERE r.id IN (
       SELECT d.recipe_id FROM dish d JOIN session s ON s.id = d.session_id JOIN course c ON c.id = s.course_id WHERE ${IN_SCOPE})`,
    { ...scope },
  );
  return {
    dishes: rows.flatMap(({ id, sessionId, recipeId }) => (sessionId && recipeId ? [{ id, sessionId, recipeId }] : [])),
    recipes: new Map(rows.flatMap(({ id, body }) => (body ? [[id, body] as const] : []))),
  };
}

/**
 * What was taken off the shelf for these sessions; and, where all of a span is reported, what came as a gift and what was thrown away
 * in it.
 */
export const reportMoves = (db: Db, scope: ReportScope) =>
  select<{
    sessionId: string | null;
    kind: 'used' | 'received' | 'thrown away';
    packs: number;
    grams: number;
    ingredient: string;
    packGrams: number | null;
    price: number | null;
    origin: string;
  }>(
    db,
    `SELECT m.session_id AS sessionId, m.kind, SUM(m.packs) AS packs, SUM(m.grams) AS grams, l.ingredient, l.pack_grams AS packGrams, l.price, l.origin
       FROM stock_move m JOIN stock_lot l ON l.id = m.lot_id
      WHERE m.programme_id = :programmeId AND (
        (m.kind IN ('used', 'thrown away') AND m.session_id IN (SELECT s.id FROM session s JOIN course c ON c.id = s.course_id WHERE ${IN_SCOPE}))
        OR (:courseId = '' AND :sessionId = '' AND m.day BETWEEN :from AND :to AND (m.kind = 'thrown away' AND m.session_id IS NULL OR m.kind = 'received' AND l.origin = 'given')))
      GROUP BY m.session_id, m.kind, l.id, l.ingredient, l.pack_grams, l.price, l.origin`,
    { ...scope },
  );

/** What reports can be of: the courses, whoever is reported to, and the title of one session; in one query. */
export async function reportSubjects(db: Db, values: { programmeId: string; sessionId: string }) {
  const rows = await select<{ kind: 'course' | 'funder' | 'session'; id: string; title: string }>(
    db,
    `SELECT 'course' AS kind, id, title FROM course WHERE programme_id = :programmeId
     UNION ALL SELECT 'funder', id, name FROM funder WHERE programme_id = :programmeId
     UNION ALL SELECT 'session', s.id, s.title FROM session s JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND s.id = :sessionId
      ORDER BY title`,
    values,
  );
  const of = (kind: string) => rows.filter((row) => row.kind === kind).map(({ id, title }) => ({ id, title }));
  return { courses: of('course'), funders: of('funder'), session: of('session')[0]?.title };
}

/** What is recorded of the people of a household: their sessions with the dishes ("id:title|id:title"), and what they tasted. */
export async function recordOf(db: Db, values: { householdId: string }) {
  const [people, marks, tastings] = await Promise.all([
    select<{ id: string; name: string; course: string }>(
      db,
      `SELECT e.id, e.name, c.title AS course FROM enrolment e JOIN course c ON c.id = e.course_id
        WHERE e.household_id = :householdId ORDER BY e.name, c.title`,
      values,
    ),
    select<{
      enrolmentId: string;
      state: AttendanceState;
      sessionId: string;
      date: string;
      title: string;
      dishes: string | null;
    }>(
      db,
      `SELECT a.enrolment_id AS enrolmentId, a.state, s.id AS sessionId, s.date, s.title,
              (SELECT GROUP_CONCAT(CONCAT(d.id, ':', r.title) ORDER BY d.position SEPARATOR '|')
                 FROM dish d JOIN recipe r ON r.id = d.recipe_id WHERE d.session_id = s.id) AS dishes
         FROM attendance a JOIN enrolment e ON e.id = a.enrolment_id JOIN session s ON s.id = a.session_id
        WHERE e.household_id = :householdId ORDER BY s.date, s.starts_at, a.at, a.id`,
      values,
    ),
    select<{ sessionId: string; dishId: string; enrolmentId: string; face: Face; body: RecipeBody }>(
      db,
      `SELECT t.session_id AS sessionId, t.dish_id AS dishId, t.enrolment_id AS enrolmentId, t.face, r.body
         FROM tasting t JOIN enrolment e ON e.id = t.enrolment_id JOIN dish d ON d.id = t.dish_id JOIN recipe r ON r.id = d.recipe_id
        WHERE e.household_id = :householdId ORDER BY t.at, t.id`,
      values,
    ),
  ]);
  return { people, marks, tastings };
}
