'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 } from 'uuid';
import type { SentTick } from '@/contracts/bench';
import { calledBackNow, type PackEvent, packedNow } from '@/core/packing/progress';

/** How soon a screen sends again what was not answered, and opens its stream again, in milliseconds. */
const AGAIN = 1500;
/** A stream beats every five seconds: one that was silent for this long is broken, even if nobody has said so. */
const SILENT = 12_000;
/** Ticks sent in one request. */
const BATCH = 500;

/** What stands in the way of saving, in words; empty when all is well. */
export interface Trouble {
  readonly kind: 'waiting' | 'refused' | 'moved on';
  readonly message: string;
}

/** Whether this screen hears at once what others do. */
export type Connection = 'connecting' | 'live' | 'offline';

export interface Ticks {
  readonly packed: ReadonlyMap<string, ReadonlySet<string>>;
  /** Kits that are called back: set apart, neither packed nor handed out. */
  readonly calledBack: ReadonlySet<string>;
  readonly connection: Connection;
  /** Ticks made here that the server has not confirmed yet. */
  readonly waiting: number;
  readonly trouble: Trouble | null;
  /** Ticks components or takes ticks back, at once on this screen, safely on the server as soon as it answers. */
  tick(changes: readonly Omit<SentTick, 'id'>[]): void;
  /** Takes back the last thing done on this screen; undefined when there is nothing. */
  undo: (() => void) | undefined;
}

/**
 * The ticks of a session as this screen knows them. What is ticked here is kept on the device until the server has
 * confirmed it, so that neither a lost connection nor a closed tab loses a tick; each carries its own id, so that
 * sending it twice changes nothing.
 */
