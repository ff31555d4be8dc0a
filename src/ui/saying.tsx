'use client';

import { createContext, type ReactNode, useContext, useMemo } from 'react';
import type { Manner } from '@/core/plan/manner';
import { PLAIN_SAYING, type Saying, type SayingFacts, sayingOf } from '@/core/plan/saying';

/** A day that a calendar shows as taken, and by what. */
export interface MarkedDay {
  /** YYYY-MM-DD */
  readonly date: string;
  readonly say: string;
}

const Said = createContext<SayingFacts>(PLAIN_SAYING);

/** Days that calendars mark, asked for when one is opened; nothing where nobody may know. */
type MarkedDays = () => Promise<readonly MarkedDay[]>;

const Marked = createContext<MarkedDays | undefined>(undefined);

export const useMarkedDays = (): MarkedDays | undefined => useContext(Marked);

/** Tells every screen and field in it how the programme says dates, times and money. */
export function SayingOf({
  value,
  marked,
  children,
}: {
  value: SayingFacts;
  marked?: MarkedDays | undefined;
  children: ReactNode;
}) {
  return (
    <Said value={value}>
      <Marked value={marked}>{children}</Marked>
    </Said>
  );
}

export const useManner = (): Manner => useContext(Said).manner;

/** The programme's currency, ISO 4217. */
export const useCurrency = (): string => useContext(Said).currency;

/** How the programme says things. */
export function useSaying(): Saying {
  const facts = useContext(Said);
  return useMemo(() => sayingOf(facts), [facts]);
}
