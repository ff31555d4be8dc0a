import { Op, type WhereOptions } from 'sequelize';
import type { Keeper, OneOffJob } from '@/core/countdown/jobs';
import type { Stage } from '@/core/countdown/stages';
import { find, select } from './query';
import type { EnrolmentRow, KitExclusionRow, PackEventRow, ProductLabelRow, SessionRow, StageMarkRow } from './rows';
import { readSittings, type SittingAtPlace, type SittingColumns, WITH_SITTINGS } from './sittings';
import type { Db } from './store';

/** A dish of a session with its recipe. */
export interface DishWithRecipe {
  readonly id: string;
  readonly sessionId: string;
  readonly recipeId: string;
  readonly position: number;
  readonly title: string;
  readonly body: string;
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
    courseJobs: string;
    /** JSON of the place's outdoor side; null under a roof. */
    outdoor: string | null;
    /** Where it is given to several groups: those beside the first, and what the first is called. */
    sittings: readonly SittingAtPlace[];
    groupName: string | null;
  };
  readonly dishes: readonly DishWithRecipe[];
  readonly enrolments: readonly EnrolmentRow[];
  readonly labels: readonly Pick<ProductLabelRow, 'ingredient' | 'product' | 'allergens'>[];
  readonly exclusions: readonly Pick<KitExclusionRow, 'enrolmentId' | 'reason'>[];
  readonly sheet: SheetRecord | undefined;
  /** In order of time. */
  readonly marks: readonly Pick<StageMarkRow, 'stage' | 'done'>[];
  readonly events: readonly PackEventRow[];
  readonly oneOffs: readonly OneOffJob[];
}

/** Which sessions: some by id, or all between two civil dates that are not cancelled. */
export type SessionFilter = { readonly ids: readonly string[] } | { readonly from: string; readonly to: string };

/** What is noted about a session: one row each for a label, a kit left out, a job marked done, a job of its own. */
interface NoteRow {
  readonly kind: 'label' | 'exclusion' | 'mark' | 'job';
  readonly id: string;
  readonly sessionId: string;
  readonly about: string;
  readonly words: string;
  readonly more: string;
  readonly done: number;
}

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
function groupedBy<T>(rows: readonly T[], keyOf: (row: T) => string): (key: string) => readonly T[] {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const own = groups.get(keyOf(row));
    if (own) own.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return (key) => groups.get(key) ?? [];
}

const bySession = <T extends { readonly sessionId: string }>(rows: readonly T[]) =>
  groupedBy(rows, ({ sessionId }) => sessionId);

/**
 * Loads sessions of one programme with all that belongs to them, in five queries however many there are.
 *
 * @returns in order of date and time; sessions of another programme are not found
 */
