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

/** Between two steps, in milliseconds: so long the jobs of one step have, one after the other. */
const STEP = 4_000;

/** A minute's programmes come in so many steps: in half of it, so that what lies behind after a start is caught up with. */
const STEPS = 8;

/**
 * Queues what goes on by itself: what is kept too long is cleared out once a day; the crew is asked again and reminded, families are
 * asked whether they cooked, and the run sheets of the coming days are worked out each hour.
 *
 * Each programme has a minute of the hour of its own, and those of one minute come one after another: what people ask for never
 * waits behind all of a city's at once, and no page is slow because many were due.
 *
 * @returns to be called every second or so: it looks once a minute, and after a start at all minutes of the hour so far
 */
export function regularJobs(store: Store): (now: Date) => Promise<void> {
  let hour = '';
  let next = 0;
  const due: string[] = [];
  let atOnce = 1;
  let stepped = 0;
  return async (now) => {
    const time = now.toISOString();
    const minute = now.getUTCMinutes();
    if (time.slice(0, 13) !== hour) {
      // What was not reached in the last hour is done in this one, once.
      hour = time.slice(0, 13);
      next = 0;
    }
    if (next <= minute) {
      const found = await programmesDue(store.db, { from: next, to: minute });
      atOnce = Math.ceil(found.length / (minute - next + 1) / STEPS) || 1;
      due.push(...found.map(({ id }) => id));
      next = minute + 1;
    }
    if (due.length === 0 || Math.abs(now.getTime() - stepped) < STEP) return;
    stepped = now.getTime();
    const begun = due.slice(0, atOnce);
    const kinds = begun.flatMap((programmeId) => REGULAR_JOBS.map(([kind, every]) => ({ programmeId, kind, every })));
    const jobs = kinds.map(({ programmeId, kind, every }, at) => ({
      ...newJob({ id: idOf(kind, programmeId, time.slice(0, every === 'day' ? 10 : 13)), programmeId, kind, now }),
      notBefore: new Date(stepped + (at * STEP) / kinds.length),
    }));
    await insertMissing(store.db, store.db.models.job, jobs);
    // Only now: while the database was away they were not queued, and stay due.
    due.splice(0, begun.length);
  };
}
