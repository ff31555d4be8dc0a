import { hold } from './hold';
import {
  JOIN_FIRST_GROUP,
  MEETINGS,
  readSittings,
  type SittingAtPlace,
  type SittingColumns,
  WITH_SITTINGS,
} from './sittings';
import { change, select } from './sql';
import type { Db } from './store';
import type { CalendarFeedRow, ClosureCalendarRow, CourseRow, SessionRow } from './tables/plan';

/** A session with what its course says of all its sessions. */
export interface PlannedSession extends SessionRow {
  readonly courseTitle: string;
  readonly capacity: number | null;
  readonly uses: CourseRow['uses'];
  readonly rollClosesDays: number;
  readonly courseJobs: CourseRow['jobs'];
  readonly cadence: CourseRow['cadence'];
  readonly seasonFrom: string | null;
  readonly sittings: readonly SittingAtPlace[];
  /** What the first of several groups is called. */
  readonly groupName: string | null;
  /** Enrolled, by the group they are in, and the mode each has of their own ('' for the session's). */
  readonly people: readonly PeopleCount[];
  readonly dishes: number;
  /** How far it is: a locked sheet, a mark that the shopping is done. */
  readonly locked: boolean;
  readonly bought: boolean;
}

/** So many people of a course who have a group (null: none) and a mode in common. */
export interface PeopleCount {
  readonly courseId: string;
  readonly groupId: string | null;
  readonly mode: string;
  readonly count: number;
}

/** Sessions of a programme between two days that are not cancelled, in order of time: two queries. */
export async function plannedSessions(
  db: Db,
  programmeId: string,
  { from, to }: { readonly from: string; readonly to: string },
): Promise<PlannedSession[]> {
  const rows = await select<
    Omit<PlannedSession, 'people' | 'sittings' | 'locked' | 'bought'> &
      SittingColumns & { locked: number; bought: number | null }
  >(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.title, s.date, s.starts_at AS startsAt, s.minutes, s.place,
            s.place_id AS placeId, s.mode, s.status, s.sequence, s.cook_by AS cookBy, s.because, s.jobs, s.version,
            COALESCE(s.instructor_id, c.instructor_id) AS instructorId, c.title AS courseTitle, c.capacity, c.uses,
            c.roll_closes_days AS rollClosesDays, c.jobs AS courseJobs, c.cadence, c.season_from AS seasonFrom,
            (SELECT COUNT(*) FROM dish d WHERE d.session_id = s.id) AS dishes,
            EXISTS (SELECT 1 FROM kit_sheet k WHERE k.session_id = s.id) AS locked,
            (SELECT m.done FROM stage_mark m WHERE m.session_id = s.id AND m.stage = 'buying' ORDER BY m.at DESC, m.id DESC LIMIT 1) AS bought,
            ${WITH_SITTINGS}
       FROM session s JOIN course c ON c.id = s.course_id ${JOIN_FIRST_GROUP}
      WHERE c.programme_id = :programmeId AND s.status = 'planned' AND s.date BETWEEN :from AND :to
      ORDER BY s.date, s.starts_at, s.id`,
    { programmeId, from, to },
  );
  const counts = await select<PeopleCount>(
    db,
    `SELECT e.course_id AS courseId, e.group_id AS groupId, COALESCE(e.mode, '') AS mode, COUNT(*) AS count
       FROM enrolment e JOIN course c ON c.id = e.course_id
      WHERE c.programme_id = :programmeId AND e.status = 'enrolled' GROUP BY e.course_id, e.group_id, COALESCE(e.mode, '')`,
    { programmeId },
  );
  const byCourse = new Map<string, PeopleCount[]>();
  for (const count of counts) byCourse.set(count.courseId, [...(byCourse.get(count.courseId) ?? []), count]);
  return rows.map(({ locked, bought, ...row }) => ({
    ...row,
    sittings: readSittings(row),
    people: byCourse.get(row.courseId) ?? [],
    locked: locked === 1,
    bought: bought === 1,
  }));
}

/** Closures of a programme that touch a span of days: one query. */
export const closuresBetween = (db: Db, programmeId: string, from: string, to: string) =>
  select<{
    title: string;
    calendar: string;
    fromDate: string;
    toDate: string;
    fromTime: string | null;
    toTime: string | null;
    placeId: string | null;
  }>(
    db,
    `SELECT f.title, k.name AS calendar, f.from_date AS fromDate, f.to_date AS toDate, f.from_time AS fromTime,
            f.to_time AS toTime, k.place_id AS placeId
       FROM closure f JOIN closure_calendar k ON k.id = f.calendar_id
      WHERE k.programme_id = :programmeId AND f.to_date >= :from AND f.from_date <= :to ORDER BY f.from_date`,
    { programmeId, from, to },
  );

/** Those who can teach: coordinators and instructors, by name. */
export const teachers = (db: Db, programmeId: string) =>
  select<{ id: string; name: string }>(
    db,
    `SELECT id, name FROM member WHERE programme_id = :programmeId AND status = 'active' AND role IN ('coordinator', 'instructor')
      ORDER BY name, id`,
    { programmeId },
  );

/** Ways between the places of a programme. */
export const travelOf = (db: Db, programmeId: string) =>
  select<{ fromId: string; toId: string; minutes: number }>(
    db,
    `SELECT t.from_id AS fromId, t.to_id AS toId, t.minutes FROM travel t JOIN place p ON p.id = t.from_id
      WHERE p.programme_id = :programmeId`,
    { programmeId },
  );

/** Sessions as they are, held for the rest of the transaction, in order of id so that two changes cannot hold each other up. */
export async function holdSessions(db: Db, programmeId: string, ids: readonly string[]): Promise<SessionRow[]> {
  if (ids.length === 0) return [];
  await hold(db, 'session', ids, 'course_id IN (SELECT id FROM course WHERE programme_id = :programmeId)', {
    programmeId,
  });
  return select<SessionRow>(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.title, s.date, s.starts_at AS startsAt, s.minutes, s.place,
            s.place_id AS placeId, s.instructor_id AS instructorId, s.mode, s.status, s.sequence, s.cook_by AS cookBy,
            s.because, s.jobs, s.version
       FROM session s JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND s.id IN (:ids) ORDER BY s.id`,
    { programmeId, ids },
  );
}

