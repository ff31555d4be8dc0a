import { Temporal } from 'temporal-polyfill';
import { classDays } from '@/store/classday';
import type { Db } from '@/store/store';
import { notFound, ServiceError } from '../errors';
import type { Context } from '../gate/gate';

/** The room is open to instructors and crew from so many days before the class, until so many after it. */
export const DAYS_BEFORE = 2;
export const DAYS_AFTER = 1;

/**
 * Whether the duty in the room, or at the door, needs to know now.
 *
 * @param date civil date of the class
 * @param last civil date by which families cook, where that is later
 * @param today civil date there
 */
export function isRoomOpen(date: string, last: string, today: Temporal.PlainDate): boolean {
  const daysTo = (day: string) => today.until(Temporal.PlainDate.from(day)).days;
  return daysTo(date) <= DAYS_BEFORE && daysTo(last) >= -DAYS_AFTER;
}

/**
 * Lets in whoever's duty is in this class now: one look, as screens ask every moment.
 *
 * @param extraDays for what a tablet without a network kept, and says later
 * @throws ServiceError where it is no class of theirs, or not its time
 */
export async function enterClass(
  context: Context,
  sessionId: string,
  db: Db = context.store.db,
  extraDays = 0,
): Promise<void> {
  const days = await classDays(db, { programmeId: context.actor.programmeId, sessionId });
  if (!days) throw notFound('session');
  if (context.actor.role === 'coordinator') return;
  const today = context.clock().toZonedDateTimeISO(days.timeZone).toPlainDate();
  if (
    !isRoomOpen(days.date, days.last, today.subtract({ days: extraDays })) &&
    !isRoomOpen(days.date, days.last, today)
  )
    throw new ServiceError(
      'forbidden',
      `A class is shown to those in it from ${DAYS_BEFORE} days before it until the day after, or after the day by which families cook.`,
    );
}