export function useTicks(sessionId: string, revision: number, initial: readonly PackEvent[]): Ticks {
  const [events, setEvents] = useState(initial);
  const [own, setOwn] = useState<readonly OwnTick[]>([]);
  const [done, setDone] = useState<readonly (readonly SentTick[])[]>([]);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [connection, setConnection] = useState<Connection>('connecting');
  const store = `logistra.ticks.${sessionId}`;
  /** Falls to 1 after a refusal, so that one bad tick does not take good ones with it. */
  const batchSize = useRef(BATCH);
  /** Nothing that was sent last was answered: the stream may not have noticed yet. */
  const isCut = useRef(false);
  /** One request at a time, so that ticks arrive in the order they were made. */
  const isSending = useRef(false);
  /** What is true now, whatever has been drawn yet: written here first, then handed to React. */
  const latest = useRef({ events: initial, own: [] as readonly OwnTick[] });

  const keep = useCallback(
    (next: readonly OwnTick[]) => {
      latest.current.own = next;
      setOwn(next);
      localStorage.setItem(store, JSON.stringify(next.filter(({ saved }) => !saved).map(({ tick }) => tick)));
    },
    [store],
  );

  useEffect(() => {
    const kept: SentTick[] = JSON.parse(localStorage.getItem(store) ?? '[]');
    if (kept.length > 0) keep(kept.map((tick) => ({ tick, saved: false })));
  }, [store, keep]);

  /** Sends one batch of what is not saved yet. @returns whether there may be more to send */
  const sendBatch = useCallback(async (): Promise<boolean> => {
    const unsaved = latest.current.own.filter(({ saved }) => !saved);
    const batch = unsaved.slice(0, batchSize.current).map(({ tick }) => tick);
    if (batch.length === 0) {
      batchSize.current = BATCH;
      return false;
    }
    const response = await fetch(`/api/bench/${sessionId}/ticks`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ticks: batch }),
      // A connection that hangs must not hold up the others.
      signal: AbortSignal.timeout(8000),
    }).catch(() => null);
    if (!response || response.status >= 500 || response.status === 401) {
      if (!response) {
        isCut.current = true;
        setConnection('offline');
      }
      setTrouble({ kind: 'waiting', message: response?.status === 401 ? SIGNED_OUT : NO_ANSWER });
      return false;
    }
    if (isCut.current) {
      isCut.current = false;
      setConnection('live');
    }
    if (!response.ok && batch.length > 1) {
      batchSize.current = 1;
      return true;
    }
    const sent = new Set(batch.map((tick) => tick.id));
    if (response.ok) {
      setTrouble((now) => (now?.kind === 'waiting' ? null : now));
      // A saved tick stays drawn from here until it is read back: it must not flicker out in between.
      keep(latest.current.own.map((entry) => (sent.has(entry.tick.id) ? { ...entry, saved: true } : entry)));
    } else {
      const body = await response.json().catch(() => null);
      setTrouble({ kind: 'refused', message: body?.title ?? 'These ticks were refused.' });
      keep(latest.current.own.filter((entry) => !sent.has(entry.tick.id)));
    }
    return true;
  }, [sessionId, keep]);

  const send = useCallback(async (): Promise<void> => {
    if (isSending.current) return;
    isSending.current = true;
    try {
      for (let more = true; more; ) more = await sendBatch();
    } finally {
      isSending.current = false;
    }
  }, [sendBatch]);

  const take = useCallback(
    (news: { revision: number; events: readonly PackEvent[] }) => {
      const last = latest.current.events.at(-1)?.seq ?? 0;
      const fresh = news.events.filter((event) => event.seq > last);
      if (fresh.length > 0) {
        const back = new Set(fresh.map((event) => event.id));
        latest.current.events = [...latest.current.events, ...fresh];
        setEvents(latest.current.events);
        keep(latest.current.own.filter(({ tick }) => !back.has(tick.id)));
      }
      if (news.revision !== revision) {
        setTrouble({
          kind: 'moved on',
          message: `Revision ${news.revision} of the kit sheet is locked. Open it before you go on.`,
        });
      }
    },
    [revision, keep],
  );

  // What others do arrives over a stream that the browser opens again by itself, from the last event it had.
  useEffect(() => {
    let stream: EventSource;
    let timer: ReturnType<typeof setTimeout>;
    let heard = Date.now();
    const open = () => {
      stream = new EventSource(`/api/bench/${sessionId}/stream?since=${latest.current.events.at(-1)?.seq ?? 0}`);
      const hear = () => {
        heard = Date.now();
        if (!isCut.current) setConnection('live');
      };
      stream.onopen = () => {
        hear();
        void send();
      };
      stream.addEventListener('beat', hear);
      stream.onmessage = (message) => {
        hear();
        take(JSON.parse(message.data));
      };
      stream.onerror = () => {
        setConnection('offline');
        if (stream.readyState === EventSource.CLOSED) timer = setTimeout(open, AGAIN);
      };
    };
    const reopen = () => {
      clearTimeout(timer);
      stream.close();
      heard = Date.now();
      open();
    };
    const leave = () => setConnection('offline');
    open();
    const watch = setInterval(() => {
      if (Date.now() - heard < SILENT) return;
      leave();
      reopen();
    }, AGAIN);
    window.addEventListener('offline', leave);
    window.addEventListener('online', reopen);
    return () => {
      clearTimeout(timer);
      clearInterval(watch);
      window.removeEventListener('offline', leave);
      window.removeEventListener('online', reopen);
      stream.close();
    };
  }, [sessionId, take, send]);

  // What was not answered is sent again until it is.
  useEffect(() => {
    const timer = setInterval(() => void send(), AGAIN);
    return () => clearInterval(timer);
  }, [send]);

  const add = useCallback(
    (changes: readonly Omit<SentTick, 'id'>[]): readonly SentTick[] => {
      const fresh = changes.map((change) => ({ ...change, id: v7() }));
      keep([...latest.current.own, ...fresh.map((tick) => ({ tick, saved: false }))]);
      void send();
      return fresh;
    },
    [keep, send],
  );

  const packed = useMemo(() => {
    const last = events.at(-1)?.seq ?? 0;
    return packedNow([...events, ...own.map(({ tick }, index) => ({ ...tick, seq: last + 1 + index }))]);
  }, [events, own]);

  const calledBack = useMemo(() => calledBackNow(events), [events]);

  const lastDone = done.at(-1);
  return {
    packed,
    calledBack,
    connection,
    waiting: own.filter(({ saved }) => !saved).length,
    trouble,
    tick: (changes) => {
      const fresh = add(changes);
      setDone((before) => [...before.slice(-49), fresh]);
    },
    undo:
      lastDone &&
      (() => {
        setDone((before) => before.slice(0, -1));
        add(
          lastDone.map(({ kitId, component, action }) => ({
            kitId,
            component,
            action: action === 'packed' ? ('undone' as const) : ('packed' as const),
          })),
        );
      }),
  };
}

/** A tick made on this screen; saved once the server has confirmed it. */
interface OwnTick {
  readonly tick: SentTick;
  readonly saved: boolean;
}

const SIGNED_OUT = 'You are signed out. Sign in again on this device: the ticks are kept here.';
const NO_ANSWER = 'The server does not answer. Go on packing: the ticks are kept here and sent again.';
