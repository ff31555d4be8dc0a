// What those who look over several programmes are shown: counts and money, never a name of a family.
import { select } from './sql';
import type { Db } from './store';
import type { ProgrammeRow } from './tables/programme';

/** What somebody may look over, by their sign-in: a city, with the manner of one of its programmes, or (without one) the installation. */
export const overseersSignedIn = (db: Db, values: { signInId: string; now: Date; idleSince: Date }) =>
  select<
    { accountId: string; overseer: string; cityId: string | null; city: string | null; seenAt: Date } & Partial<
      Pick<ProgrammeRow, 'manner' | 'country' | 'currency' | 'safetyProfile' | 'timeZone'>
    >
  >(
    db,
    `SELECT o.account_id AS accountId, o.name AS overseer, o.city_id AS cityId, c.name AS city, i.seen_at AS seenAt,
            p.manner, p.country, p.currency, p.safety_profile AS safetyProfile, p.time_zone AS timeZone
       FROM sign_in i JOIN overseer o ON o.account_id = i.account_id LEFT JOIN city c ON c.id = o.city_id
       LEFT JOIN programme p ON p.id = (SELECT MIN(x.id) FROM programme x WHERE x.city_id = c.id)
      WHERE i.id = :signInId AND i.ended_at IS NULL AND i.expires_at > :now AND i.seen_at > :idleSince AND i.awaits_code = 0
      ORDER BY c.name`,
    values,
  );

/** Whose figures, of which days (YYYY-MM-DD, both included), looked at on which day, and how far ahead. */
export interface CitySpan {
  readonly cityId: string;
  readonly from: string;
  readonly to: string;
  readonly today: string;
  readonly soon: string;
}

const SESSIONS = 'session s JOIN course c ON c.id = s.course_id JOIN programme p ON p.id = c.programme_id';
const IN_SPAN = 'p.city_id = :cityId AND s.date BETWEEN :from AND :to';

const byProgramme = async <Row extends object>(db: Db, span: CitySpan, columns: string, rest: string) =>
  new Map(
    (
      await select<Row & { programmeId: string }>(
        db,
        `SELECT p.id AS programmeId, ${columns} FROM ${rest} GROUP BY p.id`,
        { ...span },
      )
    ).map((row) => [row.programmeId, row]),
  );

/** Counts and money of every programme of a city, by programme: seven queries, however many there are. */
export async function cityRows(db: Db, span: CitySpan) {
  const [programmes, sessions, people, seen, kits, hours, spent, budgets] = await Promise.all([
    select<{ id: string; name: string; currency: string; safetyProfile: 'us' | 'uk' }>(
      db,
      'SELECT id, name, currency, safety_profile AS safetyProfile FROM programme WHERE city_id = :cityId ORDER BY name, id',
      { ...span },
    ),
    byProgramme<{ held: number; cancelled: number; next: string | null }>(
      db,
      span,
      `SUM(s.status = 'planned' AND s.date BETWEEN :from AND :to AND s.date <= :today) AS held,
       SUM(s.status = 'cancelled' AND s.date BETWEEN :from AND :to) AS cancelled,
       DATE_FORMAT(MIN(CASE WHEN s.status = 'planned' AND s.date >= :today THEN s.date END), '%Y-%m-%d') AS next`,
      `${SESSIONS} WHERE p.city_id = :cityId AND (s.date BETWEEN :from AND :to OR s.date BETWEEN :today AND :soon)`,
    ),
    // Somebody on two rolls of one programme is one person.
    byProgramme<{ people: number }>(
      db,
      span,
      'COUNT(DISTINCT e.household_id, e.name) AS people',
      `enrolment e JOIN course c ON c.id = e.course_id JOIN programme p ON p.id = c.programme_id
        WHERE e.status = 'enrolled' AND e.course_id IN (SELECT s.course_id FROM ${SESSIONS} WHERE ${IN_SPAN} AND s.status = 'planned')`,
    ),
    // Of each question the newest answer counts.
    byProgramme<{ came: number; absent: number }>(
      db,
      span,
      "SUM(a.state IN ('came', 'collected')) AS came, SUM(a.state IN ('absent', 'not collected')) AS absent",
      `attendance a JOIN ${SESSIONS} ON s.id = a.session_id WHERE ${IN_SPAN} AND NOT EXISTS (
         SELECT 1 FROM attendance b WHERE b.session_id = a.session_id AND b.enrolment_id = a.enrolment_id AND (b.at, b.id) > (a.at, a.id)
          AND (b.state IN ('came', 'absent')) = (a.state IN ('came', 'absent'))
          AND (b.state IN ('collected', 'not collected')) = (a.state IN ('collected', 'not collected')))`,
    ),
    byProgramme<{ kits: number; calledBack: number }>(
      db,
      span,
      `COUNT(*) AS kits, SUM(EXISTS (SELECT 1 FROM pack_event e WHERE e.session_id = s.id AND e.kit_id = k.id AND e.action = 'called back')) AS calledBack`,
      `kit k JOIN ${SESSIONS} ON s.id = k.session_id WHERE ${IN_SPAN} AND s.status = 'planned'`,
    ),
    byProgramme<{ minutes: number }>(
      db,
      span,
      'SUM(h.went - h.came) AS minutes',
      `crew_hours h JOIN ${SESSIONS} ON s.id = h.session_id WHERE ${IN_SPAN} AND h.went IS NOT NULL`,
    ),
    byProgramme<{ spent: number }>(
      db,
      span,
      'SUM(t.paid) AS spent',
      'trip t JOIN programme p ON p.id = t.programme_id WHERE p.city_id = :cityId AND t.day BETWEEN :from AND :to AND t.paid IS NOT NULL',
    ),
    // A course's budget is for all of its sessions: those of the span have their part of it.
    byProgramme<{ budget: number | null; without: number }>(
      db,
      span,
      'SUM(d.budget_cents * d.here / d.sessions) AS budget, SUM(d.budget_cents IS NULL) AS without',
      `(SELECT c.id, c.programme_id, c.budget_cents, COUNT(*) AS sessions, SUM(s.date BETWEEN :from AND :to) AS here
          FROM ${SESSIONS} WHERE p.city_id = :cityId AND s.status = 'planned' GROUP BY c.id, c.programme_id, c.budget_cents
        HAVING here > 0) d JOIN programme p ON p.id = d.programme_id`,
    ),
  ]);
  return programmes.map((programme) => {
    const { id } = programme;
    const budget = budgets.get(id);
    return {
      ...programme,
      held: Number(sessions.get(id)?.held ?? 0),
      cancelled: Number(sessions.get(id)?.cancelled ?? 0),
      next: sessions.get(id)?.next ?? null,
      people: Number(people.get(id)?.people ?? 0),
      came: Number(seen.get(id)?.came ?? 0),
      absent: Number(seen.get(id)?.absent ?? 0),
      kits: Number(kits.get(id)?.kits ?? 0),
      calledBack: Number(kits.get(id)?.calledBack ?? 0),
      crewMinutes: Number(hours.get(id)?.minutes ?? 0),
      spent: Number(spent.get(id)?.spent ?? 0),
      /** Of courses that have one; null where one of them has none, and it says nothing of what is spent. */
      budget: budget && Number(budget.without) === 0 ? Math.round(Number(budget.budget)) : null,
    };
  });
}

