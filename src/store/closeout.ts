// What closing out asks of the database beyond single rows.
import { find } from './query';
import { LAST_DAY } from './sittings';
import { select } from './sql';
import type { Db } from './store';

/** The last word on whether a session is closed: each comes a moment after the one before. */
export async function lastWordOn(
  db: Db,
  sessionId: string,
): Promise<{ isClosed: boolean; at: Date; actorId: string } | undefined> {
  const [last] = await find(
    db,
    db.models.closeNote,
    { sessionId, what: ['closed', 'opened again'] },
    [['at', 'DESC']],
    1,
  );
  return last && { isClosed: last.what === 'closed', at: last.at, actorId: last.actorId };
}

/** When a session was closed; undefined while it is open, or was opened again. */
export async function closedNow(db: Db, sessionId: string): Promise<{ at: Date; actorId: string } | undefined> {
  const last = await lastWordOn(db, sessionId);
  return last?.isClosed ? last : undefined;
}

/** Lots that were taken for a session, or made for it. */
export const lotsTakenFor = (db: Db, values: { programmeId: string; sessionId: string }) =>
  select<{ lotId: string }>(
    db,
    `SELECT DISTINCT lot_id AS lotId FROM stock_move WHERE programme_id = :programmeId AND session_id = :sessionId AND kind = 'used'
     UNION SELECT lot_id FROM made_batch WHERE session_id = :sessionId AND lot_id IS NOT NULL`,
    values,
  );

/** When each tick of a session's bench was made. */
export const tickTimes = (db: Db, sessionId: string) =>
  select<{ at: Date }>(
    db,
    "SELECT at FROM pack_event WHERE session_id = :sessionId AND action = 'packed' ORDER BY at",
    {
      sessionId,
    },
  );

/** When each kit of a session was given away at a door or a table. */
export const handedTimes = (db: Db, sessionId: string) =>
  select<{ at: Date }>(
    db,
    "SELECT at FROM hand_out WHERE session_id = :sessionId AND what IN ('handed', 'not there') ORDER BY at",
    { sessionId },
  );

/** What was taken off the shelf for a session is worth, in minor units, as far as anybody wrote a price; and how many lots have none. */
export async function takenWorth(db: Db, values: { programmeId: string; sessionId: string }) {
  const [found] = await select<{ worth: number | null; unpriced: number; lots: number }>(
    db,
    `SELECT ROUND(SUM((m.packs * COALESCE(l.pack_grams, 0) + m.grams) * l.price / COALESCE(l.pack_grams, 1000))) AS worth,
            COUNT(DISTINCT IF(l.price IS NULL AND l.origin = 'bought', l.id, NULL)) AS unpriced, COUNT(DISTINCT l.id) AS lots
       FROM stock_move m JOIN stock_lot l ON l.id = m.lot_id
      WHERE m.programme_id = :programmeId AND m.session_id = :sessionId AND m.kind = 'used'`,
    values,
  );
  return { worth: Number(found?.worth ?? 0), unpriced: Number(found?.unpriced ?? 0), lots: Number(found?.lots ?? 0) };
}

/** Sessions between two days that are not closed, and of which something is known: dishes, a kit sheet, or who came. */
export const stillOpen = (db: Db, values: { programmeId: string; from: string; before: string }) =>
  select<{ id: string; title: string; course: string; date: string }>(
    db,
    `SELECT s.id, s.title, c.title AS course, s.date FROM session s JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND s.status = 'planned' AND s.date >= :from AND ${LAST_DAY} < :before
        AND (EXISTS (SELECT 1 FROM dish d WHERE d.session_id = s.id) OR EXISTS (SELECT 1 FROM attendance a WHERE a.session_id = s.id))
        AND COALESCE((SELECT n.what FROM close_note n WHERE n.session_id = s.id AND n.what IN ('closed', 'opened again')
                       ORDER BY n.at DESC LIMIT 1), '') <> 'closed'
      ORDER BY s.date, s.starts_at`,
    values,
  );
