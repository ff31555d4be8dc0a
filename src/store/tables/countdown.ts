import { key, moment, notes, plain, type RowOf, ref, table, whole } from './table';

export const stageMark = table(
  'stage_mark',
  { belongs: 'sessionId', loads: true, joined: { keeps: 'jobs of it are marked' } },
  {
    id: key(),
    sessionId: ref(),
    stage: plain(),
    done: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type StageMarkRow = RowOf<typeof stageMark>;

/** A job that only one session has. */
export const sessionJob = table(
  'session_job',
  { belongs: 'sessionId', loads: true, joined: 'goes' },
  {
    id: key(),
    sessionId: ref(),
    title: notes(),
    stage: plain(),
    minutes: whole(),
    hours: plain(),
    beforeKey: plain(),
  },
);
export type SessionJobRow = RowOf<typeof sessionJob>;