export async function loadSessionBundles(db: Db, programmeId: string, filter: SessionFilter): Promise<SessionBundle[]> {
  const which = 'ids' in filter ? 's.id IN (:ids)' : "s.date BETWEEN :from AND :to AND s.status = 'planned'";
  if ('ids' in filter && filter.ids.length === 0) return [];
  const sessions = await select<SessionWithSheet>(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.title, s.date, s.starts_at AS startsAt, s.minutes, s.place, s.mode,
            s.place_id AS placeId, s.instructor_id AS instructorId, s.status, s.sequence, s.cook_by AS cookBy, s.because, s.jobs,
            s.version, c.title AS courseTitle, c.audience, c.roll_closes_days AS rollClosesDays, c.jobs AS courseJobs,
            (SELECT p.outdoor FROM place p WHERE p.id = s.place_id) AS outdoor,
            ${WITH_SITTINGS},
            k.id AS sheetId, k.revision, k.fingerprint, k.snapshot, k.locked_at AS lockedAt, COALESCE(m.name, t.name) AS lockedByName
       FROM session s JOIN course c ON c.id = s.course_id
       LEFT JOIN kit_sheet k ON k.session_id = s.id
        AND k.revision = (SELECT MAX(n.revision) FROM kit_sheet n WHERE n.session_id = s.id)
       LEFT JOIN member m ON m.id = k.locked_by LEFT JOIN api_token t ON t.id = k.locked_by
      WHERE c.programme_id = :programmeId AND ${which} ORDER BY s.date, s.starts_at, s.id`,
    { programmeId, ...filter },
  );
  if (sessions.length === 0) return [];
  const ids = sessions.map((session) => session.id);
  // Asked for at once: none waits for another.
  // A recipe that many sessions cook is sent once.
  const asDishes = select<Omit<DishWithRecipe, 'body'> & { body: string | null }>(
    db,
    `SELECT d.id, d.session_id AS sessionId, d.recipe_id AS recipeId, d.position, r.title, r.version AS recipeVersion,
            IF(ROW_NUMBER() OVER (PARTITION BY d.recipe_id ORDER BY d.id) = 1, r.body, NULL) AS body
       FROM dish d JOIN recipe r ON r.id = d.recipe_id WHERE d.session_id IN (:ids) ORDER BY d.position`,
    { ids },
  );
  const courseIds = [...new Set(sessions.map((session) => session.courseId))];
  const asEnrolments = find(db, db.models.enrolment, { courseId: { [Op.in]: courseIds } }, [['id', 'ASC']]);
  const asNotes = select<NoteRow>(
    db,
    `SELECT 'label' AS kind, id, session_id AS sessionId, ingredient AS about, product AS words, allergens AS more, 0 AS done
       FROM product_label WHERE session_id IN (:ids)
     UNION ALL SELECT 'exclusion', id, session_id, CONVERT(enrolment_id USING utf8mb4) COLLATE utf8mb4_unicode_ci, reason, '', 0
       FROM kit_exclusion WHERE session_id IN (:ids)
     UNION ALL SELECT 'mark', id, session_id, stage, '', '', done FROM (
       SELECT id, session_id, stage, done, at FROM stage_mark WHERE session_id IN (:ids) ORDER BY at, id LIMIT 100000) AS marks
     UNION ALL SELECT 'job', id, session_id, title, CONCAT_WS(' ', stage, hours, before_key), '', minutes FROM session_job
      WHERE session_id IN (:ids)`,
    { ids },
  );
  const ofSessions = { sessionId: { [Op.in]: ids } };
  const asEvents = find(db, db.models.packEvent, ofSessions as WhereOptions<PackEventRow>, [['seq', 'ASC']]);
  const [found, enrolments, notes, events] = await Promise.all([asDishes, asEnrolments, asNotes, asEvents]);
  const bodies = new Map(found.flatMap(({ recipeId, body }) => (body === null ? [] : [[recipeId, body] as const])));
  const dishes = found.map((dish): DishWithRecipe => ({ ...dish, body: bodies.get(dish.recipeId) ?? '' }));
  const rolls = groupedBy(enrolments, ({ courseId }) => courseId);
  const [dishesOf, notesOf, eventsOf] = [bySession(dishes), bySession(notes), bySession(events)];
  return sessions.map(({ sheetId, revision, fingerprint, snapshot, lockedAt, lockedByName, ...session }) => {
    const own = notesOf(session.id);
    return {
      session: { ...session, sittings: readSittings(session) },
      dishes: dishesOf(session.id),
      enrolments: rolls(session.courseId),
      labels: own
        .filter(({ kind }) => kind === 'label')
        .map(({ about, words, more }) => ({ ingredient: about, product: words, allergens: more }))
        .sort((a, b) => (a.ingredient < b.ingredient ? -1 : 1)),
      exclusions: own
        .filter(({ kind }) => kind === 'exclusion')
        .map(({ about, words }) => ({ enrolmentId: about, reason: words })),
      sheet: sheetId
        ? { id: sheetId, sessionId: session.id, revision, fingerprint, snapshot, lockedAt, lockedByName }
        : undefined,
      marks: own.filter(({ kind }) => kind === 'mark').map(({ about, done }) => ({ stage: about, done })),
      events: eventsOf(session.id),
      oneOffs: own
        .filter(({ kind }) => kind === 'job')
        .map(({ id, about, words, done }) => {
          const [stage, hours, before] = words.split(' ') as [Stage, Keeper, string];
          return { id, title: about, stage, hours, before, minutes: done };
        }),
    };
  });
}
