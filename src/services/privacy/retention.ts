import type { Temporal } from 'temporal-polyfill';
import { removeOlder } from '@/store/erasing';
import { dropRegular } from '@/store/jobs';
import { daysKept } from '@/store/models';
import type { Store } from '@/store/store';
import { REGULAR_JOBS } from '../work/jobs';

/** Days that things are kept which nobody erases by hand. Households are kept as the programme's setting says. */
export const KEPT_DAYS = {
  'printed pages': daysKept('printOut'),
  'finished jobs': daysKept('job'),
  messages: daysKept('message'),
  'ended sign-ins and links': daysKept('signIn'),
  'browsers that somebody signed in from': daysKept('knownDevice'),
  'what happened at the doors': daysKept('securityEvent'),
  'the list of who looked at needs': daysKept('needLook'),
} as const;

/** Removes what has been kept long enough. Done again, it does no harm. @returns rows removed */
export const clearOut = async (
  store: Store,
  programmeId: string,
  now: Temporal.Instant,
): Promise<{ removed: number }> => {
  const kinds = REGULAR_JOBS.map(([kind]) => kind);
  const regular = {
    programmeId,
    kinds,
    before: new Date(now.subtract({ hours: 24 * REGULAR_DAYS }).epochMilliseconds),
  };
  const dropped = await dropRegular(store.db, regular);
  return { removed: dropped + (await removeOlder(store.db, programmeId, new Date(now.epochMilliseconds))) };
};

/** What goes on by itself each hour makes more jobs than people do: so many days are enough to see that it went on. */
const REGULAR_DAYS = 2;
