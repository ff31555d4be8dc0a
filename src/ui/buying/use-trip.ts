'use client';

import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { lineNow, type TripAnswer, type TripLineBody, type TripLineNow } from '@/core/buying/trip';
import { useShared } from '../offline/use-shared';

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
  const [warned, setWarned] = useState<readonly Warned[]>([]);
  const { heard, waiting, saved, trouble, isCut, add } = useShared<Said, TripSaid>(
    {
      name: `trip ${tripId}`,
      address: `/api/trips/${tripId}/answers`,
      body: (answers) => ({ answers }),
      words: WORDS,
      hear: (answer) => {
        const { unsafe = [] } = (answer ?? {}) as { unsafe?: readonly Warned[] };
        if (unsafe.length > 0) setWarned((before) => [...before, ...unsafe]);
      },
    },
    initial,
  );
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
    isCut,
    trouble,
    say: (lineId: string, answer: TripAnswer) => add([{ id: v7(), lineId, answer }]),
  };
}
