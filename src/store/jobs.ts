import { change, select } from './sql';
import type { Db, Store } from './store';
import type { JobRow } from './tables/work';

/** A job as its worker needs it. */
export type TakenJob = Pick<JobRow, 'id' | 'programmeId' | 'kind' | 'input' | 'createdBy' | 'attempts' | 'request'>;

/** A job that fails by itself is tried this often; one whose workers died or lost the database is begun this often. */
export const MOST_ATTEMPTS = 5;
export const MOST_BEGINNINGS = 20;

/**
 * No job waits, and no lease holds, longer than this. What seems to has its moment from before the clock was set back: it
 * is due, rather than waiting for hours.
 */
const LONGEST_WAIT_SECONDS = 120;

/**
 * Takes the next job that waits, or whose worker has died: its lease has run out.
 *
 * Two workers never take the same one: rows are locked while taken, and where the lock does not reach (another node of a
 * cluster) the second to commit finds the owner set.
 *
 * @param owner names this worker, unlike any other
 * @param seconds how long the lease holds without being renewed
 */
export async function takeJob(store: Store, owner: string, now: Date, seconds: number): Promise<TakenJob | undefined> {
  const waits = `FROM job WHERE (state = 'waiting' AND (not_before <= :now OR not_before > :beyond))
           OR (state = 'running' AND (lease_until < :now OR lease_until > :beyond))`;
  const values = { now, beyond: new Date(now.getTime() + LONGEST_WAIT_SECONDS * 1000) };
  // It is asked twice a second, and mostly nothing waits: one statement says so.
  const [any] = await select(store.db, `SELECT 1 ${waits} LIMIT 1`, values);
  if (!any) return undefined;
  return store.transaction(async (db) => {
    const [job] = await select<TakenJob>(
      db,
      `SELECT id, programme_id AS programmeId, kind, input, created_by AS createdBy, attempts, request ${waits}
        ORDER BY not_before, id LIMIT 1 FOR UPDATE SKIP LOCKED`,
      values,
    );
    if (!job) return undefined;
    const leaseUntil = new Date(now.getTime() + seconds * 1000);
    await change(
      db,
      `UPDATE job SET state = 'running', owner = :owner, lease_until = :leaseUntil, attempts = attempts + 1 WHERE id = :id`,
      { id: job.id, owner, leaseUntil },
    );
    return { ...job, attempts: job.attempts + 1 };
  });
}

/**
 * Renews a lease and tells progress.
 *
 * @returns "lost" when another worker has the job, "cancel" when somebody asked to stop it
 */
export async function renewLease(
  db: Db,
  id: string,
  owner: string,
  leaseUntil: Date,
  progress: number | undefined,
): Promise<'go on' | 'cancel' | 'lost'> {
  const held = await change(
    db,
    `UPDATE job SET lease_until = :leaseUntil, progress = COALESCE(:progress, progress)
      WHERE id = :id AND owner = :owner AND state = 'running'`,
    { id, owner, leaseUntil, progress: progress ?? null },
  );
  if (held === 0) return 'lost';
  const [row] = await select<{ asked: number }>(db, 'SELECT cancel_asked AS asked FROM job WHERE id = :id', { id });
  return row?.asked ? 'cancel' : 'go on';
}

/** Ends a job, if this worker still has it. @returns whether it had */
export async function finishJob(
  db: Db,
  id: string,
  owner: string,
  state: 'done' | 'failed' | 'cancelled',
  result: unknown,
  now: Date,
): Promise<boolean> {
  const done = await change(
    db,
    `UPDATE job SET state = :state, result = :result, progress = IF(:state = 'done', 100, progress), owner = NULL,
            lease_until = NULL, finished_at = :now
      WHERE id = :id AND owner = :owner AND state = 'running'`,
    { id, owner, state, result: JSON.stringify(result ?? null), now },
  );
  return done === 1;
}

/** Puts a job back to be tried again later, if this worker still has it. */
export async function retryJob(db: Db, id: string, owner: string, notBefore: Date): Promise<void> {
  await change(
    db,
    `UPDATE job SET state = 'waiting', owner = NULL, lease_until = NULL, not_before = :notBefore
      WHERE id = :id AND owner = :owner AND state = 'running'`,
    { id, owner, notBefore },
  );
}

/** A job that nobody has begun ends; one that runs is asked to stop. */
export const askToStop = (db: Db, values: { now: Date; jobId: string }) =>
  change(
    db,
    `UPDATE job SET cancel_asked = 1, finished_at = IF(state = 'waiting', :now, finished_at),
              state = IF(state = 'waiting', 'cancelled', state)
        WHERE id = :jobId AND state IN ('waiting', 'running')`,
    values,
  );

/** The programmes whose minute of the hour (0 to 59) lies between two, both included: each has one of its own. */
export const programmesDue = (db: Db, values: { from: number; to: number }) =>
  select<{ id: string }>(db, 'SELECT id FROM programme WHERE CRC32(id) % 60 BETWEEN :from AND :to ORDER BY id', values);

/** What a programme did by itself, and nobody asked for, is of no use after a few days. @returns how many went */
export const dropRegular = (db: Db, values: { programmeId: string; kinds: readonly string[]; before: Date }) =>
  change(
    db,
    `DELETE FROM job WHERE programme_id = :programmeId AND state = 'done' AND kind IN (:kinds) AND finished_at < :before`,
    values,
  );
