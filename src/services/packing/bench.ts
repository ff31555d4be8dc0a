import { z } from 'zod';
import { type SentTick, sentTicks } from '@/contracts/bench';
import type { LockedSheet } from '@/core/kits/locked-sheet';
import { type BenchSheet, benchSheet, type PackEvent } from '@/core/packing/progress';
import { appendEvents, eventsSince, latestSheet } from '@/store/bench';
import { select } from '@/store/query';
import type { PackEventRow } from '@/store/rows';
import type { Db } from '@/store/store';
import { type Context, service } from '../access/gate';
import { ServiceError } from '../errors';
import { readSnapshot } from '../kits/session-sheet';

/** What a bench screen starts from. */
export interface BenchView {
  readonly sheet: BenchSheet;
  readonly events: readonly PackEvent[];
}

/** The sheet being packed. @throws ServiceError when nothing is locked */
export async function loadLocked(
  context: Context,
  sessionId: string,
  db: Db = context.store.db,
): Promise<{ locked: LockedSheet; revision: number }> {
  const record = await latestSheet(db, context.actor.programmeId, sessionId);
  if (!record)
    throw new ServiceError('not-found', 'There is no locked kit sheet for this session yet: lock it first, then pack.');
  return { locked: readSnapshot(record), revision: record.revision };
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
  roles: ['coordinator', 'crew'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }): Promise<BenchView> => {
    const { locked, revision } = await loadLocked(context, sessionId);
    const events = await eventsSince(context.store.db, sessionId, 0);
    return { sheet: benchSheet(locked, revision), events: events.map(plainEvent) };
  },
});

export const viewEvents = service({
  title: 'See what was ticked since',
  roles: ['coordinator', 'crew'],
  input: z.object({ sessionId: z.uuid(), since: z.coerce.number().int().min(0) }),
  run: async (context, { sessionId, since }) => {
    const { revision } = await loadLocked(context, sessionId);
    const events = await eventsSince(context.store.db, sessionId, since);
    return { revision, events: events.map(plainEvent) };
  },
});

export const recordTicks = service({
  title: 'Tick components at the bench, or take ticks back',
  roles: ['coordinator', 'crew'],
  input: sentTicks,
  run: (context, { sessionId, ticks }) =>
    context.store.transaction(async (db) => {
      const { locked, revision } = await loadLocked(context, sessionId, db);
      const wanted = new Map(benchSheet(locked, revision).kits.map((kit) => [kit.id, new Set(kit.components)]));
      const odd = ticks.filter((tick) => !(tick.action === 'packed' && wanted.get(tick.kitId)?.has(tick.component)));
      if (odd.length > 0) await refuseUnknown(db, sessionId, odd, locked, revision);
      const at = new Date(context.clock().epochMilliseconds);
      const added = await appendEvents(
        db,
        sessionId,
        ticks.map((tick) => ({ ...tick, sessionId, at, actorId: context.actor.id })),
      );
      return { added, revision };
    }),
});

/**
 * What the present sheet does not ask for may still come out of a kit, or be a tick that was taken in before and is sent
 * again; anything else is refused.
 */
async function refuseUnknown(
  db: Db,
  sessionId: string,
  ticks: readonly SentTick[],
  locked: LockedSheet,
  revision: number,
): Promise<void> {
  const packedBefore = new Set(
    (await eventsSince(db, sessionId, 0)).map((event) => `${event.kitId} ${event.component}`),
  );
  const refused = ticks.find((tick) => !packedBefore.has(`${tick.kitId} ${tick.component}`));
  if (!refused) return;
  throw new ServiceError(
    'stale',
    locked.kits.some((kit) => kit.id === refused.kitId)
      ? `Revision ${revision} of the kit sheet asks for something else in this kit. The screen shows it now.`
      : 'This kit is not on the kit sheet.',
  );
}

export const listBenches = service({
  title: 'See which sessions can be packed',
  roles: ['coordinator', 'crew'],
  input: z.object({}),
  run: (context) =>
    select<{ id: string; title: string; courseTitle: string; date: string; startsAt: string; place: string }>(
      context.store.db,
      `SELECT s.id, s.title, c.title AS courseTitle, s.date, s.starts_at AS startsAt, s.place
         FROM session s JOIN course c ON c.id = s.course_id
        WHERE c.programme_id = :programmeId AND s.date >= :today
          AND EXISTS (SELECT 1 FROM kit_sheet k WHERE k.session_id = s.id)
        ORDER BY s.date, s.starts_at`,
      {
        programmeId: context.actor.programmeId,
        today: context.clock().subtract({ hours: 24 }).toString().slice(0, 10),
      },
    ),
});
