import { finishJob, MOST_ATTEMPTS, MOST_BEGINNINGS, renewLease, retryJob, type TakenJob, takeJob } from '@/store/jobs';
import type { Store } from '@/store/store';
import { troubleOf } from '@/store/trouble';
import { faultOf, log } from '@/watch/log';
import { meter } from '@/watch/meter';
import { forRequest } from '@/watch/request';

/** What a handler is given beside its job. */
export interface Control {
  /**
   * Tells how far it is, in percent, and renews the lease.
   *
   * @throws JobStopped when the job was cancelled, or has been taken over by another worker
   */
  progress(percent: number): Promise<void>;
}

/** Does a job. It may be run twice, on two machines even: what it leaves behind must be the same. */
export type Handler = (job: TakenJob, control: Control) => Promise<unknown>;

/** The job is no longer ours to go on with. */
export class JobStopped extends Error {
  constructor(readonly reason: 'cancel' | 'lost') {
    super(reason);
  }
}

/** A job that will never work, however often it is tried: why, in words for the one who asked for it. */
export class JobRefused extends Error {}

const LEASE_SECONDS = 15;

/**
 * Does one job, if one waits.
 *
 * @returns whether there was one
 */
export async function workOnce(
  store: Store,
  owner: string,
  handlers: Readonly<Record<string, Handler>>,
  clock: () => Date,
  leaseSeconds = LEASE_SECONDS,
): Promise<boolean> {
  const job = await takeJob(store, owner, clock(), leaseSeconds);
  if (!job) return false;
  return forRequest(job.request, () => workAt(job, store, owner, handlers, clock, leaseSeconds));
}

async function workAt(
  job: TakenJob,
  store: Store,
  owner: string,
  handlers: Readonly<Record<string, Handler>>,
  clock: () => Date,
  leaseSeconds: number,
): Promise<true> {
  const begun = performance.now();
  const ended = (outcome: 'done' | 'again' | 'failed') =>
    meter().job(job.kind, outcome, (performance.now() - begun) / 1000);
  const { db } = store;
  const leaseEnd = () => new Date(clock().getTime() + leaseSeconds * 1000);
  const renew = async (percent?: number) => {
    const standing = await renewLease(db, job.id, owner, leaseEnd(), percent);
    if (standing !== 'go on') throw new JobStopped(standing);
  };
  const heart = setInterval(() => void renew().catch(() => {}), (leaseSeconds * 1000) / 3);
  try {
    const handler = handlers[job.kind];
    if (!handler) throw new JobRefused(`This version cannot do "${job.kind}".`);
    if (job.attempts > MOST_BEGINNINGS)
      throw new JobRefused(`It was begun ${MOST_BEGINNINGS} times and never finished.`);
    const result = await handler(job, { progress: (percent) => renew(Math.round(percent)) });
    await finishJob(db, job.id, owner, 'done', result, clock());
    ended('done');
  } catch (error) {
    if (error instanceof JobStopped) {
      if (error.reason === 'cancel') await finishJob(db, job.id, owner, 'cancelled', null, clock());
    } else if (error instanceof JobRefused || (job.attempts >= MOST_ATTEMPTS && !troubleOf(error))) {
      ended('failed');
      await finishJob(db, job.id, owner, 'failed', { why: (error as Error).message }, clock());
    } else {
      const trouble = troubleOf(error);
      ended('again');
      const { id, kind, attempts } = job;
      log().warn({ job: id, kind, attempts, ...(trouble ? { trouble } : faultOf(error)) }, 'a job is tried again');
      await retryJob(db, job.id, owner, new Date(clock().getTime() + restBefore(job.attempts, trouble !== undefined)));
    }
  } finally {
    clearInterval(heart);
  }
  return true;
}

/**
 * How long a job rests before it is tried again, in milliseconds: twice as long each time. When the database was away
 * the job is not to blame, and is tried again soon after it is back.
 */
const restBefore = (attempts: number, databaseWasAway: boolean): number =>
  1000 * 2 ** Math.min(attempts, databaseWasAway ? 3 : 6);
