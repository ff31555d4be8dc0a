'use client';

import { useEffect, useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { type ClassEvent, type ClassValue, type ClassWord, classNow } from '@/core/classday/live/class-events';
import { useShared } from '../../offline/use-shared';

/** How often a screen asks what others said, in milliseconds: what one taps, all see within a second. */
const EVERY = 600;
const WORDS = {
  noAnswer: 'The server does not answer. Go on: everything is kept on this screen and sent again.',
  signedOut: 'You are signed out. Sign in again on this screen: what you tapped is kept here.',
  refused: 'This was refused.',
};

type Said = Pick<ClassEvent, 'id' | 'what' | 'item' | 'enrolmentId' | 'value' | 'at'>;

/** What goes with a word. */
interface More {
  readonly item?: string;
  readonly enrolmentId?: string | null;
  readonly value?: ClassValue;
}

export type Say = (what: ClassWord, more?: More) => void;

/**
 * A class as this screen knows it: what it said itself counts at once, with or without a network.
 *
 * @param onMark told the mark of the roll, the needs and the labels, again and again
 */
export function useClass(
  sessionId: string,
  sitting: string,
  initial: readonly ClassEvent[],
  onMark: (mark: string) => void,
) {
  // By how much the server's clock is ahead of this one, by its last answer: a page that was kept says nothing of now.
  const [ahead, setAhead] = useState(0);
  const address = `/api/class/${sessionId}/${sitting || 'first'}/events`;
  const { heard, waiting, saved, trouble, isCut, add } = useShared<
    Said,
    ClassEvent,
    { readonly now?: string; readonly mark?: string }
  >(
    {
      name: `class ${sessionId} ${sitting}`,
      address,
      body: (events) => ({ now: new Date().toISOString(), events }),
      words: WORDS,
      every: EVERY,
      onNews: ({ now, mark }) => {
        if (mark) onMark(mark);
        if (!now) return;
        const next = Date.parse(now) - Date.now();
        // A second more or less is the way there, not the clock.
        setAhead((before) => (Math.abs(before - next) < 1500 ? before : next));
      },
    },
    initial,
  );
  const [tick, setTick] = useState<number>();
  useEffect(() => {
    const look = () => setTick(Date.now());
    look();
    const timer = setInterval(look, 1000);
    return () => clearInterval(timer);
  }, []);
  const events = useMemo(() => {
    const known = new Set(heard.map(({ id }) => id));
    const last = heard.at(-1)?.seq ?? 0;
    const own = [...saved, ...waiting].filter(({ id }) => !known.has(id));
    const byServer = (at: string) => new Date(Date.parse(at) + ahead).toISOString();
    return [
      ...heard,
      ...own.map(
        (event, n): ClassEvent => ({ ...event, at: byServer(event.at), seq: last + 1 + n, by: 'this screen' }),
      ),
    ];
  }, [heard, saved, waiting, ahead]);
  const now = useMemo(() => classNow(events), [events]);
  const say: Say = (what, { item = '', enrolmentId = null, value = {} } = {}) =>
    add([{ id: v7(), what, item, enrolmentId, value, at: new Date().toISOString() }]);
  return {
    now,
    events,
    say,
    waiting: waiting.length,
    isCut,
    trouble,
    /** Milliseconds by the server's clock; undefined until the page is alive. */
    clock: tick === undefined ? undefined : tick + ahead,
    base: `/api/class/${sessionId}/${sitting || 'first'}`,
  };
}

/** Posts to an address of the class; answers in words where it is refused. */
export async function ask<Answer>(address: string, body: object): Promise<Answer | { readonly refused: string }> {
  const response = await fetch(address, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => null);
  if (!response) return { refused: 'The server does not answer. Try again when there is a network.' };
  const answer = await response.json().catch(() => null);
  if (response.ok && answer) return answer as Answer;
  const problems: readonly { message?: string }[] = answer?.problems ?? answer?.errors ?? [];
  const more = problems.map(({ message }) => message).filter((message) => message && message !== answer?.title);
  return { refused: [answer?.title ?? 'This was refused.', ...more].filter(Boolean).join(' ') };
}
