import type { PackAction } from '@/core/packing/progress';
import { key, keyOf, moment, plain, type RowOf, ref, table, whole } from './table';

export const packEvent = table(
  'pack_event',
  { belongs: 'sessionId', joined: { keeps: 'its kits were packed' } },
  {
    id: key(),
    sessionId: ref(),
    kitId: ref(),
    component: plain(),
    action: plain<PackAction>(),
    seq: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type PackEventRow = RowOf<typeof packEvent>;

/** How far the events of a session's bench have been counted. */
export const bench = table(
  'bench',
  { belongs: 'sessionId', joined: 'goes' },
  { sessionId: keyOf(ref()), seq: whole() },
);
