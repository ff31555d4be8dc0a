import { z } from 'zod';
import { type SentTick, sentTicks } from '@/contracts/bench';
import type { LockedSheet } from '@/core/kits/locked-sheet';
import { type BenchSheet, benchSheet, type PackEvent } from '@/core/packing/progress';
import { eventsSince, latestSheetId, sheetById } from '@/store/bench';
import type { PackEventRow } from '@/store/rows';
import type { Db } from '@/store/store';
import { type Context, nowOf, ROLES, service } from '../access/gate';
import { ServiceError } from '../errors';
import { knownSnapshot, readSnapshot } from '../kits/session-sheet';
import { saveTicks } from './tick-writer';

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
  const head = await latestSheetId(db, context.actor.programmeId, sessionId);
  if (!head)
    throw new ServiceError('not-found', 'There is no locked kit sheet for this session yet: lock it first, then pack.');
  const locked = knownSnapshot(head.fingerprint) ?? readSnapshot(await sheetById(db, head.id));
  return { locked, revision: head.revision };
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
    return { sheet: benchSheet(locked, revision), events: events.map(plainEvent) };
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
  run: async (context, { sessionId, ticks }) => {
    const { locked, revision } = await loadLocked(context, sessionId);
    const wanted = wantedBy(locked, revision);
    const odd = ticks.filter((tick) => !(tick.action === 'packed' && wanted.get(tick.kitId)?.has(tick.component)));
    if (odd.length > 0) await refuseUnknown(context.store.db, sessionId, odd, locked, revision);
    const at = nowOf(context);
    const events = ticks.map((tick) => ({ ...tick, sessionId, at, actorId: context.actor.id }));
    return { added: await saveTicks(context.store, sessionId, events), revision };
  },
});

const wantedOf = new WeakMap<LockedSheet, ReadonlyMap<string, ReadonlySet<string>>>();

/** Components each kit of a locked sheet asks for; worked out once for a sheet, since it never changes. */
function wantedBy(locked: LockedSheet, revision: number): ReadonlyMap<string, ReadonlySet<string>> {
  const wanted =
    wantedOf.get(locked) ?? new Map(benchSheet(locked, revision).kits.map((kit) => [kit.id, new Set(kit.components)]));
  wantedOf.set(locked, wanted);
  return wanted;
}

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
