import { appendEvents } from '@/store/bench';
import type { PackEventRow } from '@/store/rows';
import type { Store } from '@/store/store';
import { wakeBenches } from './live';

type NewEvent = Omit<PackEventRow, 'seq'>;

interface Waiting {
  readonly events: readonly NewEvent[];
  readonly done: (added: number) => void;
  readonly failed: (error: unknown) => void;
}

/** Ticks of one bench that wait while others of it are being saved. */
const queues = new Map<string, Waiting[]>();

/**
 * Saves ticks, and answers when they are safely on disk.
 *
 * All ticks of a bench go through one counter, one transaction after the other. Many screens tick at once, so those that
 * arrive while one transaction runs are saved together by the next: one lock and one write to disk for all of them.
 *
 * @returns how many were new
 */
export function saveTicks(store: Store, sessionId: string, events: readonly NewEvent[]): Promise<number> {
  return new Promise((done, failed) => {
    const waiting = { events, done, failed };
    const queue = queues.get(sessionId);
    if (queue) {
      queue.push(waiting);
    } else {
      queues.set(sessionId, [waiting]);
      void drain(store, sessionId);
    }
  });
}

async function drain(store: Store, sessionId: string): Promise<void> {
  for (let batch = take(sessionId); batch; batch = take(sessionId)) {
    const all = batch.flatMap(({ events }) => events);
    try {
      const added = await store.transaction((db) => appendEvents(db, sessionId, all));
      const left = new Set(added);
      // Of the same tick sent twice at once, one request is told that it was new.
      for (const { events, done } of batch) done(events.filter(({ id }) => left.delete(id)).length);
      if (added.size > 0) wakeBenches();
    } catch (error) {
      // Nothing of the batch was saved: every screen keeps its ticks and sends them again.
      for (const { failed } of batch) failed(error);
    }
  }
}

/** What waits now; nothing left ends the queue. */
function take(sessionId: string): Waiting[] | undefined {
  const batch = queues.get(sessionId);
  if (!batch || batch.length === 0) {
    queues.delete(sessionId);
    return undefined;
  }
  queues.set(sessionId, []);
  return batch;
}
