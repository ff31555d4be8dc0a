import type { HomeFacts } from '@/contracts/kits';
import type { RecipeBody } from '@/contracts/recipe';
import type { HandEvent } from '@/core/handout/handing';
import { type ClassMinutes, USUAL_MINUTES } from '@/core/plan/class-minutes';
import type { Outdoor } from '@/core/plan/place';
import type { Keeper, OneOffJob } from '@/core/stages/facts';
import { plainHanding } from './handout';
import { loadWithSessions } from './loaded';
import { loadSeries, type SeriesSession } from './series';
import {
  JOIN_FIRST_GROUP,
  NOT_OVER,
  readSittings,
  type SittingAtPlace,
  type SittingColumns,
  WITH_SITTINGS,
} from './sittings';
import { columnsOf, select } from './sql';
import type { Db } from './store';
import type { ClassOutlookRow } from './tables/classday';
import type { StageMarkRow } from './tables/countdown';
import type { DutyChangeRow, PromiseRow } from './tables/crew';
import type { KitExclusionRow, ProductLabelRow, SheetNoteRow } from './tables/kits';
import type { PackEventRow } from './tables/packing';
import type { CourseRow, SessionRow } from './tables/plan';
import type { DishRow } from './tables/recipes';
import type { AwayRow, EnrolmentRow } from './tables/roll';

/** A dish of a session with its recipe. */
export interface DishWithRecipe {
  readonly id: string;
  readonly sessionId: string;
  readonly recipeId: string;
  readonly position: number;
  readonly fillings: DishRow['fillings'];
  readonly swapIn: number;
  readonly ways: DishRow['ways'];
  readonly serves: number | null;
  readonly title: string;
  readonly body: RecipeBody;
  readonly recipeVersion: number;
}

/** The newest locked sheet of a session. */
export interface SheetRecord {
  readonly id: string;
  readonly sessionId: string;
  readonly revision: number;
  readonly fingerprint: string;
  readonly snapshot: string;
  readonly lockedAt: Date;
  readonly lockedByName: string;
}

/** Everything that a session's kits, buying and packing are drawn from. */
export interface SessionBundle {
  readonly session: SessionRow & {
    courseTitle: string;
    audience: string;
    rollClosesDays: number;
    courseJobs: CourseRow['jobs'];
    kitRules: CourseRow['kitRules'];
    budgetCents: number | null;
    /** The place's outdoor side; null under a roof. */
    outdoor: Outdoor | null;
    /** Where it is given to several groups: those beside the first, and what the first is called. */
    sittings: readonly SittingAtPlace[];
    groupName: string | null;
  };
  readonly dishes: readonly DishWithRecipe[];
  readonly enrolments: readonly EnrolmentAtHome[];
  readonly labels: readonly Pick<ProductLabelRow, 'ingredient' | 'product' | 'allergens'>[];
  readonly exclusions: readonly Pick<KitExclusionRow, 'enrolmentId' | 'reason'>[];
  readonly sheet: SheetRecord | undefined;
  /** Minutes of its class in which nobody cooks. */
  readonly classMinutes: ClassMinutes;
  /** What the run sheets of its groups asked to be settled, when they were last worked out. */
  readonly outlooks: readonly Pick<ClassOutlookRow, 'sitting' | 'settle'>[];
  /** In order of time. */
  readonly marks: readonly Pick<StageMarkRow, 'stage' | 'done'>[];
  readonly events: readonly PackEventRow[];
  readonly oneOffs: readonly OneOffJob[];
  /** Who of the crew is planned, asked and promised for its duties, and what was changed about these by hand. */
  readonly promises: readonly PromiseRow[];
  /** What happened to its kits at the table and at the doors. */
  readonly handOuts: readonly HandEvent[];
  readonly dutyChanges: readonly Pick<DutyChangeRow, 'duty' | 'isLeftOut' | 'changedTo' | 'reason'>[];
  /** Who does not come, or comes another way. */
  readonly away: readonly Pick<AwayRow, 'enrolmentId' | 'mode'>[];
  /** The sessions of its course before it, in order; none where the course hands out no supplies. */
  readonly before: readonly SeriesSession[];
  /** What was decided about the locked sheet, oldest first. */
  readonly sheetNotes: readonly Pick<SheetNoteRow, 'kind' | 'revision' | 'basis' | 'reason'>[];
}

/** Somebody of a roll, with what their family has and agreed to; null where nobody has asked. */
export type EnrolmentAtHome = EnrolmentRow & { readonly home: HomeFacts | null };

