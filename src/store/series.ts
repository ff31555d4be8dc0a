import type { RecipeBody } from '@/contracts/recipe';
import { select } from './sql';
import type { Db } from './store';
import type { IssueRow } from './tables/kits';
import type { DishRow } from './tables/recipes';

/** A dish as far as earlier kits are counted from it. */
export interface SeriesDish {
  readonly id: string;
  readonly recipeId: string;
  readonly recipeVersion: number;
  readonly title: string;
  readonly body: RecipeBody;
  readonly fillings: DishRow['fillings'];
  readonly ways: DishRow['ways'];
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
  /** Codes of the product labels recorded for it, by food; null where there are none. */
  readonly labels: Readonly<Record<string, readonly string[]>> | null;
  readonly issues: readonly Omit<IssueRow, 'sessionId'>[];
  /** Who is away, left out, or never got their kit. */
  readonly missing: readonly string[];
}

type SessionColumns = Omit<SeriesSession, 'isLocked' | 'dishes' | 'issues' | 'missing'> & {
  readonly isLocked: number;
  readonly dishId: string | null;
} & Omit<SeriesDish, 'id'>;

/** A session with one of its dishes; or, below all those, what somebody had of its supplies, or that they had no kit. */
type SeriesRow = SessionColumns & {
  readonly enrolmentId: string | null;
  readonly supplyId: string | null;
  readonly units: number;
  readonly drawn: string;
  readonly label: IssueRow['label'];
};

/** All sessions of courses that hand out supplies, in order, in one query however many there are. */
export async function loadSeries(db: Db, courseIds: readonly string[]): Promise<SeriesSession[]> {
  if (courseIds.length === 0) return [];
  const noted = (table: string, columns = "x.enrolment_id, NULL, 0, '', NULL", and = '') =>
    `UNION ALL SELECT s.id, s.course_id, s.number, s.date, s.starts_at, s.mode, 0, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL,
            NULL, NULL, ${columns} FROM ${table} x JOIN session s ON s.id = x.session_id WHERE s.course_id IN (:courseIds) ${and}`;
  // Of attendance the newest answer counts; whoever has no kit lacks what it held.
  const rows = await select<SeriesRow>(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.date, s.starts_at AS startsAt, s.mode,
            EXISTS (SELECT 1 FROM kit_sheet k WHERE k.session_id = s.id) AS isLocked, d.id AS dishId, d.position,
            d.recipe_id AS recipeId, r.version AS recipeVersion, r.title, r.body, d.fillings, d.ways, d.serves,
            (SELECT JSON_OBJECTAGG(p.ingredient, p.allergens) FROM product_label p WHERE p.session_id = s.id) AS labels,
            NULL AS enrolmentId, NULL AS supplyId, 0 AS units, '' AS drawn, NULL AS label
       FROM session s LEFT JOIN dish d ON d.session_id = s.id LEFT JOIN recipe r ON r.id = d.recipe_id
      WHERE s.course_id IN (:courseIds) AND s.status = 'planned'
     ${noted('issue', 'x.enrolment_id, x.supply_id, x.units, x.drawn, x.label')}
     ${noted('away', undefined, 'AND x.mode IS NULL')}
     ${noted('kit_exclusion')}
     ${noted(
       `(SELECT a.session_id, a.enrolment_id, a.state, ROW_NUMBER() OVER (PARTITION BY a.session_id, a.enrolment_id
                ORDER BY a.at DESC, a.id DESC) AS newest FROM attendance a JOIN session c ON c.id = a.session_id
          WHERE c.course_id IN (:courseIds) AND a.state IN ('collected', 'not collected'))`,
       undefined,
       "AND x.newest = 1 AND x.state = 'not collected'",
     )}
      ORDER BY date, startsAt, id, enrolmentId, position`,
    { courseIds },
  );
  const sessions = new Map<string, Writable>();
  for (const { enrolmentId, supplyId, units, drawn, label, ...row } of rows) {
    const { dishId, recipeId, recipeVersion, title, body, fillings, ways, serves, isLocked, ...session } = row;
    if (enrolmentId === null) {
      const { id } = session;
      const own = sessions.get(id) ?? {
        ...{ ...session, isLocked: isLocked === 1 },
        ...{ dishes: [], issues: [], missing: [] },
      };
      sessions.set(id, own);
      if (dishId !== null)
        own.dishes.push({ id: dishId, recipeId, recipeVersion, title, body, fillings, ways, serves });
    } else if (supplyId !== null) sessions.get(session.id)?.issues.push({ enrolmentId, supplyId, units, drawn, label });
    else sessions.get(session.id)?.missing.push(enrolmentId);
  }
  return [...sessions.values()];
}

type Writable = Omit<SeriesSession, 'dishes' | 'issues' | 'missing'> & {
  readonly dishes: SeriesDish[];
  readonly issues: Omit<IssueRow, 'sessionId'>[];
  readonly missing: string[];
};
