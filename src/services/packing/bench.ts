import { z } from 'zod';
import { sentTicks } from '@/contracts/bench';
import { type BenchSheet, benchSheet, type PackEvent } from '@/core/packing/progress';
import { eventsSince } from '@/store/bench';
import type { PackEventRow } from '@/store/tables/packing';
import { ROLES, service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { loadLocked } from './locked';
import { saveTicks } from './tick-writer';

/** What a bench screen starts from. */
export interface BenchView {
  readonly sheet: BenchSheet;
  readonly events: readonly PackEvent[];
}

const plainEvent = ({ id, kitId, component, action, seq }: PackEventRow): PackEvent => ({
  id,
  kitId,
  component,
  action,
  seq,
});

export const viewBench = service({
  title: 'See the pack bench of a session',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }): Promise<BenchView> => {
    const { locked, revision } = await loadLocked(context, sessionId);
    const events = await eventsSince(context.store.db, sessionId, 0);
    const { programme } = await loadProgramme(context);
    const sizes = programme.containers;
    return { sheet: benchSheet(locked, revision, sizes), events: events.map(plainEvent) };
  },
});

export const viewEvents = service({
  title: 'See what was ticked since',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), since: z.coerce.number().int().min(0) }),
  run: async (context, { sessionId, since }) => {
    const { revision } = await loadLocked(context, sessionId);
    const events = await eventsSince(context.store.db, sessionId, since);
    return { revision, events: events.map(plainEvent) };
  },
});

export const recordTicks = service({
  title: 'Tick components at the bench, or take ticks back',
  roles: ROLES,
  input: sentTicks,
  run: (context, { sessionId, ticks }) => saveTicks(context, sessionId, ticks),
});
