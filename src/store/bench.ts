import { Op } from 'sequelize';
import { hold } from './hold';
import { find, findOne, insert } from './query';
import { change, execute, select } from './sql';
import type { Db } from './store';
import type { KitSheetRow } from './tables/kits';
import type { PackEventRow } from './tables/packing';

/** Which sheet of a session of this programme is the newest, without its contents; undefined when none is locked, or it was unlocked. */
export async function latestSheetId(
  db: Db,
  programmeId: string,
  sessionId: string,
): Promise<{ id: string; revision: number; fingerprint: string } | undefined> {
  const [sheet] = await select<{ id: string; revision: number; fingerprint: string }>(
    db,
    `SELECT k.id, k.revision, k.fingerprint FROM kit_sheet k JOIN session s ON s.id = k.session_id JOIN course c ON c.id = s.course_id
      WHERE k.session_id = :sessionId AND c.programme_id = :programmeId
        AND NOT EXISTS (SELECT 1 FROM sheet_note n WHERE n.session_id = k.session_id AND n.kind = 'unlocked' AND n.revision >= k.revision)
      ORDER BY k.revision DESC LIMIT 1`,
    { sessionId, programmeId },
  );
  return sheet;
}

/** A locked sheet with its contents. */
export async function sheetById(db: Db, id: string): Promise<KitSheetRow> {
  const sheet = await findOne(db, db.models.kitSheet, { id });
  if (!sheet) throw new Error(`There is no kit sheet ${id}.`);
  return sheet;
}

/** How far each bench is: the last event's sequence number, and the newest revision. */
export async function benchStandings(
  db: Db,
  sessionIds: readonly string[],
): Promise<{ sessionId: string; seq: number; revision: number }[]> {
  if (sessionIds.length === 0) return [];
  return select(
    db,
    `SELECT b.session_id AS sessionId, b.seq,
            (SELECT MAX(k.revision) FROM kit_sheet k WHERE k.session_id = b.session_id) AS revision
       FROM bench b WHERE b.session_id IN (:sessionIds)`,
    { sessionIds },
  );
}

/** Holds a bench for the rest of the transaction: nothing is ticked or called back there meanwhile. */
export const holdBench = (db: Db, sessionId: string) => hold(db, 'bench', [sessionId]);

/** What was said of kits of a session beside what is in them: called back, let go on; in order. */
export const callBackEvents = (db: Db, sessionId: string): Promise<PackEventRow[]> =>
  find(db, db.models.packEvent, { sessionId, action: ['called back', 'let go on'] }, [['seq', 'ASC']]);

/** Events of a session after a sequence number, in order. */
export const eventsSince = (db: Db, sessionId: string, since: number): Promise<PackEventRow[]> =>
  find(db, db.models.packEvent, { sessionId, seq: { [Op.gt]: since } }, [['seq', 'ASC']]);

/** All events of some kits of a session, in order. */
export const eventsOfKits = (db: Db, sessionId: string, kitIds: readonly string[]): Promise<PackEventRow[]> =>
  find(db, db.models.packEvent, { sessionId, kitId: [...kitIds] }, [['seq', 'ASC']]);

/** An event before it has a sequence number. */
type Coming = Omit<PackEventRow, 'seq'>;

/** What was said of a kit beside what is in it. */
export type CallBack = Pick<PackEventRow, 'kitId' | 'action' | 'seq'>;

/**
 * Appends events to a bench, each once however often it is sent, in a gapless order per session: the bench is held until the
 * transaction ends, so no reader can see a later event before an earlier one, and two screens are told apart.
 *
 * @param coming all that may be appended
 * @param choose which of them are, seen what was said of kits there, in order; left out, all of them
 * @returns the ids of those that were new, and those that were used before for another event: if there are any, nothing is saved
 */
export async function appendEvents(
  db: Db,
  sessionId: string,
  coming: readonly Coming[],
  choose: (callBacks: readonly CallBack[]) => Promise<readonly Coming[]> = async () => coming,
): Promise<{ readonly fresh: ReadonlySet<string>; readonly clashing: ReadonlySet<string> }> {
  if (coming.length === 0) return { fresh: new Set(), clashing: new Set() };
  // Written to, the bench is held (hold.ts); raised at once for all that may come, since at a tick each statement counts.
  const raised = 'UPDATE bench SET seq = seq + :coming WHERE session_id = :sessionId';
  await execute(db, raised, { sessionId, coming: coming.length });
  const rows = await select<{ last: number | null } & { [K in keyof Coming | 'seq']: PackEventRow[K] | null }>(
    db,
    `SELECT b.seq AS last, e.id, e.session_id AS sessionId, e.kit_id AS kitId, e.component, e.action, e.seq FROM bench b
       LEFT JOIN pack_event e ON e.session_id = b.session_id AND e.action IN ('called back', 'let go on')
      WHERE b.session_id = :sessionId
     UNION ALL SELECT NULL, id, session_id, kit_id, component, action, seq FROM pack_event WHERE id IN (:ids) ORDER BY seq`,
    { sessionId, ids: coming.map(({ id }) => id) },
  );
  const isEvent = (row: (typeof rows)[number]): row is { last: number | null } & PackEventRow => row.id !== null;
  const events = rows.filter(isEvent);
  const chosen = await choose(events.filter(({ last }) => last !== null));
  const known = new Map(events.filter(({ last }) => last === null).map((event) => [event.id, saysOf(event)]));
  const clashing = new Set<string>();
  const unknown = chosen.filter((event) => {
    const before = known.get(event.id);
    if (before === undefined) known.set(event.id, saysOf(event));
    else if (before !== saysOf(event)) clashing.add(event.id);
    return before === undefined;
  });
  const fresh = clashing.size > 0 ? [] : unknown;
  const top = rows.find(({ last }) => last !== null)?.last ?? coming.length;
  const first = top - coming.length + 1;
  await insert(
    db,
    db.models.packEvent,
    fresh.map((event, at) => ({ ...event, seq: first + at })),
  );
  if (fresh.length < coming.length)
    await execute(db, 'UPDATE bench SET seq = :seq WHERE session_id = :sessionId', {
      seq: first + fresh.length - 1,
      sessionId,
    });
  return { fresh: new Set(fresh.map((event) => event.id)), clashing };
}

/** What an event says, whoever sent it and when. */
const saysOf = ({ sessionId, kitId, component, action }: Coming): string =>
  [sessionId, kitId, action, component].join(' ');

/** A session’s bench, where it has none. */
export const makeBench = (db: Db, values: { sessionId: string }) =>
  execute(db, 'INSERT IGNORE INTO bench (session_id, seq) VALUES (:sessionId, 0)', values);

/** How much was ticked since a moment, and the first of it. */
export async function latestTicks(
  db: Db,
  values: { sessionId: string; since: Date },
): Promise<{ ticks: number; first: Date | null }> {
  const [found] = await select<{ ticks: number; first: Date | null }>(
    db,
    `SELECT COUNT(*) AS ticks, MIN(at) AS first FROM pack_event
      WHERE session_id = :sessionId AND action = 'packed' AND at >= :since`,
    values,
  );
  return { ticks: Number(found?.ticks ?? 0), first: found?.first ?? null };
}

/** How many pack a session side by side from now on. */
export const setPackLine = (db: Db, values: { sessionId: string; packers: number }) =>
  change(
    db,
    `INSERT INTO pack_line (session_id, packers, version) VALUES (:sessionId, :packers, 1)
       ON DUPLICATE KEY UPDATE packers = :packers, version = version + 1`,
    values,
  );