/**
 * Which sessions: some by id; all between two civil dates; or all up to a civil date that are not over on another. None that is
 * cancelled, but by id.
 */
export type SessionFilter =
  | { readonly ids: readonly string[] }
  | { readonly from: string; readonly to: string }
  | { readonly notOverOn: string; readonly to: string };

type SessionWithSheet = Omit<SessionBundle['session'], 'sittings'> &
  SittingColumns & {
    readonly sheetId: string | null;
    readonly revision: number;
    readonly fingerprint: string;
    readonly snapshot: string;
    readonly lockedAt: Date;
    readonly lockedByName: string;
  };

/** Rows by a key, in the order they came; one list a key, however often it is asked for. */
export function groupedBy<T>(rows: readonly T[], keyOf: (row: T) => string): (key: string) => readonly T[] {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const own = groups.get(keyOf(row));
    if (own) own.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return (key) => groups.get(key) ?? [];
}

export const bySession = <T extends { readonly sessionId: string }>(rows: readonly T[]) =>
  groupedBy(rows, ({ sessionId }) => sessionId);

/**
 * Loads sessions of one programme with all that belongs to them, in five queries however many there are; six where a course hands out supplies.
 *
 * @returns in order of date and time; sessions of another programme are not found
 */
export async function loadSessionBundles(db: Db, programmeId: string, filter: SessionFilter): Promise<SessionBundle[]> {
  const which =
    'ids' in filter
      ? 's.id IN (:ids)'
      : `s.date <= :to AND ${'from' in filter ? 's.date >= :from' : NOT_OVER} AND s.status = 'planned'`;
  if ('ids' in filter && filter.ids.length === 0) return [];
  const scope = { programmeId, ...filter, ...('notOverOn' in filter ? { from: filter.notOverOn } : {}) };
  const sessions = await select<SessionWithSheet>(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.title, s.date, s.starts_at AS startsAt, s.minutes, s.place, s.mode,
            s.place_id AS placeId, s.instructor_id AS instructorId, s.status, s.sequence, s.cook_by AS cookBy, s.because, s.jobs, s.extras,
            s.version, c.title AS courseTitle, c.audience, c.roll_closes_days AS rollClosesDays, c.jobs AS courseJobs, c.kit_rules AS kitRules, c.budget_cents AS budgetCents,
            p.outdoor, ${WITH_SITTINGS},
            k.id AS sheetId, k.revision, k.fingerprint, k.snapshot, k.locked_at AS lockedAt, COALESCE(m.name, t.name) AS lockedByName
       FROM session s JOIN course c ON c.id = s.course_id LEFT JOIN place p ON p.id = s.place_id ${JOIN_FIRST_GROUP}
       LEFT JOIN kit_sheet k ON k.session_id = s.id
       LEFT JOIN kit_sheet n ON n.session_id = s.id AND n.revision > k.revision
       LEFT JOIN member m ON m.id = k.locked_by LEFT JOIN api_token t ON t.id = k.locked_by
      WHERE c.programme_id = :programmeId AND ${which} AND n.id IS NULL`,
    scope,
  );
  if (sessions.length === 0) return [];
  // Sorted here: the database would carry whole locked sheets through its sorting.
  const when = ({ date, startsAt, id }: SessionWithSheet) => `${date} ${startsAt} ${id}`;
  sessions.sort((a, b) => (when(a) < when(b) ? -1 : 1));
  // Joined, not named one by one: two hundred ids in a query cost the database more than what it finds.
  const ofThese = (table: string) =>
    `${table} x JOIN session s ON s.id = x.session_id JOIN course c ON c.id = s.course_id AND c.programme_id = :programmeId
      WHERE ${which}`;
  // Asked for at once: none waits for another.
  const asDishes = dishesWithRecipes(db, ofThese, scope);
  const courseIds = [...new Set(sessions.map((session) => session.courseId))];
  const withSupplies = new Set(sessions.flatMap(({ courseId, kitRules }) => (handsOut(kitRules) ? [courseId] : [])));
  const asSeries = loadSeries(db, [...withSupplies]);
  const asEnrolments = select<EnrolmentAtHome>(
    db,
    `SELECT ${columnsOf(db.models.enrolment, 'e')}, NULLIF(h.home, '{}') AS home
       FROM enrolment e JOIN household h ON h.id = e.household_id WHERE e.course_id IN (:courseIds) ORDER BY e.id`,
    { courseIds },
  );
  const asNoted = loadWithSessions(db, ofThese, scope);
  const asEvents = select<PackEventRow>(
    db,
    `SELECT x.id, x.session_id AS sessionId, x.kit_id AS kitId, x.component, x.action, x.seq, x.at, x.actor_id AS actorId
       FROM ${ofThese('pack_event')} ORDER BY x.session_id, x.seq`,
    scope,
  );
  const [dishes, enrolments, noted, events, series] = await Promise.all([
    asDishes,
    asEnrolments,
    asNoted,
    asEvents,
    asSeries,
  ]);
  const seriesOf = groupedBy(series, ({ courseId }) => courseId);
  const rolls = groupedBy(enrolments, ({ courseId }) => courseId);
  const [dishesOf, eventsOf] = [bySession(dishes), bySession(events)];
  return sessions.map(({ sheetId, revision, fingerprint, snapshot, lockedAt, lockedByName, ...session }) => {
    const { id } = session;
    return {
      session: { ...session, sittings: readSittings(session) },
      dishes: dishesOf(id),
      enrolments: rolls(session.courseId),
      before: seriesOf(session.courseId).filter(
        (each) => `${each.date} ${each.startsAt}` < `${session.date} ${session.startsAt}`,
      ),
      labels: noted('productLabel', id).toSorted((a, b) => (a.ingredient < b.ingredient ? -1 : 1)),
      exclusions: noted('kitExclusion', id),
      sheet: sheetId
        ? { id: sheetId, sessionId: id, revision, fingerprint, snapshot, lockedAt, lockedByName }
        : undefined,
      away: noted('away', id),
      sheetNotes: noted('sheetNote', id),
      marks: noted('stageMark', id),
      classMinutes: minutesFrom(noted('classMinutes', id)[0]),
      outlooks: noted('classOutlook', id),
      promises: noted('promise', id),
      handOuts: noted('handOut', id).map(plainHanding),
      dutyChanges: noted('dutyChange', id),
      events: eventsOf(id),
      oneOffs: noted('sessionJob', id).map(({ beforeKey, hours, ...job }) => ({
        ...job,
        hours: hours as Keeper,
        before: beforeKey,
      })),
    };
  });
}

const minutesFrom = (own: ClassMinutes | undefined): ClassMinutes => {
  const { opening, demonstration, eating, cleaning } = own ?? USUAL_MINUTES;
  return { opening, demonstration, eating, cleaning };
};

/** The dishes of these sessions, and the recipes they cook: in one query, a recipe that many cook sent once. */
async function dishesWithRecipes(
  db: Db,
  ofThese: (table: string) => string,
  scope: Record<string, unknown>,
): Promise<DishWithRecipe[]> {
  const rows = await select<DishAlone | RecipeRow>(
    db,
    `SELECT x.id, x.session_id AS sessionId, x.recipe_id AS recipeId, x.position, x.fillings, x.swap_in AS swapIn, x.ways, x.serves, NULL AS title, NULL AS body, NULL AS version
       FROM ${ofThese('dish')}
     UNION ALL SELECT r.id, NULL, NULL, NULL, NULL, NULL, NULL, NULL, r.title, r.body, r.version FROM recipe r
      WHERE r.id IN (SELECT x.recipe_id FROM ${ofThese('dish')})`,
    scope,
  );
  const recipes = new Map(rows.flatMap((row) => (row.sessionId === null ? [[row.id, row] as const] : [])));
  return rows
    .flatMap((dish) => {
      const recipe = dish.sessionId === null ? undefined : recipes.get(dish.recipeId);
      if (dish.sessionId === null || !recipe) return [];
      const { id, sessionId, recipeId, position, fillings, swapIn, ways, serves } = dish;
      return [{ id, sessionId, recipeId, position, fillings, swapIn, ways, serves, ...told(recipe) }];
    })
    .sort((a, b) => a.position - b.position);
}

const told = ({ title, body, version }: RecipeRow) => ({ title, body, recipeVersion: version });

type DishAlone = Omit<DishWithRecipe, 'title' | 'body' | 'recipeVersion'>;

/** Whether the rules of a course name supplies. */
const handsOut = ({ supplies = [] }: CourseRow['kitRules']): boolean => supplies.length > 0;

interface RecipeRow {
  readonly id: string;
  readonly sessionId: null;
  readonly title: string;
  readonly body: RecipeBody;
  readonly version: number;
}
