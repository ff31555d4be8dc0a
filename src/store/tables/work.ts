import { json, key, keyOf, maybe, moment, plain, type RowOf, ref, table, whole } from './table';

export const job = table(
  'job',
  { belongs: 'programmeId', retention: { days: 30, from: 'finishedAt' } },
  {
    id: key(),
    programmeId: ref(),
    kind: plain(),
    input: json<unknown>('log'),
    state: plain<'waiting' | 'running' | 'done' | 'failed' | 'cancelled'>(),
    attempts: whole(),
    /** Percent. */
    progress: whole(),
    /** What came of it; the reason when it failed. */
    result: maybe(json<unknown>('log')),
    owner: maybe(plain()),
    leaseUntil: maybe(moment()),
    cancelAsked: whole(),
    createdAt: moment(),
    createdBy: maybe(ref()),
    notBefore: moment(),
    finishedAt: maybe(moment()),
    /** The request that asked for it; '' for what goes on by itself. */
    request: plain(),
  },
);
export type JobRow = RowOf<typeof job>;

export const idempotentReply = table(
  'idempotent_reply',
  { belongs: 'programmeId', retention: { days: 1, from: 'createdAt' } },
  {
    actorId: keyOf(ref()),
    idempotencyKey: keyOf(plain()),
    request: plain(),
    programmeId: ref(),
    /** What the request's transaction came to. */
    body: json<{ readonly result: unknown }>('log'),
    createdAt: moment(),
  },
);
export type IdempotentReplyRow = RowOf<typeof idempotentReply>;
