import type { Outdoor } from '@/core/plan/place';
import type { Sitting } from '@/core/plan/sitting';
import { hold } from './hold';
import { find, insert, remove } from './query';
import { select } from './sql';
import type { Db } from './store';
import type { CourseGroupRow, SittingRow } from './tables/plan';

/** A sitting with the outdoor side of its place; null under a roof. */
export interface SittingAtPlace extends Sitting {
  readonly outdoor: Outdoor | null;
}

/** Brings the first group of a course that has several, for the columns below. */
export const JOIN_FIRST_GROUP = 'LEFT JOIN course_group g0 ON g0.course_id = s.course_id AND g0.position = 0';

/** Columns of a query over `session s` with its first group: its sittings, looked for only where there are groups. */
export const WITH_SITTINGS = `g0.name AS groupName, CASE WHEN g0.id IS NOT NULL THEN (
  SELECT JSON_ARRAYAGG(JSON_OBJECT('groupId', x.group_id, 'groupName', g.name, 'date', x.date,
         'startsAt', x.starts_at, 'place', x.place, 'placeId', x.place_id, 'instructorId', x.instructor_id, 'status', x.status,
         'outdoor', p.outdoor) ORDER BY g.position)
    FROM sitting x JOIN course_group g ON g.id = x.group_id LEFT JOIN place p ON p.id = x.place_id WHERE x.session_id = s.id) END AS sittings`;

/** The last civil day on which somebody eats of a session `s`: what `lastDayOf` in core/plan/sitting.ts says. */
export const LAST_DAY = `GREATEST(s.date, COALESCE(s.cook_by, s.date), COALESCE(
  (SELECT MAX(later.date) FROM sitting later WHERE later.session_id = s.id AND later.status = 'planned'), s.date))`;

/**
 * Every time that a session takes place, as a table for a query: once for itself (groupId ''), and once for each group
 * beside the first, with the group's name in its title. Cancelled when the session is, or the group's own sitting.
 */
export const MEETINGS = `(
  SELECT id, '' AS groupId, course_id AS courseId, number, title, date, starts_at AS startsAt, minutes, place,
         place_id AS placeId, instructor_id AS instructorId, mode, status, sequence FROM session
  UNION ALL SELECT s.id, x.group_id, s.course_id, s.number, CONCAT(s.title, ' (', g.name, ')'), x.date, x.starts_at,
         s.minutes, x.place, x.place_id, COALESCE(x.instructor_id, s.instructor_id), s.mode,
         IF(s.status = 'planned', x.status, s.status), s.sequence
    FROM sitting x JOIN session s ON s.id = x.session_id JOIN course_group g ON g.id = x.group_id)`;

/** What the columns above bring. */
export interface SittingColumns {
  readonly sittings: readonly SittingAtPlace[] | null;
  readonly groupName: string | null;
}

/** Sittings as a query brought them. */
export const readSittings = ({ sittings }: SittingColumns): readonly SittingAtPlace[] => sittings ?? [];

/** The groups that a course is given to, the first one first; none when it is given to one alone. */
export const groupsOf = (db: Db, courseId: string): Promise<CourseGroupRow[]> =>
  find(db, db.models.courseGroup, { courseId, ended: 0 }, [['position', 'ASC']]);

/** The sittings of all sessions of a course, with the names of their groups. */
export const sittingsOf = (db: Db, courseId: string) =>
  select<SittingRow & { groupName: string }>(
    db,
    `SELECT x.session_id AS sessionId, x.group_id AS groupId, g.name AS groupName, x.date, x.starts_at AS startsAt, x.place,
            x.place_id AS placeId, x.instructor_id AS instructorId, x.status
       FROM sitting x JOIN course_group g ON g.id = x.group_id WHERE g.course_id = :courseId ORDER BY x.date, g.position`,
    { courseId },
  );

/** Puts a session's sittings in place of those it had. */
export async function replaceSittings(db: Db, sessionId: string, sittings: readonly SittingRow[]): Promise<void> {
  await remove(db, db.models.sitting, { sessionId });
  await insert(db, db.models.sitting, sittings);
}

/**
 * Sessions `s` that are not over on a civil day `:from`: their own date, their last group's, or the day by which families
 * cook is not before it. The same as `lastDayOf` in core/plan/sitting.ts.
 */
export const NOT_OVER = `(s.date >= :from OR s.cook_by >= :from OR EXISTS
  (SELECT 1 FROM sitting later WHERE later.session_id = s.id AND later.status = 'planned' AND later.date >= :from))`;

/** Sessions that may need kits called back: of a course, one alone, or all of the programme. */
export type Touched =
  | { readonly courseId: string }
  | { readonly sessionId: string }
  | { readonly sessionIds: readonly string[] }
  | 'all';

/**
 * Sessions with locked kits that are not over on a civil day, held for the rest of the transaction, in order of id so that two
 * changes cannot hold each other up.
 */
export async function lockUneaten(
  db: Db,
  touched: Touched,
  values: { programmeId: string; from: string },
): Promise<{ id: string }[]> {
  const where =
    touched === 'all'
      ? ''
      : 'courseId' in touched
        ? 'AND s.course_id = :courseId'
        : 'sessionId' in touched
          ? 'AND s.id = :sessionId'
          : 'AND s.id IN (:sessionIds)';
  const uneaten = await select<{ id: string }>(
    db,
    `SELECT s.id FROM session s JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND ${NOT_OVER} ${where}
        AND EXISTS (SELECT 1 FROM kit_sheet k WHERE k.session_id = s.id) ORDER BY s.id FOR UPDATE`,
    { ...values, ...(touched === 'all' ? {} : touched) },
  );
  await hold(
    db,
    'session',
    uneaten.map(({ id }) => id),
  );
  return uneaten;
}
