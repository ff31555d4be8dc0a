'use client';

import { usePathname, useSearchParams } from 'next/navigation';
import { useCallback } from 'react';

type Told = Readonly<Record<string, string | undefined>>;

/**
 * What a page shows, kept in its address without asking the server: it can be sent to somebody, and is there again when the
 * page is loaded once more.
 */
export function useAddress(): [Told, (change: Told) => void] {
  const path = usePathname();
  const given = useSearchParams();
  const change = useCallback(
    (part: Told) => {
      // The address may say more by now than when this was drawn.
      const all = new URLSearchParams(window.location.search);
      for (const [name, value] of Object.entries(part)) {
        if (value) all.set(name, value);
        else all.delete(name);
      }
      const query = all.toString();
      window.history.replaceState(null, '', query ? `${path}?${query}` : path);
    },
    [path],
  );
  return [Object.fromEntries(given), change];
}
