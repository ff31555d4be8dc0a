'use client';

import { useCallback, useEffect, useState } from 'react';
import type { RunningOut } from '@/core/packing/line/running-out';

/** How often the line is asked how it goes, in milliseconds. */
const AGAIN = 20_000;

/** A bench as a line, as the server sees it. */
export interface LineNews {
  readonly line: {
    readonly packers: number;
    readonly stations: readonly (readonly {
      readonly row: number;
      readonly name: string;
      readonly seconds: number;
    }[])[];
    readonly slowest: number;
    readonly kitsAnHour: number;
    readonly minutes: number;
    readonly proven: boolean;
    readonly because: string;
    readonly setOut: readonly { readonly container: string; readonly count: number }[];
  };
  readonly pace: {
    readonly ticksAnHour?: number;
    readonly kitsAnHour?: number;
    readonly minutesLeft?: number;
    readonly heldUpBy?: { readonly name: string; readonly kits: number };
    readonly doneAt: string | null;
    readonly isLate: boolean;
  };
  readonly runningOut: readonly RunningOut[];
}

/** The line of a bench, asked again and again while the page is open; the last answer stays where the server does not answer. */
export function useLine(sessionId: string) {
  const [news, setNews] = useState<LineNews>();
  const address = `/api/bench/${sessionId}/line`;
  const take = useCallback(async (answer: Promise<Response>) => {
    const response = await answer.catch(() => null);
    if (response?.ok) setNews(await response.json());
  }, []);
  useEffect(() => {
    const look = () => take(fetch(address, { signal: AbortSignal.timeout(8000) }));
    void look();
    const timer = setInterval(look, AGAIN);
    return () => clearInterval(timer);
  }, [address, take]);
  const setPackers = (packers: number) =>
    take(
      fetch(address, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ packers }),
      }),
    );
  return { news, setPackers };
}
