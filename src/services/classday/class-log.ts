import type { SentClassEvent } from '@/contracts/classday';
import type { ClassEvent, ClassNow } from '@/core/classday/live/class-events';
import type { ClassPlan } from '@/core/classday/live/class-plan';
import { holdClass, isPlannedSince } from '@/store/classday';
import { find, insert } from '@/store/query';
import type { Db } from '@/store/store';
import type { ClassEventRow } from '@/store/tables/classday';
import { inPool } from '@/workers/pool';
import { notFound, ServiceError } from '../errors';
import { type Context, nowOf } from '../gate/gate';

/** Clocks that differ by less are alike, in milliseconds. */
const ALIKE = 2000;

/** By how much a screen's clock is slow, in milliseconds; nothing where it is about right. */
export function skewOf(context: Context, sent: string): number {
  const skew = nowOf(context).getTime() - Date.parse(sent);
  return Math.abs(skew) < ALIKE ? 0 : skew;
}

/**
 * Adds what was said to the log of a class, each once however often it is sent, in one order for all screens; in the transaction of
 * whoever calls it.
 *
 * @param skew milliseconds by which the sender's clock is slow
 * @param readTo number of the last event from which a plan among them was worked out
 * @throws ServiceError where an id was used for something else, or the class was planned otherwise since it was read
 */
export async function appendToClass(
  context: Context,
  db: Db,
  which: { readonly sessionId: string; readonly sitting: string },
  sent: readonly (Omit<SentClassEvent, 'what' | 'value'> & Pick<ClassEvent, 'what' | 'value'>)[],
  skew = 0,
  readTo?: number,
): Promise<number> {
  const last = await holdClass(db, which);
  if (last === undefined) throw notFound('group');
  let seq = last;
  const known = new Map(
    (await find(db, db.models.classEvent, { id: sent.map(({ id }) => id) })).map((row) => [row.id, row]),
  );
  const now = nowOf(context);
  const rows: ClassEventRow[] = [];
  for (const { id, what, item, enrolmentId, value, at } of sent) {
    const was = known.get(id) ?? rows.find((row) => row.id === id);
    if (was) {
      if (was.sessionId === which.sessionId && was.what === what && was.item === item) continue;
      throw new ServiceError('stale', 'The id of this was used before, for something else. Nothing was saved.');
    }
    const happened = new Date(Date.parse(at) + skew);
    rows.push({
      id,
      ...which,
      seq: ++seq,
      what,
      item,
      enrolmentId,
      value,
      // A tablet whose clock is wrong does not write the future.
      at: happened > now ? now : happened,
      actorId: context.actor.id,
    });
  }
  // A plan worked out from an older one would take back what somebody has changed since: what stands in for whom.
  if (rows.length > 0 && readTo !== undefined && (await isPlannedSince(db, which, readTo)))
    throw new ServiceError('stale', 'Somebody changed the plan at this very moment. Look at it, and try again.');
  await insert(db, db.models.classEvent, rows);
  return seq;
}

/** Minutes of cooking since a class began, and when each task was called done. */
export function minutesIn({ begun, done }: ClassNow, clock: Date) {
  const from = Date.parse(begun?.at ?? '');
  const minuteOf = (at: string | number) => Math.max(0, Math.floor((new Date(at).getTime() - from) / 60_000));
  return { minute: minuteOf(clock.getTime()), done: new Map([...done].map(([task, { at }]) => [task, minuteOf(at)])) };
}

/** The rest of a class planned again, off the serving thread. @param seconds to look for it */
export const again = (
  plan: ClassPlan,
  done: ReadonlyMap<string, number>,
  minute: number,
  without: readonly string[],
  seconds: number,
): Promise<ClassPlan | undefined> =>
  inPool('planClassAgain', { plan, done: [...done], minute, without, seconds }, seconds + 10);
