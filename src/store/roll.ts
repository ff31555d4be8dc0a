import { LAST_DAY } from './sittings';
import { change, select } from './sql';
import type { Db } from './store';

/** Whether those of a household share a kit in a course. @returns 0 when nobody of it is there */
export const setSharedKit = (
  db: Db,
  values: { share: number; courseId: string; householdId: string; programmeId: string },
) =>
  change(
    db,
    `UPDATE enrolment e JOIN course c ON c.id = e.course_id SET e.shared_kit = :share
          WHERE e.course_id = :courseId AND e.household_id = :householdId AND c.programme_id = :programmeId
            AND e.status <> 'erased'`,
    values,
  );

/** The people of a household in all their courses. */
export const peopleOf = (db: Db, values: { householdId: string }) =>
  select<{
    id: string;
    name: string;
    age: number | null;
    courseId: string;
    course: string;
    status: string;
  }>(
    db,
    `SELECT e.id, e.name, e.age, e.course_id AS courseId, c.title AS course, e.status
         FROM enrolment e JOIN course c ON c.id = e.course_id
        WHERE e.household_id = :householdId AND e.status <> 'erased' ORDER BY e.name, c.title`,
    values,
  );

/** The households of a programme, with how many people each has, in which courses, and the last day on which somebody of it eats. */
export const householdsOf = (db: Db, values: { programmeId: string }) =>
  select<{ id: string; name: string; version: number; people: number; courses: string; lastDate: string }>(
    db,
    `SELECT h.id, h.name, h.version, COUNT(DISTINCT e.id) AS people,
              COALESCE(GROUP_CONCAT(DISTINCT c.title ORDER BY c.title SEPARATOR ', '), '') AS courses,
              DATE_FORMAT(COALESCE(MAX(${LAST_DAY}), DATE(h.created_at)), '%Y-%m-%d') AS lastDate
         FROM household h LEFT JOIN enrolment e ON e.household_id = h.id LEFT JOIN course c ON c.id = e.course_id
              LEFT JOIN session s ON s.course_id = e.course_id
        WHERE h.programme_id = :programmeId AND h.erased_at IS NULL
        GROUP BY h.id, h.name, h.version, h.created_at ORDER BY h.name`,
    values,
  );

/** Past sessions of a mode in which people were counted, the newest first: how many, and how many of them came. */
export const attendancePast = (
  db: Db,
  values: { yes: string; no: string; mode: string; before: string; programmeId: string; most: number },
) =>
  select<{ expected: number; came: number }>(
    db,
    `SELECT COUNT(*) AS expected, SUM(a.state = :yes) AS came FROM (
       SELECT x.session_id, x.state, ROW_NUMBER() OVER (PARTITION BY x.session_id, x.enrolment_id ORDER BY x.at DESC, x.id DESC) AS newest
         FROM attendance x WHERE x.state IN (:yes, :no)) a
       JOIN session s ON s.id = a.session_id JOIN course c ON c.id = s.course_id
      WHERE a.newest = 1 AND c.programme_id = :programmeId AND s.mode = :mode AND s.date < :before
      GROUP BY s.id, s.date ORDER BY s.date DESC LIMIT :most`,
    values,
  );
