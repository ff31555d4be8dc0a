'use client';

import { useEffect, useState, useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import type { SentHanding } from '@/contracts/handout';
import { deviceStorage } from '../offline/device-storage';
import { offlineQueue } from '../offline/queue';
import { sendingTo } from '../offline/send';
import { asSent, WORDS } from './use-table';

/** How often a phone sends what waits, in milliseconds. */
const AGAIN = 3000;

type Word =
  | Omit<SentHanding, 'wasAway'>
  | { readonly id: string; readonly what: 'left' | 'ended'; readonly at: string };

/** What a driver says of a round: kept on this phone until the server has it. */
export function useRoundWords(roundId: string, address: string) {
  const [warned, setWarned] = useState<readonly string[]>([]);
  const [queue] = useState(() =>
    offlineQueue(
      deviceStorage<Word>(`round ${roundId}`),
      sendingTo<Word>(
        address,
        (events) => ({ events: asSent(events) }),
        WORDS,
        (answer) => {
          const { warnings = [] } = (answer ?? {}) as { warnings?: readonly { say: string }[] };
          if (warnings.length > 0) setWarned((before) => [...before, ...warnings.map(({ say }) => say)]);
        },
      ),
    ),
  );
  const { waiting, saved, trouble, isCut } = useSyncExternalStore(queue.subscribe, queue.state, queue.state);
  useEffect(() => {
    const timer = setInterval(() => void queue.send(), AGAIN);
    return () => clearInterval(timer);
  }, [queue]);
  const at = () => new Date().toISOString();
  return {
    said: [...saved, ...waiting],
    waiting: waiting.length,
    isCut,
    trouble: trouble?.message,
    warned,
    say: (kitIds: readonly string[], what: 'handed' | 'not there' | 'undone', who = '', item = '') =>
      queue.add(kitIds.map((kitId) => ({ id: v7(), kitId, what, who, item, at: at() }))),
    sayRound: (what: 'left' | 'ended') => queue.add([{ id: v7(), what, at: at() }]),
  };
}
