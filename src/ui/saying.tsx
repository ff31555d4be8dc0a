'use client';

import { createContext, type ReactNode, useContext, useMemo } from 'react';
import type { Manner } from '@/core/plan/manner';
import { PLAIN_SAYING, type Saying, type SayingFacts, sayingOf } from '@/core/plan/saying';

const Said = createContext<SayingFacts>(PLAIN_SAYING);

/** Tells every screen and field in it how the programme says dates, times and money. */
export function SayingOf({ value, children }: { value: SayingFacts; children: ReactNode }) {
  return <Said value={value}>{children}</Said>;
}

export const useManner = (): Manner => useContext(Said).manner;

/** The programme's currency, ISO 4217. */
export const useCurrency = (): string => useContext(Said).currency;

/** How the programme says things. */
export function useSaying(): Saying {
  const facts = useContext(Said);
  return useMemo(() => sayingOf(facts), [facts]);
}
