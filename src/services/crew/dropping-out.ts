import { HOLDS } from '@/core/crew/crew-standing';
import { heldSessions } from '@/store/crew';
import { holdSessions } from '@/store/plan';
import { remove, update } from '@/store/query';
import type { Db } from '@/store/store';
import type { PromiseRow } from '@/store/tables/crew';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { crewNow, crewSessions } from './crew-sessions';
import { planAndSave } from './roster';

/**
 * Takes somebody off all duties from today until a day, the day included.
 *
 * @param note why, as it stands beside their name; what was only planned goes without one
 * @returns the places that are open now
 */
export async function dropUntil(
  context: Context,
  db: Db,
  crewId: string,
  until: string,
  note: string,
): Promise<PromiseRow[]> {
  const loaded = await loadProgramme(context, db);
  const today = todayIn(context, loaded.programme.timeZone);
  const ids = (await heldSessions(db, { crewId, from: today })).map(({ id }) => id);
  if (ids.length === 0) return [];
  await holdSessions(db, context.actor.programmeId, ids);
  const sessions = await crewSessions(context, loaded, { ids }, await crewNow(context, db), db);
  const dropped = sessions.flatMap(({ duties, promises }) =>
    promises.filter((row) => {
      const duty = duties.find(({ key }) => key === row.duty);
      return row.crewId === crewId && HOLDS.includes(row.state) && duty && duty.date >= today && duty.date <= until;
    }),
  );
  for (const row of dropped) {
    if (row.state === 'planned') await remove(db, db.models.promise, { id: row.id });
    else {
      const values = { state: 'declined' as const, isOffered: 0, isPinned: 0, note, answeredAt: nowOf(context) };
      await update(db, db.models.promise, { id: row.id }, { ...values, version: row.version + 1 });
    }
    await logChange(context, db, 'dropped out', 'session', row.sessionId, { duty: row.duty, crewId });
  }
  return dropped;
}

/** Plans sessions again that lost somebody: whoever was asked, or has promised, stays. */
export async function mend(
  context: Context,
  sessionIds: readonly string[],
): Promise<{ filled: number; empty: number }> {
  let [filled, empty] = [0, 0];
  for (const sessionId of sessionIds) {
    const planned = await planAndSave(context, { sessionId });
    filled += planned.planned;
    empty += planned.empty;
  }
  return { filled, empty };
}
