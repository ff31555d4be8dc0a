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
  const [own, setOwn] = useState<readonly OwnTick[]>([]);
  const [done, setDone] = useState<readonly (readonly SentTick[])[]>([]);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const store = `logistra.ticks.${sessionId}`;
  /** Falls to 1 after a refusal, so that one bad tick does not take good ones with it. */
  const batchSize = useRef(BATCH);
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

  const send = useCallback(async (): Promise<void> => {
    const unsaved = latest.current.own.filter(({ saved }) => !saved);
    const batch = unsaved.slice(0, batchSize.current).map(({ tick }) => tick);
    if (batch.length === 0) {
      batchSize.current = BATCH;
      return;
    }
    const response = await fetch(`/api/bench/${sessionId}/ticks`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ticks: batch }),
    }).catch(() => null);
    if (!response || response.status >= 500 || response.status === 401) {
      setTrouble({ kind: 'waiting', message: response?.status === 401 ? SIGNED_OUT : NO_ANSWER });
      return;
    }
    if (!response.ok && batch.length > 1) {
      batchSize.current = 1;
      return send();
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
    return send();
  }, [sessionId, keep]);

  const ask = useCallback(async () => {
    const since = latest.current.events.at(-1)?.seq ?? 0;
    const response = await fetch(`/api/bench/${sessionId}/ticks?since=${since}`).catch(() => null);
    if (!response?.ok) return;
    const news: { revision: number; events: PackEvent[] } = await response.json();
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
  }, [sessionId, revision, keep]);

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

  const add = useCallback(
    (changes: readonly Omit<SentTick, 'id'>[]): readonly SentTick[] => {
      const fresh = changes.map((change) => ({ ...change, id: v7() }));
      keep([...latest.current.own, ...fresh.map((tick) => ({ tick, saved: false }))]);
      void send().then(ask);
      return fresh;
    },
    [keep, send, ask],
  );

  const packed = useMemo(() => {
    const last = events.at(-1)?.seq ?? 0;
    return packedNow([...events, ...own.map(({ tick }, index) => ({ ...tick, seq: last + 1 + index }))]);
  }, [events, own]);

  const lastDone = done.at(-1);
  return {
    packed,
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