/** Sessions of a course that are still to come. */
export const comingIds = (db: Db, values: { courseId: string; today: string }) =>
  select<{ id: string }>(
    db,
    "SELECT id FROM session WHERE course_id = :courseId AND status = 'planned' AND date >= :today",
    values,
  );

/** The next session of a course. */
export const nextSessions = (db: Db, values: { courseId: string; today: string }) =>
  select<{ id: string; title: string; date: string }>(
    db,
    "SELECT id, title, date FROM session WHERE course_id = :courseId AND status = 'planned' AND date >= :today ORDER BY date, starts_at LIMIT 1",
    values,
  );

/** How many servings of a dish are made before class. */
export const setSwapIn = (db: Db, values: { servings: number; id: string }) =>
  change(db, 'UPDATE dish SET swap_in = :servings WHERE id = :id', values);

/** Holds a course for the rest of the transaction, so that two who change it see each other. */
export const lockCourseRow = (db: Db, values: { courseId: string }) => hold(db, 'course', [values.courseId]);

/** The sessions of a course that are still to come. */
export const comingOf = (db: Db, values: { courseId: string; today: string }) =>
  select<{ id: string; date: string; version: number }>(
    db,
    `SELECT id, date, version FROM session WHERE course_id = :courseId AND status = 'planned' AND date >= :today ORDER BY id`,
    values,
  );

/** Dishes go to another session. */
export const moveDishes = (db: Db, values: { to: string; ids: readonly string[] }) =>
  change(db, 'UPDATE dish SET session_id = :to WHERE id IN (:ids)', values);

/** The calendar addresses of a programme that still answer, oldest first. */
export const feedsOf = (db: Db, values: { programmeId: string }) =>
  select<{
    id: string;
    scope: string;
    withJobs: number;
    createdAt: Date;
    what: string | null;
    madeBy: string | null;
  }>(
    db,
    `SELECT f.id, f.scope, f.with_jobs AS withJobs, f.created_at AS createdAt, COALESCE(c.title, p.name, m.name) AS what, b.name AS madeBy
         FROM calendar_feed f LEFT JOIN course c ON f.scope = 'course' AND c.id = f.scope_id
         LEFT JOIN place p ON f.scope = 'place' AND p.id = f.scope_id
         LEFT JOIN member m ON f.scope = 'instructor' AND m.id = f.scope_id
         LEFT JOIN member b ON b.id = f.created_by
        WHERE f.programme_id = :programmeId AND f.revoked_at IS NULL ORDER BY f.created_at`,
    values,
  );

