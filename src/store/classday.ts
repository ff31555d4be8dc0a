// What a class asks of the database beyond single rows.
import { Op } from 'sequelize';
import type { RecipeBody } from '@/contracts/recipe';
import type { ClassEvent, ClassWord } from '@/core/classday/live/class-events';
import type { Face } from '@/core/classday/tasting';
import { hold } from './hold';
import { find } from './query';
import { LAST_DAY } from './sittings';
import { execute, select } from './sql';
import type { Db } from './store';
import type { ClassEventRow, ClassMinutesRow, ClassOutlookRow, CookedPictureRow } from './tables/classday';

/** Which class: a session, and which of its groups. */
export interface OneClass {
  readonly sessionId: string;
  readonly sitting: string;
}

/** When the doors of a class are open: its first and last day, and the programme's clock; undefined where it is not this programme's. */
export async function classDays(
  db: Db,
  values: { programmeId: string; sessionId: string },
): Promise<{ date: string; last: string; timeZone: string } | undefined> {
  const [found] = await select<{ date: string; last: string; timeZone: string }>(
    db,
    `SELECT s.date, ${LAST_DAY} AS last, p.time_zone AS timeZone
       FROM session s JOIN course c ON c.id = s.course_id JOIN programme p ON p.id = c.programme_id
      WHERE s.id = :sessionId AND p.id = :programmeId`,
    values,
  );
  return found;
}

/** Holds a class for the rest of the transaction. @returns the number of its last event; undefined where the session has no such group */
export async function holdClass(db: Db, values: OneClass): Promise<number | undefined> {
  await hold(db, 'session', [values.sessionId]);
  const held = await select<{ own: number }>(
    db,
    `SELECT :sitting = '' OR EXISTS (SELECT 1 FROM sitting x WHERE x.session_id = s.id AND x.group_id = :sitting) AS own
       FROM session s WHERE s.id = :sessionId`,
    { ...values },
  );
  if (held[0]?.own !== 1) return undefined;
  const [found] = await select<{ seq: number | null }>(
    db,
    'SELECT MAX(seq) AS seq FROM class_event WHERE session_id = :sessionId AND sitting = :sitting',
    { ...values },
  );
  return found?.seq ?? 0;
}

/** Of these people, those who are not on the roll of a session. */
export async function strangersIn(
  db: Db,
  { sessionId, ids }: { sessionId: string; ids: readonly string[] },
): Promise<string[]> {
  if (ids.length === 0) return [];
  const found = await select<{ id: string }>(
    db,
    'SELECT e.id FROM enrolment e JOIN session s ON s.course_id = e.course_id WHERE s.id = :sessionId AND e.id IN (:ids)',
    { sessionId, ids },
  );
  const known = new Set(found.map(({ id }) => id));
  return ids.filter((id) => !known.has(id));
}

/** Keeps how a class spends the minutes in which nobody cooks. */
export const saveClassMinutes = (db: Db, values: ClassMinutesRow) =>
  execute(
    db,
    `INSERT INTO class_minutes (session_id, opening, demonstration, eating, cleaning)
     VALUES (:sessionId, :opening, :demonstration, :eating, :cleaning)
     ON DUPLICATE KEY UPDATE opening = :opening, demonstration = :demonstration, eating = :eating, cleaning = :cleaning`,
    { ...values },
  );

/** Keeps what the run sheet of a class asks to be settled. */
export const saveOutlook = (db: Db, { settle, ...values }: ClassOutlookRow) =>
  execute(
    db,
    `INSERT INTO class_outlook (session_id, sitting, settle, at) VALUES (:sessionId, :sitting, :settle, :at)
     ON DUPLICATE KEY UPDATE settle = :settle, at = :at`,
    { ...values, settle: JSON.stringify(settle) },
  );

/** Words after which a class goes by another plan. */
const PLANNING: ClassWord[] = ['begun', 'not begun', 'planned again', 'swapped', 'not swapped'];

