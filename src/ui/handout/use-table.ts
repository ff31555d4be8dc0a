'use client';

import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import type { SentHanding } from '@/contracts/handout';
import { type HandEvent, type Handing, handedNow } from '@/core/handout/handing';
import { useShared } from '../offline/use-shared';

type Said = Omit<SentHanding, 'wasAway'>;

/** A word older than this when it is sent was said without a network, in milliseconds. */
const WAS_AWAY = 10_000;

export const WORDS = {
  noAnswer: 'The server does not answer. Go on: everything is kept on this phone and sent again.',
  signedOut: 'You are signed out. Sign in again on this phone: what you tapped is kept here.',
  refused: 'This was refused.',
};

/** What is sent, each with whether this phone could know what others did when it was said. */
export const asSent = <Event extends { readonly at: string }>(events: readonly Event[]) =>
  events.map((event) => ({ ...event, wasAway: Date.now() - Date.parse(event.at) > WAS_AWAY }));

interface Warning {
  readonly kitId: string;
  readonly say: string;
}

/** A hand-out as this phone knows it. */
export function useTable(sessionId: string, initial: readonly HandEvent[], heldAtFirst: readonly string[]) {
  const [warned, setWarned] = useState<readonly Warning[]>([]);
  const [held, setHeld] = useState<ReadonlySet<string>>(new Set(heldAtFirst));
  const { heard, waiting, saved, trouble, isCut, add } = useShared<
    Said,
    HandEvent,
    { readonly held?: readonly string[] }
  >(
    {
      name: `hand-out ${sessionId}`,
      address: `/api/table/${sessionId}/events`,
      body: (events) => ({ events: asSent(events) }),
      words: WORDS,
      hear: (answer) => {
        const { warnings = [] } = (answer ?? {}) as { warnings?: readonly Warning[] };
        if (warnings.length > 0) setWarned((before) => [...before, ...warnings]);
      },
      onNews: (news) => {
        const { held: now } = news;
        if (now) setHeld((before) => (sameSet(before, now) ? before : new Set(now)));
      },
    },
    initial,
  );
  const events = useMemo(() => {
    const known = new Set(heard.map(({ id }) => id));
    const last = heard.at(-1)?.seq ?? 0;
    const own = [...saved, ...waiting].filter(({ id }) => !known.has(id));
    return [...heard, ...own.map((event, at): HandEvent => ({ ...event, seq: last + 1 + at }))];
  }, [heard, saved, waiting]);
  const now = useMemo(() => handedNow(events), [events]);
  return {
    now,
    events,
    held,
    warned,
    waiting: waiting.length,
    isCut,
    trouble,
    say: (kitIds: readonly string[], what: Handing, { who = '', item = '' } = {}) =>
      add(kitIds.map((kitId) => ({ id: v7(), kitId, what, who, item, at: new Date().toISOString() }))),
  };
}

const sameSet = (set: ReadonlySet<string>, all: readonly string[]) =>
  set.size === all.length && all.every((each) => set.has(each));
