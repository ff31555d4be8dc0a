import { z } from 'zod';
import { askToStop } from '@/store/jobs';
import { findOne, insert } from '@/store/query';
import type { Db } from '@/store/store';
import type { JobRow } from '@/store/tables/work';
import { requestId } from '@/watch/request';
import { notFound } from '../errors';
import { type Context, nowOf, service } from '../gate/gate';

/** What the background process can do. */
export const JOB_KINDS = [
  'send message',
  'print labels',
  'clear out',
  'ask the crew',
  'look at classes',
  'ask families',
] as const;

export type JobKind = (typeof JOB_KINDS)[number];

/** What goes on by itself in each programme: once an hour, or once a day. */
export const REGULAR_JOBS: readonly (readonly [JobKind, 'hour' | 'day'])[] = [
  ['clear out', 'day'],
  ['ask the crew', 'hour'],
  ['look at classes', 'hour'],
  ['ask families', 'hour'],
];

/**
 * Queues work for the background process, in the caller's transaction.
 *
 * @param id made by the caller when queueing twice must change nothing
 * @returns the job's id
 */
export async function queueJob(
  from: Pick<Context, 'clock' | 'ids'>,
  db: Db,
  programmeId: string,
  kind: JobKind,
  input: Readonly<Record<string, unknown>>,
  createdBy: string | null = null,
  id: string = from.ids(),
): Promise<string> {
  const job = newJob({ id, programmeId, kind, now: nowOf(from) });
  await insert(db, db.models.job, [{ ...job, input, createdBy, request: requestId() }]);
  return id;
}

/** A job that nobody has begun, and nobody asked for. */
export const newJob = ({
  now,
  ...job
}: {
  readonly id: string;
  readonly programmeId: string;
  readonly kind: JobKind;
  readonly now: Date;
}): JobRow => ({
  ...job,
  input: {},
  state: 'waiting',
  attempts: 0,
  progress: 0,
  result: null,
  owner: null,
  leaseUntil: null,
  cancelAsked: 0,
  createdAt: now,
  createdBy: null,
  notBefore: now,
  finishedAt: null,
  request: '',
});

export const viewJob = service({
  title: 'See how far a job is',
  roles: ['coordinator'],
  input: z.object({ jobId: z.uuid() }),
  run: async (context, { jobId }) => {
    const { db } = context.store;
    const job = await findOne(db, db.models.job, { id: jobId, programmeId: context.actor.programmeId });
    if (!job) throw notFound('job');
    const { id, kind, state, progress, attempts, result } = job;
    return { id, kind, state, progress, attempts, result };
  },
});

export const cancelJob = service({
  title: 'Cancel a job',
  roles: ['coordinator'],
  input: z.object({ jobId: z.uuid() }),
  run: async (context, { jobId }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    if (!(await findOne(db, db.models.job, { id: jobId, programmeId }))) throw notFound('job');
    // One that nobody has begun ends here; one that runs is asked to stop.
    await askToStop(db, { jobId, now: nowOf(context) });
  },
});
