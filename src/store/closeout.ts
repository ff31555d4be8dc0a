// What closing out asks of the database beyond single rows.
import { find } from './query';
import { select } from './sql';
import type { Db } from './store';

/** When a session was closed, and by whom; undefined while it is open, or was opened again. */
export async function closedNow(db: Db, sessionId: string): Promise<{ at: Date; actorId: string } | undefined> {
  const [last] = await find(
    db,
    db.models.closeNote,
    { sessionId, what: ['closed', 'opened again'] },
    [
      ['at', 'DESC'],
      ['id', 'DESC'],
    ],
    1,
  );
  return last?.what === 'closed' ? last : undefined;
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
