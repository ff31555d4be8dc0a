'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 } from 'uuid';
import type { SentTick } from '@/contracts/bench';
import { type PackEvent, packedNow } from '@/core/packing/progress';

/** How often a screen asks what others ticked, in milliseconds. */
const ASK_EVERY = 2000;
/** Ticks sent in one request. */
const BATCH = 500;

/** What stands in the way of saving, in words; empty when all is well. */
export interface Trouble {
  readonly kind: 'waiting' | 'refused' | 'moved on';
  readonly message: string;
}

export interface Ticks {
  readonly packed: ReadonlyMap<string, ReadonlySet<string>>;
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
  const [queue, setQueue] = useState<readonly SentTick[]>([]);
  const [done, setDone] = useState<readonly (readonly SentTick[])[]>([]);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const store = `logistra.ticks.${sessionId}`;
  /** Falls to 1 after a refusal, so that one bad tick does not take good ones with it. */
  const batchSize = useRef(BATCH);
  const latest = useRef({ events, queue });
  latest.current = { events, queue };

  const keep = useCallback(
    (next: readonly SentTick[]) => {
      latest.current = { ...latest.current, queue: next };
      setQueue(next);
      localStorage.setItem(store, JSON.stringify(next));
    },
    [store],
  );

  useEffect(() => {
    const kept = localStorage.getItem(store);
    if (kept) setQueue(JSON.parse(kept));
  }, [store]);

  const send = useCallback(async (): Promise<boolean> => {
    const batch = latest.current.queue.slice(0, batchSize.current);
    if (batch.length === 0) {
      batchSize.current = BATCH;
      return true;
    }
    const response = await fetch(`/api/bench/${sessionId}/ticks`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ticks: batch }),
    }).catch(() => null);
    if (response?.status === 401) {
      setTrouble({
        kind: 'waiting',
        message: 'You are signed out. Sign in again on this device: the ticks are kept here.',
      });
      return false;
    }
    if (!response || response.status >= 500) {
      setTrouble({
        kind: 'waiting',
        message: 'The server does not answer. Go on packing: the ticks are kept here and sent again.',
      });
      return false;
    }
    if (!response.ok && batch.length > 1) {
      batchSize.current = 1;
      return send();
    }
    const sent = new Set(batch.map((tick) => tick.id));
    if (!response.ok) {
      const body = await response.json().catch(() => null);
      setTrouble({ kind: 'refused', message: body?.title ?? 'These ticks were refused.' });
    } else setTrouble((now) => (now?.kind === 'waiting' ? null : now));
    keep(latest.current.queue.filter((tick) => !sent.has(tick.id)));
    return latest.current.queue.length > 0 ? send() : true;
  }, [sessionId, keep]);

  const ask = useCallback(async () => {
    const since = latest.current.events.at(-1)?.seq ?? 0;
    const response = await fetch(`/api/bench/${sessionId}/ticks?since=${since}`).catch(() => null);
    if (!response?.ok) return;
    const news: { revision: number; events: PackEvent[] } = await response.json();
    setEvents((known) => {
      const last = known.at(-1)?.seq ?? 0;
      const fresh = news.events.filter((event) => event.seq > last);
      return fresh.length > 0 ? [...known, ...fresh] : known;
    });
    if (news.revision !== revision) {
      setTrouble({
        kind: 'moved on',
        message: `Revision ${news.revision} of the kit sheet is locked. Open it before you go on.`,
      });
    }
  }, [sessionId, revision]);

  useEffect(() => {
    let stopped = false;
    let timer: ReturnType<typeof setTimeout>;
    const turn = async () => {
      await send();
      await ask();
      if (!stopped) timer = setTimeout(turn, ASK_EVERY);
    };
    void turn();
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  }, [send, ask]);

  const tick = useCallback(
    (changes: readonly Omit<SentTick, 'id'>[]) => {
      const fresh = changes.map((change) => ({ ...change, id: v7() }));
      keep([...latest.current.queue, ...fresh]);
      setDone((before) => [...before.slice(-49), fresh]);
      void send().then(ask);
    },
    [keep, send, ask],
  );

  const packed = useMemo(() => {
    const confirmed = new Set(events.map((event) => event.id));
    const last = events.at(-1)?.seq ?? 0;
    const own = queue
      .filter((waiting) => !confirmed.has(waiting.id))
      .map((waiting, index) => ({ ...waiting, seq: last + 1 + index }));
    return packedNow([...events, ...own]);
  }, [events, queue]);

  const lastDone = done.at(-1);
  const undo = lastDone
    ? () => {
        setDone((before) => before.slice(0, -1));
        const back = lastDone.map(({ kitId, component, action }) => ({
          kitId,
          component,
          action: action === 'packed' ? ('undone' as const) : ('packed' as const),
        }));
        const fresh = back.map((change) => ({ ...change, id: v7() }));
        keep([...latest.current.queue, ...fresh]);
        void send().then(ask);
      }
    : undefined;
  return { packed, waiting: queue.length, trouble, tick, undo };
}