/** Who of its city looks over a programme: its own people may know. */
export const overseersOf = (db: Db, values: { programmeId: string }) =>
  select<{ name: string; city: string | null }>(
    db,
    `SELECT o.name, c.name AS city FROM overseer o JOIN city c ON c.id = o.city_id JOIN programme p ON p.city_id = c.id
      WHERE p.id = :programmeId ORDER BY o.name`,
    values,
  );

/** How much programmes are and do, for whoever looks after the installation: a hundred of those whose name, or whose city's, holds a word. */
export const programmesStanding = (db: Db, values: { from: string; to: string; find: string }) =>
  select<{
    id: string;
    name: string;
    city: string | null;
    members: number;
    sessions: number;
    people: number;
    seenAt: Date | null;
  }>(
    db,
    `SELECT p.id, p.name, c.name AS city,
            (SELECT COUNT(*) FROM member m WHERE m.programme_id = p.id AND m.status = 'active') AS members,
            (SELECT COUNT(*) FROM session s JOIN course k ON k.id = s.course_id
              WHERE k.programme_id = p.id AND s.status = 'planned' AND s.date BETWEEN :from AND :to) AS sessions,
            (SELECT COUNT(*) FROM enrolment e JOIN course k ON k.id = e.course_id
              WHERE k.programme_id = p.id AND e.status = 'enrolled') AS people,
            (SELECT MAX(i.seen_at) FROM sign_in i JOIN member m ON m.id = i.member_id WHERE m.programme_id = p.id) AS seenAt
       FROM programme p LEFT JOIN city c ON c.id = p.city_id
      WHERE p.name LIKE CONCAT('%', :find, '%') OR c.name LIKE CONCAT('%', :find, '%') ORDER BY p.name, p.id LIMIT 100`,
    values,
  );

/** How large the database is: bytes of its tables with their indexes, the largest first. */
export const tableSizes = (db: Db) =>
  select<{ name: string; bytes: number; rows: number }>(
    db,
    `SELECT table_name AS name, data_length + index_length AS bytes, table_rows AS \`rows\` FROM information_schema.tables
      WHERE table_schema = DATABASE() ORDER BY bytes DESC LIMIT 8`,
    {},
  );

/** Jobs that were given up, newest first, without what they were about. */
export const failedJobs = (db: Db) =>
  select<{ id: string; kind: string; programme: string; at: Date; request: string }>(
    db,
    `SELECT j.id, j.kind, p.name AS programme, j.created_at AS at, j.request FROM job j JOIN programme p ON p.id = j.programme_id
      WHERE j.state = 'failed' ORDER BY j.created_at DESC LIMIT 10`,
    {},
  );
