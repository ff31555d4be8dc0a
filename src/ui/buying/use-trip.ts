'use client';

import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import { lineNow, type TripAnswer, type TripLineBody, type TripLineNow } from '@/core/buying/trip';
import { deviceStorage } from '../offline/device-storage';
import { offlineQueue } from '../offline/queue';
import { sendingTo } from '../offline/send';

/** How often a phone sends what waits, and asks what others did, in milliseconds. */
const AGAIN = 1500;

export interface TripLine {
  readonly id: string;
  readonly body: TripLineBody;
}

interface Said {
  readonly id: string;
  readonly lineId: string;
  readonly answer: TripAnswer;
}

export interface TripSaid extends Said {
  readonly seq: number;
}

/** What the server found that the phone did not: a swap that some kits must not hold. */
interface Warned {
  readonly lineId: string;
  readonly kits: readonly { readonly title: string }[];
}

const WORDS = {
  noAnswer: 'The server does not answer. Go on shopping: everything is kept here and sent again.',
  signedOut: 'You are signed out. Sign in again on this device: what you ticked is kept here.',
  refused: 'This was refused.',
};

/**
 * A trip as this phone knows it: what is ticked here is kept on the device until the server has it, and what others tick arrives
 * within moments.
 */
export function useTrip(tripId: string, lines: readonly TripLine[], initial: readonly TripSaid[]) {
  const [heard, setHeard] = useState(initial);
  const [warned, setWarned] = useState<readonly Warned[]>([]);
  const [queue] = useState(() =>
    offlineQueue(
      deviceStorage<Said>(`trip ${tripId}`),
      sendingTo<Said>(
        `/api/trips/${tripId}/answers`,
        (answers) => ({ answers }),
        WORDS,
        (answer) => {
          const { unsafe = [] } = (answer ?? {}) as { unsafe?: readonly Warned[] };
          if (unsafe.length > 0) setWarned((before) => [...before, ...unsafe]);
        },
      ),
    ),
  );
  const { waiting, saved, trouble, isCut } = useSyncExternalStore(queue.subscribe, queue.state, queue.state);
  const [isAlone, setIsAlone] = useState(false);
  const last = heard.at(-1)?.seq ?? 0;
  useEffect(() => {
    const timer = setInterval(async () => {
      void queue.send();
      const response = await fetch(`/api/trips/${tripId}/answers?after=${last}`, {
        signal: AbortSignal.timeout(8000),
      }).catch(() => null);
      setIsAlone(!response?.ok);
      const news: readonly TripSaid[] = response?.ok ? ((await response.json()).events ?? []) : [];
      if (news.length === 0) return;
      queue.readBack(new Set(news.map(({ id }) => id)));
      setHeard((before) => [...before, ...news.filter(({ seq }) => seq > (before.at(-1)?.seq ?? 0))]);
    }, AGAIN);
    return () => clearInterval(timer);
  }, [queue, tripId, last]);
  const now = useMemo(() => {
    const answers = new Map<string, TripAnswer[]>();
    const known = new Set<string>();
    for (const { id, lineId, answer } of [...heard, ...saved, ...waiting]) {
      if (known.has(id)) continue;
      known.add(id);
      answers.set(lineId, [...(answers.get(lineId) ?? []), answer]);
    }
    return new Map<string, TripLineNow>(lines.map(({ id, body }) => [id, lineNow(body, answers.get(id) ?? [])]));
  }, [heard, saved, waiting, lines]);
  return {
    now,
    warned,
    waiting: waiting.length,
    isCut: isCut || isAlone,
    trouble: trouble?.message,
    say: (lineId: string, answer: TripAnswer) => queue.add([{ id: v7(), lineId, answer }]),
  };
}
