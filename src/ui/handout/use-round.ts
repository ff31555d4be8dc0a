'use client';

import { useState } from 'react';
import { v7 } from 'uuid';
import type { SentHanding } from '@/contracts/handout';
import { useSent } from '../offline/use-sent';
import { asSent, WORDS } from './use-table';

type Word =
  | Omit<SentHanding, 'wasAway'>
  | { readonly id: string; readonly what: 'left' | 'ended'; readonly at: string };

/** What a driver says of a round: kept on this phone until the server has it. */
export function useRoundWords(roundId: string, address: string) {
  const [warned, setWarned] = useState<readonly string[]>([]);
  const { add, ...sent } = useSent<Word>({
    name: `round ${roundId}`,
    address,
    body: (events) => ({ events: asSent(events) }),
    words: WORDS,
    hear: (answer) => {
      const { warnings = [] } = (answer ?? {}) as { warnings?: readonly { say: string }[] };
      if (warnings.length > 0) setWarned((before) => [...before, ...warnings.map(({ say }) => say)]);
    },
  });
  const at = () => new Date().toISOString();
  return {
    ...sent,
    warned,
    say: (kitIds: readonly string[], what: 'handed' | 'not there' | 'undone', who = '', item = '') =>
      add(kitIds.map((kitId) => ({ id: v7(), kitId, what, who, item, at: at() }))),
    sayRound: (what: 'left' | 'ended') => add([{ id: v7(), what, at: at() }]),
  };
}
