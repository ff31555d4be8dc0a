import { createHash } from 'node:crypto';
import { type JobKind, newJob, REGULAR_JOBS } from '@/services/work/jobs';
import { programmesDue } from '@/store/jobs';
import { insertMissing } from '@/store/query';
import type { Store } from '@/store/store';

/** Made of programme and time: whoever queues it, it is queued once. */
function idOf(kind: JobKind, programmeId: string, at: string): string {
  const hex = createHash('sha256').update(`${kind} ${programmeId} ${at}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/**
 * Queues what goes on by itself: what is kept too long is cleared out once a day; the crew is asked again and reminded, families are
 * asked whether they cooked, and the run sheets of the coming days are worked out each hour.
 *
 * Each programme has a minute of the hour of its own, so that what people ask for never waits behind all of a city's at once.
 *
 * @returns to be called again and again: it looks once a minute, and after a start at all minutes of the hour so far
 */
export function regularJobs(store: Store): (now: Date) => Promise<void> {
  let hour = '';
  let next = 0;
  return async (now) => {
    const time = now.toISOString();
    const minute = now.getUTCMinutes();
    if (time.slice(0, 13) !== hour) {
      hour = time.slice(0, 13);
      next = 0;
    }
    if (next > minute) return;
    for (const { id: programmeId } of await programmesDue(store.db, { from: next, to: minute })) {
      const jobs = REGULAR_JOBS.map(([kind, every]) =>
        newJob({ id: idOf(kind, programmeId, time.slice(0, every === 'day' ? 10 : 13)), programmeId, kind, now }),
      );
      await insertMissing(store.db, store.db.models.job, jobs);
    }
    next = minute + 1;
  };
}
