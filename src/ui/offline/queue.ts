/** What is sent once, however often it is sent: the device makes its id. */
export interface Queued {
  readonly id: string;
}

/** What the server said of some events. */
export type Answer =
  | { readonly kind: 'saved' }
  | { readonly kind: 'refused'; readonly message: string }
  /** Nobody has said anything of them: they are sent again. */
  | { readonly kind: 'unanswered'; readonly message: string; readonly isCut: boolean };

/** Where events are kept on the device until the server has them. */
export interface DeviceStorage<Event extends Queued> {
  load(): Promise<readonly Event[]>;
  put(events: readonly Event[]): Promise<void>;
  remove(ids: readonly string[]): Promise<void>;
}

/** What stands in the way of saving, in words. */
export interface Trouble {
  readonly kind: 'waiting' | 'refused';
  readonly message: string;
}

/** A queue as a screen sees it: always a new object when something changed. */
export interface QueueState<Event extends Queued> {
  /** Not confirmed by the server yet, oldest first. */
  readonly waiting: readonly Event[];
  /** Confirmed, and not read back from the server yet: a screen goes on drawing them. */
  readonly saved: readonly Event[];
  readonly trouble: Trouble | undefined;
  /** The last request got no answer at all. */
  readonly isCut: boolean;
}

export interface OfflineQueue<Event extends Queued> {
  state(): QueueState<Event>;
  subscribe(changed: () => void): () => void;
  /** Keeps events on the device, and sends them as soon as the server answers. */
  add(events: readonly Event[]): void;
  /** Sends what waits, as long as there are answers; called again and again by whoever owns the queue. */
  send(): Promise<void>;
  /** The server has told of these events: they need not be drawn from here any more. */
  readBack(ids: ReadonlySet<string>): void;
}

/** Events sent in one request. */
const MOST = 500;

/**
 * A queue of events made on this device: kept here until the server has confirmed them, sent in the order they were made,
 * one request at a time. Neither a lost connection nor a closed tab loses one; sent twice, an event changes nothing. Where
 * some are refused they are sent one by one, so that a bad one does not take good ones with it.
 *
 * @param send sends events, and says what the server said
 */
export function offlineQueue<Event extends Queued>(
  storage: DeviceStorage<Event>,
  send: (events: readonly Event[]) => Promise<Answer>,
): OfflineQueue<Event> {
  let state: QueueState<Event> = { waiting: [], saved: [], trouble: undefined, isCut: false };
  const listeners = new Set<() => void>();
  let sending: Promise<void> | undefined;
  let most = MOST;
  const change = (part: Partial<QueueState<Event>>) => {
    state = { ...state, ...part };
    for (const listener of listeners) listener();
  };
  const drop = (ids: readonly string[]) => void storage.remove(ids).catch(() => undefined);

  // What an earlier visit left comes before what is made now.
  const loaded = storage.load().then(
    (before) => {
      const own = new Set(state.waiting.map(({ id }) => id));
      const left = before.filter(({ id }) => !own.has(id));
      if (left.length > 0) change({ waiting: [...left, ...state.waiting] });
    },
    () => undefined,
  );

  async function sendBatch(): Promise<boolean> {
    const batch = state.waiting.slice(0, most);
    if (batch.length === 0) {
      most = MOST;
      return false;
    }
    const answer = await send(batch);
    if (answer.kind === 'unanswered') {
      change({ isCut: answer.isCut, trouble: { kind: 'waiting', message: answer.message } });
      return false;
    }
    if (answer.kind === 'refused' && batch.length > 1) {
      most = 1;
      change({ isCut: false });
      return true;
    }
    const sent = new Set(batch.map(({ id }) => id));
    drop([...sent]);
    const waiting = state.waiting.filter(({ id }) => !sent.has(id));
    if (answer.kind === 'saved') {
      const trouble = state.trouble?.kind === 'waiting' ? undefined : state.trouble;
      change({ waiting, saved: [...state.saved, ...batch], isCut: false, trouble });
    } else change({ waiting, isCut: false, trouble: { kind: 'refused', message: answer.message } });
    return true;
  }

  async function sendAll(): Promise<void> {
    await loaded;
    for (let more = true; more; ) more = await sendBatch();
  }

  const queue: OfflineQueue<Event> = {
    state: () => state,
    subscribe(changed) {
      listeners.add(changed);
      return () => listeners.delete(changed);
    },
    add(events) {
      change({ waiting: [...state.waiting, ...events] });
      void storage.put(events).catch(() => undefined);
      void queue.send();
    },
    send() {
      sending ??= sendAll().finally(() => {
        sending = undefined;
      });
      return sending;
    },
    readBack(ids) {
      const gone = [...state.waiting, ...state.saved].filter(({ id }) => ids.has(id));
      if (gone.length === 0) return;
      drop(gone.map(({ id }) => id));
      const rest = (events: readonly Event[]) => events.filter(({ id }) => !ids.has(id));
      change({ waiting: rest(state.waiting), saved: rest(state.saved) });
    },
  };
  return queue;
}
