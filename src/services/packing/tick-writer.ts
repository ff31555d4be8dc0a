import type { SentTick } from '@/contracts/bench';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { benchSheet, calledBackNow } from '@/core/packing/progress';
import { appendEvents, eventsOfKits } from '@/store/bench';
import { lockSessionRow } from '@/store/plan';
import type { Db } from '@/store/store';
import { ServiceError } from '../errors';
import { type Context, nowOf } from '../gate/gate';
import { WORKED_OUT } from '../memory';
import { syncCallBacks } from '../sheet/call-backs';
import { wakeBenches } from './live';
import { loadLocked } from './locked';

/** What a screen is answered: how many of its ticks were new, and the revision being packed. */
export interface TakenIn {
  readonly added: number;
  readonly revision: number;
}

interface Waiting {
  readonly context: Context;
  readonly ticks: readonly SentTick[];
  readonly done: (taken: TakenIn) => void;
  readonly failed: (error: unknown) => void;
}

/** How long the first tick waits for others, in milliseconds: far less than a hand needs, and many screens fit in. */
const GATHER = 15;

/** Requests of one bench that wait while others of it are being saved. */
const queues = new Map<string, Waiting[]>();

/**
 * Saves ticks, and answers when they are safely on disk.
 *
 * All ticks of a bench go through one counter, one transaction after the other. Many screens tick at once, so those that
 * arrive while one transaction runs are saved together by the next: one look at the sheet, one lock and one write to
 * disk for all of them. Each request is judged by itself: one that is refused takes no other with it.
 *
 * @throws ServiceError when nothing is locked, or the sheet asks for something else
 */
export function saveTicks(context: Context, sessionId: string, ticks: readonly SentTick[]): Promise<TakenIn> {
  return new Promise((done, failed) => {
    // Who asks from another programme waits in another queue, and finds nothing there.
    const key = `${context.actor.programmeId} ${sessionId}`;
    const waiting = { context, ticks, done, failed };
    const queue = queues.get(key);
    if (queue) {
      queue.push(waiting);
    } else {
      queues.set(key, [waiting]);
      void drain(key, sessionId);
    }
  });
}

async function drain(key: string, sessionId: string): Promise<void> {
  const gathered = () => new Promise((resolve) => setTimeout(resolve, GATHER));
  await gathered();
  for (let batch = take(key); batch; await gathered(), batch = take(key)) {
    try {
      await saveBatch(batch, sessionId);
    } catch (error) {
      // Nothing of the batch was saved: every screen keeps its ticks and sends them again.
      for (const { failed } of batch) failed(error);
    }
  }
}

/** What waits now; nothing left ends the queue. */
function take(key: string): Waiting[] | undefined {
  const batch = queues.get(key);
  if (!batch || batch.length === 0) {
    queues.delete(key);
    return undefined;
  }
  queues.set(key, []);
  return batch;
}

const CLASH = new ServiceError(
  'stale',
  'The id of one of these ticks was used before, for another kit, ingredient or session. Nothing was saved: make a new id for each tick.',
);

/**
 * @param mends whether something is taken out of a kit that is called back: it may go on then, and for that the session is held
 *   before its bench, here as by whoever calls kits back
 */