/** Whether a class goes by another plan since an event of it. */
export const isPlannedSince = async (db: Db, { sessionId, sitting }: OneClass, seq: number): Promise<boolean> =>
  (await find(db, db.models.classEvent, { sessionId, sitting, seq: { [Op.gt]: seq }, what: PLANNING }, [], 1)).length >
  0;

/** What was said in a class after a number, in order, with who said it. */
export async function saidSince(db: Db, { sessionId, sitting }: OneClass, after: number): Promise<ClassEvent[]> {
  const rows = await find(db, db.models.classEvent, { sessionId, sitting, seq: { [Op.gt]: after } }, [['seq', 'ASC']]);
  if (rows.length === 0) return [];
  const people = await select<{ id: string; name: string }>(db, 'SELECT id, name FROM member WHERE id IN (:ids)', {
    ids: [...new Set(rows.map(({ actorId }) => actorId))],
  });
  const names = new Map(people.map(({ id, name }) => [id, name]));
  return rows.map((row) => plainClassEvent(row, names.get(row.actorId) ?? ''));
}

const plainClassEvent = ({ id, seq, what, item, enrolmentId, value, at }: ClassEventRow, by: string): ClassEvent => ({
  id,
  seq,
  what,
  item,
  enrolmentId,
  value,
  at: at.toISOString(),
  by,
});

/** What some people tasted in all sessions of a programme, with the recipe of each dish. */
export const programmeTastings = (db: Db, values: { programmeId: string; ids: readonly string[] }) =>
  values.ids.length === 0
    ? Promise.resolve([])
    : select<{ sessionId: string; dishId: string; face: Face; enrolmentId: string; body: RecipeBody | null }>(
        db,
        `SELECT t.session_id AS sessionId, t.dish_id AS dishId, t.face, t.enrolment_id AS enrolmentId, r.body
           FROM tasting t JOIN session s ON s.id = t.session_id JOIN course c ON c.id = s.course_id
                LEFT JOIN dish d ON d.id = t.dish_id LEFT JOIN recipe r ON r.id = d.recipe_id
          WHERE c.programme_id = :programmeId AND t.enrolment_id IN (:ids) ORDER BY t.at, t.id`,
        values,
      );

/** The pictures that families sent of a session, without what is on them. */
export const picturesOf = (db: Db, sessionId: string) =>
  select<Pick<CookedPictureRow, 'id' | 'enrolmentId' | 'consent' | 'endsOn'>>(
    db,
    'SELECT id, enrolment_id AS enrolmentId, consent, ends_on AS endsOn FROM cooked_picture WHERE session_id = :sessionId ORDER BY at',
    { sessionId },
  );

/**
 * Changes with whatever may make a class unsafe: who is on its roll and what they must avoid, who is away, what words mean, the labels of
 * its products. By what is written there, whoever wrote it.
 */
export async function classMark(db: Db, sessionId: string): Promise<string> {
  const [found] = await select<{ mark: string }>(
    db,
    `SELECT CONCAT_WS('.',
            (SELECT COALESCE(SUM(CRC32(CONCAT_WS('|', e.id, e.status, e.age, e.servings, e.mode, e.group_id, e.needs))), 0)
               FROM enrolment e WHERE e.course_id = s.course_id),
            (SELECT COALESCE(SUM(CRC32(CONCAT_WS('|', a.enrolment_id, a.mode))), 0) FROM away a WHERE a.session_id = s.id),
            (SELECT COALESCE(SUM(CRC32(CONCAT_WS('|', l.ingredient, l.allergens))), 0) FROM product_label l WHERE l.session_id = s.id),
            (SELECT COALESCE(SUM(CRC32(CONCAT_WS('|', m.word, m.codes))), 0) FROM avoidance_meaning m WHERE m.programme_id = c.programme_id),
            (SELECT COALESCE(SUM(CRC32(CONCAT_WS('|', p.ingredient, p.allergens))), 0) FROM product p
              WHERE p.programme_id = c.programme_id AND p.in_kits = 1 AND p.allergens IS NOT NULL)) AS mark
       FROM session s JOIN course c ON c.id = s.course_id WHERE s.id = :sessionId`,
    { sessionId },
  );
  return found?.mark ?? '';
}
