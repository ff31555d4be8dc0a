import { select } from './query';
import { JOIN_FIRST_GROUP, readSittings, type SittingAtPlace, type SittingColumns, WITH_SITTINGS } from './sittings';
import type { Db } from './store';
import type { SessionRow } from './tables/plan';

/** A session with what its course says of all its sessions. */
export interface PlannedSession extends SessionRow {
  readonly courseTitle: string;
  readonly capacity: number | null;
  readonly uses: string;
  readonly rollClosesDays: number;
  readonly courseJobs: string;
  readonly cadence: string | null;
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
export const holdSessions = (db: Db, programmeId: string, ids: readonly string[]): Promise<SessionRow[]> =>
  select<SessionRow>(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.title, s.date, s.starts_at AS startsAt, s.minutes, s.place,
            s.place_id AS placeId, s.instructor_id AS instructorId, s.mode, s.status, s.sequence, s.cook_by AS cookBy,
            s.because, s.jobs, s.version
       FROM session s JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND s.id IN (:ids) ORDER BY s.id FOR UPDATE`,
    { programmeId, ids },
  );
