'use client';

import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import type { SentTick } from '@/contracts/bench';
import { calledBackNow, checkedNow, type PackEvent, packedNow } from '@/core/packing/progress';
import { deviceStorage } from '../offline/device-storage';
import { offlineQueue } from '../offline/queue';
import { sendingTo } from '../offline/send';

/** How soon a screen sends again what was not answered, and opens its stream again, in milliseconds. */
const AGAIN = 1500;
/** A stream beats every five seconds: one that was silent for this long is broken, even if nobody has said so. */
const SILENT = 12_000;
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
  /** Kits that a second pair of eyes has looked into, each with whose. */
  readonly checked: ReadonlyMap<string, string>;
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
  const [done, setDone] = useState<readonly (readonly SentTick[])[]>([]);
  const [movedOn, setMovedOn] = useState<Trouble>();
  const [connection, setConnection] = useState<Connection>('connecting');
  const [queue] = useState(() => offlineQueue(deviceStorage<SentTick>(`ticks ${sessionId}`), sendTicks(sessionId)));
  const { waiting, saved, trouble, isCut } = useSyncExternalStore(queue.subscribe, queue.state, queue.state);
  /** What is true now, whatever has been drawn yet. */
  const latest = useRef(initial);

  const take = useCallback(
    (news: { revision: number; events: readonly PackEvent[] }) => {
      const last = latest.current.at(-1)?.seq ?? 0;
      const fresh = news.events.filter((event) => event.seq > last);
      if (fresh.length > 0) {
        latest.current = [...latest.current, ...fresh];
        setEvents(latest.current);
        queue.readBack(new Set(fresh.map((event) => event.id)));
      }
      if (news.revision !== revision) {
        setMovedOn({
          kind: 'moved on',
          message: `Revision ${news.revision} of the kit sheet is locked. Open it before you go on.`,
        });
      }
    },
    [revision, queue],
  );

  // What others do arrives over a stream that the browser opens again by itself, from the last event it had.
  useEffect(() => {
    let stream: EventSource;
    let timer: ReturnType<typeof setTimeout>;
    let heard = Date.now();
    const open = () => {
      stream = new EventSource(`/api/bench/${sessionId}/stream?since=${latest.current.at(-1)?.seq ?? 0}`);
      const hear = () => {
        heard = Date.now();
        if (!queue.state().isCut) setConnection('live');
      };
      stream.onopen = () => {
        hear();
        void queue.send();
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
  }, [sessionId, take, queue]);

  // What was not answered is sent again until it is.
  useEffect(() => {
    const timer = setInterval(() => void queue.send(), AGAIN);
    return () => clearInterval(timer);
  }, [queue]);

  const add = useCallback(
    (changes: readonly Omit<SentTick, 'id'>[]): readonly SentTick[] => {
      const fresh = changes.map((change) => ({ ...change, id: v7() }));
      queue.add(fresh);
      return fresh;
    },
    [queue],
  );

  const all = useMemo(() => {
    const last = events.at(-1)?.seq ?? 0;
    return [...events, ...[...saved, ...waiting].map((tick, index) => ({ ...tick, seq: last + 1 + index }))];
  }, [events, saved, waiting]);
  const packed = useMemo(() => packedNow(all), [all]);
  const checked = useMemo(() => checkedNow(all), [all]);

  const calledBack = useMemo(() => calledBackNow(events), [events]);

  const lastDone = done.at(-1);
  return {
    packed,
    calledBack,
    checked,
    connection: isCut ? 'offline' : connection,
    waiting: waiting.length,
    trouble: movedOn ?? trouble ?? null,
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
            action: action === 'undone' ? ('packed' as const) : ('undone' as const),
          })),
        );
      }),
  };
}

/** Sends ticks to the bench of a session. */
const sendTicks = (sessionId: string) =>
  sendingTo<SentTick>(`/api/bench/${sessionId}/ticks`, (ticks) => ({ ticks }), {
    noAnswer: 'The server does not answer. Go on packing: the ticks are kept here and sent again.',
    signedOut: 'You are signed out. Sign in again on this device: the ticks are kept here.',
    refused: 'These ticks were refused.',
  });
