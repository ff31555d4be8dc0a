import type { Temporal } from 'temporal-polyfill';
import { removeOlder } from '@/store/erasing';
import { PERSONAL } from '@/store/personal';
import type { Store } from '@/store/store';

const daysOf = (table: keyof typeof PERSONAL): number => PERSONAL[table].kept?.days ?? 0;

/** Days that things are kept which nobody erases by hand. Households are kept as the programme's setting says. */
export const KEPT_DAYS = {
  'printed pages': daysOf('printOut'),
  'finished jobs': daysOf('job'),
  messages: daysOf('message'),
  'ended sign-ins and links': daysOf('signIn'),
  'browsers that somebody signed in from': daysOf('knownDevice'),
  'what happened at the doors': daysOf('securityEvent'),
  'the list of who looked at needs': daysOf('needLook'),
} as const;

/** Removes what has been kept long enough. Done again, it does no harm. @returns rows removed */
export const clearOut = async (
  store: Store,
  programmeId: string,
  now: Temporal.Instant,
): Promise<{ removed: number }> => ({
  removed: await removeOlder(store.db, programmeId, new Date(now.epochMilliseconds)),
});
