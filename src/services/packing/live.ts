import type { PackEvent } from '@/core/packing/progress';
import { benchStandings, eventsSince } from '@/store/bench';
import type { Store } from '@/store/store';

/** What a screen is told: events after the last it saw, and the revision being packed. */
export interface BenchNews {
  readonly events: readonly PackEvent[];
  readonly revision: number;
}

/** @param text the same as JSON: made once for all screens that are told the same */
type Tell = (news: BenchNews, text: string) => void;

interface Watch {
  /** Sequence number of the last event passed on. */
  seq: number;
  revision: number;
  readonly tell: Tell;
}

/** How often the database is asked what other servers took in, in milliseconds: well within the promised second. */
const LOOK_EVERY = 300;
/** A moment: ticks that arrive together are passed on together, which many screens at once need. */
const TOGETHER = 250;

/** Who watches here, by session. Nothing that another server would miss: each finds the same in the database. */
interface Feed {
  readonly watches: Map<string, Set<Watch>>;
  timer: ReturnType<typeof setTimeout> | undefined;
  /** When the timer ends, by the process's own clock in milliseconds. */
  due: number;
  isLooking: boolean;
  /** Something was saved while it was looking: it looks again at once. */
  lookAgain: boolean;
  /** Asked last; every store of a process is the same database. */
  store: Store | undefined;
}

const shared = globalThis as typeof globalThis & { logistraFeed?: Feed };

function feed(): Feed {
  shared.logistraFeed ??= {
    watches: new Map(),
    timer: undefined,
    due: 0,
    isLooking: false,
    lookAgain: false,
    store: undefined,
  };
  return shared.logistraFeed;
}

/**
 * Tells a screen everything that happens at a bench, in order and without a gap, within a second.
 *
 * @param since the last event the screen knows, 0 for none
 * @returns call it to stop
 */
export function watchBench(store: Store, sessionId: string, since: number, tell: Tell): () => void {
  const own = feed();
  own.store = store;
  const watch: Watch = { seq: since, revision: 0, tell };
  const here = own.watches.get(sessionId) ?? new Set();
  own.watches.set(sessionId, here.add(watch));
  wakeBenches();
  return () => {
    here.delete(watch);
    if (here.size === 0) own.watches.delete(sessionId);
  };
}

/** Looks soon, because something was just saved here. */
export function wakeBenches(): void {
  const own = feed();
  if (own.isLooking) own.lookAgain = true;
  else lookIn(own, TOGETHER);
}

/** Looks then, unless it looks sooner anyway: news that keeps coming must not put it off. */
function lookIn(own: Feed, milliseconds: number): void {
  const due = performance.now() + milliseconds;
  if (own.watches.size === 0 || (own.timer && own.due <= due)) return;
  clearTimeout(own.timer);
  own.due = due;
  own.timer = setTimeout(() => void look(own), milliseconds);
}

async function look(own: Feed): Promise<void> {
  own.timer = undefined;
  const { store, watches } = own;
  if (!store) return;
  own.isLooking = true;
  own.lookAgain = false;
  try {
    for (const { sessionId, seq, revision } of await benchStandings(store.db, [...watches.keys()])) {
      const behind = [...(watches.get(sessionId) ?? [])].filter(
        (watch) => watch.seq < seq || watch.revision !== revision,
      );
      if (behind.length > 0) await passOn(store, sessionId, revision, behind);
    }
  } catch {
    // The database is away: it is looked at again, and nothing is missed, because every screen has its own place.
  }
  own.isLooking = false;
  lookIn(own, own.lookAgain ? TOGETHER : LOOK_EVERY);
}

/** One query serves all screens of a bench, however far behind each is. */
async function passOn(store: Store, sessionId: string, revision: number, behind: readonly Watch[]): Promise<void> {
  const from = Math.min(...behind.map((watch) => watch.seq));
  const events = (await eventsSince(store.db, sessionId, from)).map(
    ({ id, kitId, component, action, seq }): PackEvent => ({ id, kitId, component, action, seq }),
  );
  const bySeq = new Map<number, { news: BenchNews; text: string }>();
  for (const watch of behind) {
    const news = { events: events.filter((event) => event.seq > watch.seq), revision };
    const same = bySeq.get(watch.seq) ?? { news, text: JSON.stringify(news) };
    bySeq.set(watch.seq, same);
    watch.seq = events.at(-1)?.seq ?? watch.seq;
    watch.revision = revision;
    watch.tell(same.news, same.text);
  }
}
