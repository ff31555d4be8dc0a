// What handing out asks of the database beyond single rows.
import { Op } from 'sequelize';
import type { HandEvent } from '@/core/handout/handing';
import { hold } from './hold';
import { find } from './query';
import { execute, select } from './sql';
import type { Db } from './store';
import type { HandOutRow } from './tables/handout';

/** Holds a session’s bench and hand-out for the rest of the transaction. @returns the number of the last that was handed out */
export async function holdHandOut(db: Db, sessionId: string): Promise<number> {
  await hold(db, 'bench', [sessionId]);
  const [bench] = await select<{ handedSeq: number }>(
    db,
    'SELECT handed_seq AS handedSeq FROM bench WHERE session_id = :sessionId',
    { sessionId },
  );
  return bench?.handedSeq ?? 0;
}

export const raiseHandOut = (db: Db, values: { sessionId: string; seq: number }) =>
  execute(db, 'UPDATE bench SET handed_seq = :seq WHERE session_id = :sessionId', values);

/** A row as an event, without whose it is. */
export const plainHanding = ({ id, kitId, what, who, item, seq, at }: HandOutRow): HandEvent => ({
  id,
  kitId,
  what,
  who,
  item,
  seq,
  at: at.toISOString(),
});

/** What happened to the kits of a session after a number, in order. */
export async function handedSince(db: Db, sessionId: string, since: number): Promise<HandEvent[]> {
  const rows = await find(db, db.models.handOut, { sessionId, seq: { [Op.gt]: since } }, [['seq', 'ASC']]);
  return rows.map(plainHanding);
}

/** What was lent and brought back by the families of a session’s kits, in all sessions, oldest first; with what was a slip. */
export const lentTo = (db: Db, values: { programmeId: string; householdIds: readonly string[] }) =>
  values.householdIds.length === 0
    ? Promise.resolve([])
    : select<Pick<HandOutRow, 'id' | 'what' | 'item'> & { householdId: string; date: string }>(
        db,
        `SELECT x.id, x.what, x.item, e.household_id AS householdId, s.date
           FROM hand_out x JOIN enrolment e ON e.id = x.enrolment_id JOIN household h ON h.id = e.household_id
                JOIN session s ON s.id = x.session_id
          WHERE h.programme_id = :programmeId AND h.id IN (:householdIds) AND x.what IN ('lent', 'brought back', 'undone')
          ORDER BY x.at, x.id`,
        values,
      );
