'use client';

import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { deviceStorage } from './device-storage';
import { offlineQueue, type Queued } from './queue';
import { sendingTo } from './send';

/** How often a screen sends what waits, in milliseconds. */
const AGAIN = 3000;

interface Sent<Event extends Queued> {
  /** Of the queue on this device: "round …". */
  readonly name: string;
  readonly address: string;
  readonly body: (events: readonly Event[]) => unknown;
  readonly words: { readonly noAnswer: string; readonly signedOut: string; readonly refused: string };
  /** Told what the server answered. */
  readonly hear?: (answer: unknown) => void;
}

/** What is said on one screen: kept there until the server has it. */
export function useSent<Event extends Queued>({ name, address, body, words, hear }: Sent<Event>) {
  const told = useRef(hear);
  told.current = hear;
  const [queue] = useState(() =>
    offlineQueue(
      deviceStorage<Event>(name),
      sendingTo<Event>(address, body, words, (answer) => told.current?.(answer)),
    ),
  );
  const { waiting, saved, trouble, isCut } = useSyncExternalStore(queue.subscribe, queue.state, queue.state);
  useEffect(() => {
    const timer = setInterval(() => void queue.send(), AGAIN);
    return () => clearInterval(timer);
  }, [queue]);
  return { said: [...saved, ...waiting], waiting: waiting.length, isCut, trouble: trouble?.message, add: queue.add };
}