async function saveBatch(batch: readonly Waiting[], sessionId: string, mends = false): Promise<void> {
  const [first] = batch;
  if (!first) return;
  const { context } = first;
  const { locked, revision } = await loadLocked(context, sessionId);
  const eventsOf = ({ context: { actor }, ticks }: Waiting) =>
    ticks.map((tick) => ({ ...tick, sessionId, at: nowOf(context), actorId: actor.id }));
  const { good, refused, fresh, clashing, isDoneAgain } = await context.store.transaction(async (db) => {
    if (mends) await lockSessionRow(db, { sessionId });
    const good: Waiting[] = [];
    const refused: { readonly waiting: Waiting; readonly because: ServiceError }[] = [];
    let isDoneAgain = false;
    const { fresh, clashing } = await appendEvents(db, sessionId, batch.flatMap(eventsOf), async (callBacks) => {
      const calledBack = calledBackNow(callBacks);
      for (const waiting of batch) {
        const because = await refusalOf(db, sessionId, waiting.ticks, locked, revision, calledBack);
        if (because) refused.push({ waiting, because });
        else good.push(waiting);
      }
      const isMending = good.some(({ ticks }) =>
        ticks.some(({ action, kitId }) => action === 'undone' && calledBack.has(kitId)),
      );
      isDoneAgain = isMending && !mends;
      return isDoneAgain ? [] : good.flatMap(eventsOf);
    });
    // What an earlier revision left in a kit is out of it now.
    if (mends && clashing.size === 0) await syncCallBacks(context, db, { sessionId });
    return { good, refused, fresh, clashing, isDoneAgain };
  });
  if (isDoneAgain) return saveBatch(batch, sessionId, true);
  for (const { waiting, because } of refused) waiting.failed(because);
  if (clashing.size > 0) {
    // Nothing was saved. Those that use an id again for something else are refused, and the others saved without them.
    const isClash = ({ ticks }: Waiting) => ticks.some(({ id }) => clashing.has(id));
    for (const waiting of good.filter(isClash)) waiting.failed(CLASH);
    return saveBatch(
      good.filter((waiting) => !isClash(waiting)),
      sessionId,
    );
  }
  if (fresh.size > 0) wakeBenches();
  // Of the same tick sent twice at once, one request is told that it was new.
  const left = new Set(fresh);
  for (const { ticks, done } of good) done({ added: ticks.filter(({ id }) => left.delete(id)).length, revision });
}

/** Components each kit of a locked sheet asks for; worked out once for a sheet, since it never changes. */
const wantedBy = (locked: LockedSheet, revision: number): ReadonlyMap<string, ReadonlySet<string>> =>
  WORKED_OUT.of(
    'wanted',
    locked,
    () => new Map(benchSheet(locked, revision).kits.map((kit) => [kit.id, new Set(kit.components)])),
  );

/**
 * Why ticks cannot be taken in. What the present sheet does not ask for may still come out of a kit, or be a tick that
 * was taken in before and is sent again; anything else is refused.
 */
async function refusalOf(
  db: Db,
  sessionId: string,
  ticks: readonly SentTick[],
  locked: LockedSheet,
  revision: number,
  calledBack: ReadonlySet<string>,
): Promise<ServiceError | undefined> {
  const wanted = wantedBy(locked, revision);
  const isStopped = ({ action, kitId }: SentTick) => action !== 'undone' && calledBack.has(kitId);
  const isOdd = ({ action, kitId, component }: SentTick) =>
    action === 'checked' ? !wanted.has(kitId) : !(action === 'packed' && wanted.get(kitId)?.has(component));
  const odd = ticks.filter(isOdd);
  const doubtful = [...odd, ...ticks.filter(isStopped)];
  if (doubtful.length === 0) return undefined;
  // Of these kits alone: late in a session its bench has a thousand events.
  const before = await eventsOfKits(db, sessionId, [...new Set(doubtful.map(({ kitId }) => kitId))]);
  // A tick that was saved before the kit was called back, and is sent again since its answer was lost, is no new one.
  const known = new Set(before.map(({ id }) => id));
  const stopped = ticks.find((tick) => isStopped(tick) && !known.has(tick.id));
  if (stopped) {
    const number = locked.kits.find(({ id }) => id === stopped.kitId)?.number ?? '';
    return new ServiceError(
      'stale',
      `Kit ${number} is called back: what is in it is no longer safe for whom it is. Set it apart, and pack nothing more into it.`,
    );
  }
  const packedBefore = new Set(before.map((event) => `${event.kitId} ${event.component}`));
  const refused = odd.find((tick) => !packedBefore.has(`${tick.kitId} ${tick.component}`));
  if (!refused) return undefined;
  return new ServiceError(
    'stale',
    locked.kits.some((kit) => kit.id === refused.kitId)
      ? `Version ${revision} of the kit sheet asks for something else in this kit. The screen shows it now.`
      : 'This kit is not on the kit sheet.',
  );
}