/** Ends a calendar address. @returns 0 when there was none */
export const endFeed = (db: Db, values: { now: Date; feedId: string; programmeId: string }) =>
  change(
    db,
    'UPDATE calendar_feed SET revoked_at = :now WHERE id = :feedId AND programme_id = :programmeId AND revoked_at IS NULL',
    values,
  );

/** All dishes of a session go to another. */
export const joinDishes = (db: Db, values: { sessionId: string; madeId: string }) =>
  change(db, 'UPDATE dish SET session_id = :sessionId WHERE session_id = :madeId', values);

/** How many planned sessions to come each place holds. */
export const sessionsByPlace = (db: Db, values: { programmeId: string; today: string }) =>
  select<{ placeId: string; sessions: number }>(
    db,
    `SELECT s.place_id AS placeId, COUNT(*) AS sessions FROM session s JOIN course c ON c.id = s.course_id
        WHERE c.programme_id = :programmeId AND s.place_id IS NOT NULL AND s.date >= :today AND s.status = 'planned'
        GROUP BY s.place_id`,
    values,
  );

/** Sessions that already name a new place are held in it from now on. */
export const placeSessions = (db: Db, values: { id: string; programmeId: string; name: string }) =>
  change(
    db,
    `UPDATE session s JOIN course c ON c.id = s.course_id SET s.place_id = :id
            WHERE c.programme_id = :programmeId AND s.place_id IS NULL AND s.place = :name`,
    values,
  );

/** The same for the sittings of groups. */
export const placeSittings = (db: Db, values: { id: string; programmeId: string; name: string }) =>
  change(
    db,
    `UPDATE sitting x JOIN course_group g ON g.id = x.group_id JOIN course c ON c.id = g.course_id
              SET x.place_id = :id WHERE c.programme_id = :programmeId AND x.place_id IS NULL AND x.place = :name`,
    values,
  );

/** What is still to come at a place, first the next. */
export const comingAt = (db: Db, values: { placeId: string; today: string }) =>
  select<{ title: string; date: string }>(
    db,
    `SELECT title, date FROM session WHERE place_id = :placeId AND date >= :today AND status = 'planned'
         UNION ALL SELECT CONCAT(s.title, ' (', g.name, ')'), x.date FROM sitting x JOIN session s ON s.id = x.session_id
           JOIN course_group g ON g.id = x.group_id
          WHERE x.place_id = :placeId AND x.date >= :today AND x.status = 'planned' AND s.status = 'planned'
         ORDER BY date`,
    values,
  );

/** Forgets the ways from and to a place. */
export const forgetTravel = (db: Db, values: { placeId: string }) =>
  change(db, 'DELETE FROM travel WHERE from_id = :placeId OR to_id = :placeId', values);

/** Takes away the closures of one place alone. */
export const forgetClosuresOf = (db: Db, values: { placeId: string }) =>
  change(
    db,
    'DELETE f FROM closure f JOIN closure_calendar k ON k.id = f.calendar_id WHERE k.place_id = :placeId',
    values,
  );

/** The courses of a programme, with how many sessions, people, and when the next meets. */
export const coursesWithCounts = (db: Db, values: { today: string; programmeId: string }) =>
  select<{ id: string; title: string; audience: string; sessions: number; people: number; next: string | null }>(
    db,
    `SELECT c.id, c.title, c.audience,
              (SELECT COUNT(*) FROM session s WHERE s.course_id = c.id AND s.status = 'planned') AS sessions,
              (SELECT COUNT(*) FROM enrolment e WHERE e.course_id = c.id AND e.status = 'enrolled') AS people,
              (SELECT MIN(s.date) FROM session s WHERE s.course_id = c.id AND s.status = 'planned' AND s.date >= :today) AS next
         FROM course c WHERE c.programme_id = :programmeId ORDER BY c.title`,
    values,
  );

/** The closure calendars of a programme. */
export const closureCalendarsOf = (db: Db, values: { programmeId: string }) =>
  select<Omit<ClosureCalendarRow, 'programmeId'> & { placeName: string | null }>(
    db,
    `SELECT k.id, k.name, k.kind, k.region, k.place_id AS placeId, p.name AS placeName
         FROM closure_calendar k LEFT JOIN place p ON p.id = k.place_id
        WHERE k.programme_id = :programmeId ORDER BY k.name`,
    values,
  );

/** Holds a session for the rest of the transaction: whoever calls kits back, or locks its sheet, waits. */
export const lockSessionRow = (db: Db, values: { sessionId: string }) => hold(db, 'session', [values.sessionId]);

