import { addDays } from '@/core/plan/civil';
import { promisesOf } from '@/store/crew';
import type { Db } from '@/store/store';
import type { CrewMemberRow } from '@/store/tables/crew';
import { ServiceError } from '../errors';
import { type Context, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import type { SessionDuty } from './crew-sessions';

/**
 * Nothing is promised twice.
 *
 * @param promiseId the promise that is about to be made
 * @throws ServiceError when they have promised something else at that time
 */
export async function refuseClash(
  context: Context,
  db: Db,
  person: Pick<CrewMemberRow, 'id' | 'name'>,
  duty: Pick<SessionDuty, 'date' | 'from' | 'to'>,
  promiseId: string,
): Promise<void> {
  const today = todayIn(context, (await loadProgramme(context, db)).programme.timeZone);
  const own = await promisesOf(db, { crewId: person.id, from: addDays(today, -1) });
  const other = own.find(
    ({ id, state, told }) =>
      id !== promiseId &&
      state === 'accepted' &&
      told !== null &&
      told.date === duty.date &&
      told.from < duty.to &&
      duty.from < told.to,
  );
  if (other)
    throw new ServiceError(
      'invalid',
      `${person.name} has promised ${other.told?.title} of ${other.courseTitle}: ${other.sessionTitle} at that time. One of the two can be theirs.`,
    );
}
