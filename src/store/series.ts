import { select } from './query';
import type { IssueRow } from './rows';
import type { Db } from './store';

/** A dish as far as earlier kits are counted from it. */
export interface SeriesDish {
  readonly id: string;
  readonly recipeId: string;
  readonly recipeVersion: number;
  readonly title: string;
  readonly body: string;
  readonly fillings: string;
  readonly ways: string;
  readonly serves: number | null;
}

/** A session of a course as those after it look back on it: what its kits handed out, or will. */
export interface SeriesSession {
  readonly id: string;
  readonly courseId: string;
  readonly number: number;
  readonly date: string;
  readonly startsAt: string;
  readonly mode: string;
  /** Its kits are locked: what they hand out is written down. */
  readonly isLocked: boolean;
  readonly dishes: readonly SeriesDish[];
  readonly issues: readonly Omit<IssueRow, 'sessionId'>[];
  /** Who is away, left out, or never got their kit. */
  readonly missing: readonly string[];
}

type SessionColumns = Omit<SeriesSession, 'isLocked' | 'dishes' | 'issues' | 'missing'> & {
  readonly isLocked: number;
  readonly dishId: string | null;
} & Omit<SeriesDish, 'id'>;

interface Noted {
  readonly sessionId: string;
  readonly enrolmentId: string;
  readonly supplyId: string | null;
  readonly units: number;
  readonly drawn: string;
}

/** All sessions of courses that hand out supplies, in order, in two queries however many there are. */
export async function loadSeries(db: Db, courseIds: readonly string[]): Promise<SeriesSession[]> {
  if (courseIds.length === 0) return [];
  const asRows = select<SessionColumns>(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.date, s.starts_at AS startsAt, s.mode,
            EXISTS (SELECT 1 FROM kit_sheet k WHERE k.session_id = s.id) AS isLocked, d.id AS dishId, d.recipe_id AS recipeId,
            r.version AS recipeVersion, r.title, r.body, d.fillings, d.ways, d.serves
       FROM session s LEFT JOIN dish d ON d.session_id = s.id LEFT JOIN recipe r ON r.id = d.recipe_id
      WHERE s.course_id IN (:courseIds) AND s.status = 'planned' ORDER BY s.date, s.starts_at, s.id, d.position`,
    { courseIds },
  );
  // Of attendance the newest answer counts; whoever has no kit lacks what it held.
  const asNoted = select<Noted>(
    db,
    `SELECT i.session_id AS sessionId, i.enrolment_id AS enrolmentId, i.supply_id AS supplyId, i.units, i.drawn
       FROM issue i JOIN session s ON s.id = i.session_id WHERE s.course_id IN (:courseIds)
     UNION ALL SELECT a.session_id, a.enrolment_id, NULL, 0, '' FROM away a JOIN session s ON s.id = a.session_id
      WHERE s.course_id IN (:courseIds) AND a.mode IS NULL
     UNION ALL SELECT x.session_id, x.enrolment_id, NULL, 0, '' FROM kit_exclusion x JOIN session s ON s.id = x.session_id
      WHERE s.course_id IN (:courseIds)
     UNION ALL SELECT t.session_id, t.enrolment_id, NULL, 0, '' FROM (
       SELECT a.session_id, a.enrolment_id, a.state, ROW_NUMBER() OVER (PARTITION BY a.session_id, a.enrolment_id
              ORDER BY a.at DESC, a.id DESC) AS newest
         FROM attendance a JOIN session s ON s.id = a.session_id
        WHERE s.course_id IN (:courseIds) AND a.state IN ('collected', 'not collected')) AS t
      WHERE t.newest = 1 AND t.state = 'not collected'`,
    { courseIds },
  );
  const [rows, noted] = await Promise.all([asRows, asNoted]);
  const sessions = new Map<string, SeriesSession & { dishes: SeriesDish[] }>();
  for (const { dishId, recipeId, recipeVersion, title, body, fillings, ways, serves, isLocked, ...session } of rows) {
    const own = sessions.get(session.id) ?? {
      ...session,
      isLocked: isLocked === 1,
      dishes: [],
      issues: noted.flatMap(({ sessionId, supplyId, ...issue }) =>
        sessionId === session.id && supplyId !== null ? [{ ...issue, supplyId }] : [],
      ),
      missing: noted.flatMap(({ sessionId, supplyId, enrolmentId }) =>
        sessionId === session.id && supplyId === null ? [enrolmentId] : [],
      ),
    };
    sessions.set(session.id, own);
    if (dishId !== null) own.dishes.push({ id: dishId, recipeId, recipeVersion, title, body, fillings, ways, serves });
  }
  return [...sessions.values()];
}