/** What a course changes about its jobs, held for the rest of the transaction. */
export async function heldJobs(db: Db, values: { courseId: string }): Promise<Pick<CourseRow, 'jobs'>[]> {
  await hold(db, 'course', [values.courseId]);
  return select<Pick<CourseRow, 'jobs'>>(db, 'SELECT jobs FROM course WHERE id = :courseId', values);
}

/** Planned meetings of a programme in which somebody has a duty, by when their food is eaten. */
export const dutiesBetween = (db: Db, values: { programmeId: string; from: string; to: string }) =>
  select<{
    id: string;
    /** '' for the first group, or the only one. */
    groupId: string;
    title: string;
    courseTitle: string;
    date: string;
    startsAt: string;
    place: string;
    cookBy: string | null;
    locked: number;
  }>(
    db,
    `SELECT m.id, m.groupId, m.title, c.title AS courseTitle, m.date, m.startsAt, m.place, s.cook_by AS cookBy,
              EXISTS (SELECT 1 FROM kit_sheet k WHERE k.session_id = m.id) AS locked
         FROM ${MEETINGS} m
         JOIN course c ON c.id = m.courseId JOIN session s ON s.id = m.id
        WHERE c.programme_id = :programmeId AND m.status = 'planned'
          AND GREATEST(m.date, COALESCE(s.cook_by, m.date)) >= :from AND m.date <= :to
        ORDER BY m.date, m.startsAt, m.id`,
    values,
  );

/** Tables that name a place beside its id. */
const NAMING = ['session', 'sitting', 'course_group'];

/** Whatever is held at a place names it anew. */
export async function renamePlace(db: Db, values: { placeId: string; name: string }): Promise<void> {
  for (const table of NAMING) await change(db, `UPDATE ${table} SET place = :name WHERE place_id = :placeId`, values);
}

/** What was held at a place that is taken away keeps the name alone. */
export async function leavePlace(db: Db, values: { placeId: string }): Promise<void> {
  for (const table of NAMING) await change(db, `UPDATE ${table} SET place_id = NULL WHERE place_id = :placeId`, values);
}

/** A meeting as a calendar shows it. */
type MeetingRow = Omit<SessionRow, 'cookBy' | 'because' | 'jobs' | 'extras' | 'version'> & {
  /** '' for the first group, or the only one. */
  readonly groupId: string;
  readonly courseTitle: string;
  readonly teacher: string | null;
};

/** Meetings of what a calendar shows. @param scopeId the course, place or instructor; none for all */
export const meetingsIn = (
  db: Db,
  scope: CalendarFeedRow['scope'],
  values: { programmeId: string; scopeId: string | null; from: string; to: string },
) => {
  const where = {
    programme: '',
    course: 'AND m.courseId = :scopeId',
    place: 'AND m.placeId = :scopeId',
    instructor: 'AND COALESCE(m.instructorId, c.instructor_id) = :scopeId',
  }[scope];
  return select<MeetingRow>(
    db,
    `SELECT m.*, c.title AS courseTitle, t.name AS teacher
       FROM ${MEETINGS} m
       JOIN course c ON c.id = m.courseId LEFT JOIN member t ON t.id = COALESCE(m.instructorId, c.instructor_id)
      WHERE c.programme_id = :programmeId AND m.date BETWEEN :from AND :to ${where} ORDER BY m.date, m.startsAt, m.id`,
    values,
  );
};

/** Closures of a span that hold for every place and the whole day. */
export const closedDays = (db: Db, values: { programmeId: string; from: string; to: string }) =>
  select<{ from: string; to: string; title: string; calendar: string }>(
    db,
    `SELECT c.from_date AS \`from\`, c.to_date AS \`to\`, c.title, k.name AS calendar
       FROM closure c JOIN closure_calendar k ON k.id = c.calendar_id
      WHERE k.programme_id = :programmeId AND k.place_id IS NULL AND c.from_time IS NULL AND c.to_date >= :from AND c.from_date <= :to`,
    values,
  );

/** The sessions of a span that are held, by day. */
export const sessionDays = (db: Db, values: { programmeId: string; from: string; to: string }) =>
  select<{ date: string; title: string }>(
    db,
    `SELECT s.date, CONCAT(k.title, ': ', s.title) AS title FROM session s JOIN course k ON k.id = s.course_id
      WHERE k.programme_id = :programmeId AND s.status = 'planned' AND s.date BETWEEN :from AND :to ORDER BY s.date, s.starts_at`,
    values,
  );
