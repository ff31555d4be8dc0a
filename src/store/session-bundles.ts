import { Op, type WhereOptions } from 'sequelize';
import { find, select } from './query';
import type { EnrolmentRow, KitExclusionRow, PackEventRow, ProductLabelRow, SessionRow, StageMarkRow } from './rows';
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
  readonly session: SessionRow & { courseTitle: string; audience: string };
  readonly dishes: readonly DishWithRecipe[];
  readonly enrolments: readonly EnrolmentRow[];
  readonly labels: readonly ProductLabelRow[];
  readonly exclusions: readonly KitExclusionRow[];
  readonly sheet: SheetRecord | undefined;
  readonly marks: readonly StageMarkRow[];
  readonly events: readonly PackEventRow[];
}

/** Which sessions: some by id, or all between two civil dates. */
export type SessionFilter = { readonly ids: readonly string[] } | { readonly from: string; readonly to: string };

/**
 * Loads sessions of one programme with all that belongs to them, in eight queries however many there are.
 *
 * @returns in order of date and time; sessions of another programme are not found
 */
export async function loadSessionBundles(db: Db, programmeId: string, filter: SessionFilter): Promise<SessionBundle[]> {
  const which = 'ids' in filter ? 's.id IN (:ids)' : 's.date BETWEEN :from AND :to';
  if ('ids' in filter && filter.ids.length === 0) return [];
  const sessions = await select<SessionBundle['session']>(
    db,
    `SELECT s.id, s.course_id AS courseId, s.number, s.title, s.date, s.starts_at AS startsAt, s.minutes, s.place, s.mode,
            s.version, c.title AS courseTitle, c.audience
       FROM session s JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND ${which} ORDER BY s.date, s.starts_at, s.id`,
    { programmeId, ...filter },
  );
  if (sessions.length === 0) return [];
  const ids = sessions.map((session) => session.id);
  const dishes = await select<DishWithRecipe>(
    db,
    `SELECT d.id, d.session_id AS sessionId, d.recipe_id AS recipeId, d.position, r.title, r.body, r.version AS recipeVersion
       FROM dish d JOIN recipe r ON r.id = d.recipe_id WHERE d.session_id IN (:ids) ORDER BY d.position`,
    { ids },
  );
  const courseIds = [...new Set(sessions.map((session) => session.courseId))];
  const enrolments = await find(db, db.models.enrolment, { courseId: { [Op.in]: courseIds } }, [['id', 'ASC']]);
  const ofSessions = { sessionId: { [Op.in]: ids } };
  const labels = await find(db, db.models.productLabel, ofSessions as WhereOptions<ProductLabelRow>, [
    ['ingredient', 'ASC'],
  ]);
  const exclusions = await find(db, db.models.kitExclusion, ofSessions as WhereOptions<KitExclusionRow>);
  const sheets = await select<SheetRecord>(
    db,
    `SELECT k.id, k.session_id AS sessionId, k.revision, k.fingerprint, k.snapshot, k.locked_at AS lockedAt, m.name AS lockedByName
       FROM kit_sheet k JOIN member m ON m.id = k.locked_by
      WHERE k.session_id IN (:ids)
        AND k.revision = (SELECT MAX(n.revision) FROM kit_sheet n WHERE n.session_id = k.session_id)`,
    { ids },
  );
  const marks = await find(db, db.models.stageMark, ofSessions as WhereOptions<StageMarkRow>, [
    ['at', 'ASC'],
    ['id', 'ASC'],
  ]);
  const events = await find(db, db.models.packEvent, ofSessions as WhereOptions<PackEventRow>, [['seq', 'ASC']]);
  const of = <T extends { sessionId: string }>(rows: readonly T[], id: string) =>
    rows.filter((row) => row.sessionId === id);
  return sessions.map((session) => ({
    session,
    dishes: of(dishes, session.id),
    enrolments: enrolments.filter((row) => row.courseId === session.courseId),
    labels: of(labels, session.id),
    exclusions: of(exclusions, session.id),
    sheet: sheets.find((sheet) => sheet.sessionId === session.id),
    marks: of(marks, session.id),
    events: of(events, session.id),
  }));
}
