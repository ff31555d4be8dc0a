'use client';

import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { deviceStorage } from './device-storage';
import { offlineQueue, type Queued } from './queue';
import { sendingTo } from './send';

/** How often a phone sends what waits, and asks what others did, in milliseconds. */
const AGAIN = 1500;

interface Shared<Event extends Queued, News> {
  /** Of the queue on this device: "trip …". */
  readonly name: string;
  /** Where events are sent, and asked for with `?after=`. */
  readonly address: string;
  readonly body: (events: readonly Event[]) => unknown;
  readonly words: { readonly noAnswer: string; readonly signedOut: string; readonly refused: string };
  /** Told what the server answered to what was sent here. */
  readonly hear?: (answer: unknown) => void;
  /** Told all that came with the news. */
  readonly onNews?: (news: News) => void;
  /** How often, where it is not as usual, in milliseconds. */
  readonly every?: number;
}

/**
 * What happens to one thing on several phones: what is said here is kept on the device until the server has it, and what others say
 * arrives within moments. The address answers `{ events }`, each with its place in the order.
 */
export function useShared<Event extends Queued, Heard extends Event & { readonly seq: number }, News = object>(
  { name, address, body, words, hear, onNews, every = AGAIN }: Shared<Event, News>,
  initial: readonly Heard[],
) {
  const [heard, setHeard] = useState(initial);
  const told = useRef({ hear, onNews });
  told.current = { hear, onNews };
  const [queue] = useState(() =>
    offlineQueue(
      deviceStorage<Event>(name),
      sendingTo<Event>(address, body, words, (answer) => told.current.hear?.(answer)),
    ),
  );
  const { waiting, saved, trouble, isCut } = useSyncExternalStore(queue.subscribe, queue.state, queue.state);
  const [isAlone, setIsAlone] = useState(false);
  const last = heard.at(-1)?.seq ?? 0;
  useEffect(() => {
    const timer = setInterval(async () => {
      void queue.send();
      const response = await fetch(`${address}?after=${last}`, { signal: AbortSignal.timeout(8000) }).catch(() => null);
      setIsAlone(!response?.ok);
      if (!response?.ok) return;
      const news: News & { readonly events?: readonly Heard[] } = await response.json();
      told.current.onNews?.(news);
      const events = news.events ?? [];
      if (events.length === 0) return;
      queue.readBack(new Set(events.map(({ id }) => id)));
      setHeard((before) => [...before, ...events.filter(({ seq }) => seq > (before.at(-1)?.seq ?? 0))]);
    }, every);
    return () => clearInterval(timer);
  }, [queue, address, last, every]);
  return { heard, waiting, saved, trouble: trouble?.message, isCut: isCut || isAlone, add: queue.add };
}
