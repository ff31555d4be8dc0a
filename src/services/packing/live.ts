import type { PackEvent } from '@/core/packing/progress';
import { benchStandings, eventsSince } from '@/store/bench';
import type { Store } from '@/store/store';

/** What a screen is told: events after the last it saw, and the revision being packed. */
export interface BenchNews {
  readonly events: readonly PackEvent[];
  readonly revision: number;
}

interface Watch {
  /** Sequence number of the last event passed on. */
  seq: number;
  revision: number;
  tell: (news: BenchNews) => void;
  /** One load at a time for each screen, so that its events stay in order. */
  busy: boolean;
}

/** How often the database is asked what other servers took in, in milliseconds: well within the promised second. */
const LOOK_EVERY = 300;

interface Feed {
  readonly watches: Map<string, Set<Watch>>;
  timer: ReturnType<typeof setTimeout> | undefined;
  /** Asked last; every store of a process is the same database. */
  store: Store | undefined;
}

/** Who watches here; nothing that another server would miss: each finds the same in the database. */
const shared = globalThis as typeof globalThis & { logistraFeed?: Feed };

function feed(): Feed {
  shared.logistraFeed ??= { watches: new Map(), timer: undefined, store: undefined };
  return shared.logistraFeed;
}

/**
 * Tells a screen everything that happens at a bench, in order and without a gap, within a second.
 *
 * @param since the last event the screen knows, 0 for none
 * @returns call it to stop
 */
export function watchBench(
  store: Store,
  sessionId: string,
  since: number,
  tell: (news: BenchNews) => void,
): () => void {
  const own = feed();
  own.store = store;
  const { watches } = own;
  const watch: Watch = { seq: since, revision: 0, tell, busy: false };
  const here = watches.get(sessionId) ?? new Set();
  watches.set(sessionId, here.add(watch));
  wakeBenches();
  return () => {
    here.delete(watch);
    if (here.size === 0) watches.delete(sessionId);
  };
}

/** Looks at once, because something was just saved here. */
export function wakeBenches(): void {
  const { watches, timer, store } = feed();
  if (watches.size === 0 || !store) return;
  clearTimeout(timer);
  // A few milliseconds, so that ticks that arrive together are passed on together.
  feed().timer = setTimeout(() => void look(store), 5);
}

async function look(store: Store): Promise<void> {
  const own = feed();
  try {
    for (const { sessionId, seq, revision } of await benchStandings(store.db, [...own.watches.keys()])) {
      const behind = [...(own.watches.get(sessionId) ?? [])].filter(
        (watch) => !watch.busy && (watch.seq < seq || watch.revision !== revision),
      );
      if (behind.length > 0) await passOn(store, sessionId, revision, behind);
    }
  } catch {
    // The database is away: it is looked at again, and nothing is missed, because every screen has its own place.
  }
  clearTimeout(own.timer);
  if (own.watches.size > 0) own.timer = setTimeout(() => void look(store), LOOK_EVERY);
}

/** One query serves all screens of a bench, however far behind each is. */
async function passOn(store: Store, sessionId: string, revision: number, behind: readonly Watch[]): Promise<void> {
  for (const watch of behind) watch.busy = true;
  try {
    const from = Math.min(...behind.map((watch) => watch.seq));
    const events = (await eventsSince(store.db, sessionId, from)).map(
      ({ id, kitId, component, action, seq }): PackEvent => ({ id, kitId, component, action, seq }),
    );
    for (const watch of behind) {
      watch.tell({ events: events.filter((event) => event.seq > watch.seq), revision });
      watch.seq = Math.max(watch.seq, events.at(-1)?.seq ?? 0);
      watch.revision = revision;
    }
  } finally {
    for (const watch of behind) watch.busy = false;
  }
}
