import { Op } from 'sequelize';
import { execute, find, insert, select } from './query';
import type { PackEventRow } from './rows';
import type { SheetRecord } from './session-bundles';
import type { Db } from './store';

/** The newest locked sheet of a session of this programme, or undefined. */
export async function latestSheet(db: Db, programmeId: string, sessionId: string): Promise<SheetRecord | undefined> {
  const [sheet] = await select<SheetRecord>(
    db,
    `SELECT k.id, k.session_id AS sessionId, k.revision, k.fingerprint, k.snapshot, k.locked_at AS lockedAt, m.name AS lockedByName
       FROM kit_sheet k JOIN member m ON m.id = k.locked_by
       JOIN session s ON s.id = k.session_id JOIN course c ON c.id = s.course_id
      WHERE k.session_id = :sessionId AND c.programme_id = :programmeId ORDER BY k.revision DESC LIMIT 1`,
    { sessionId, programmeId },
  );
  return sheet;
}

/** Events of a session after a sequence number, in order. */
export const eventsSince = (db: Db, sessionId: string, since: number): Promise<PackEventRow[]> =>
  find(db, db.models.packEvent, { sessionId, seq: { [Op.gt]: since } }, [['seq', 'ASC']]);

/**
 * Appends events, each once however often it is sent, in a gapless order per session.
 *
 * The session's counter is locked for the transaction, so that two screens are told apart and no reader can see a later
 * event before an earlier one.
 *
 * @returns how many were new
 */
export async function appendEvents(
  db: Db,
  sessionId: string,
  events: readonly Omit<PackEventRow, 'seq'>[],
): Promise<number> {
  const [counter] = await select<{ seq: number }>(
    db,
    'SELECT seq FROM bench WHERE session_id = :sessionId FOR UPDATE',
    { sessionId },
  );
  let seq = counter?.seq ?? 0;
  const ids = events.map((event) => event.id);
  const known = new Set((await find(db, db.models.packEvent, { id: { [Op.in]: ids } })).map((event) => event.id));
  const fresh = events.filter((event) => {
    const isNew = !known.has(event.id);
    known.add(event.id);
    return isNew;
  });
  await insert(
    db,
    db.models.packEvent,
    fresh.map((event) => {
      seq += 1;
      return { ...event, seq };
    }),
  );
  if (fresh.length > 0)
    await execute(db, 'UPDATE bench SET seq = :seq WHERE session_id = :sessionId', { seq, sessionId });
  return fresh.length;
}
