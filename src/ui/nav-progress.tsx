'use client';

import { usePathname, useSearchParams } from 'next/navigation';
import { Suspense, useEffect, useState } from 'react';

/** So long a page may take before anything is shown, in milliseconds. */
const QUICK = 250;
/** From then on its outline stands where the old page was. */
const SLOW = 800;
/** A page that does not come is no longer on its way. */
const MOST = 20_000;

/** A line across the top while a page that was asked for is on its way; where it takes longer, its outline over the old page. */
export function NavProgress() {
  return (
    <Suspense fallback={null}>
      <Line />
    </Suspense>
  );
}

function Line() {
  const here = `${usePathname()}?${useSearchParams()}`;
  const [waits, setWaits] = useState<'no' | 'a moment' | 'longer'>('no');
  // Anew on each page: what was waited for is there.
  useEffect(() => {
    let timers: ReturnType<typeof setTimeout>[] = [];
    const stop = () => {
      for (const timer of timers) clearTimeout(timer);
    };
    const onClick = (event: MouseEvent) => {
      const link = (event.target as Element | null)?.closest?.('a[href]') as HTMLAnchorElement | null;
      const isPlain = event.button === 0 && !event.metaKey && !event.ctrlKey && !event.shiftKey && !event.altKey;
      if (!link || !isPlain || link.target || link.hasAttribute('download') || link.origin !== window.location.origin)
        return;
      // A file is saved, and the page stays.
      if (/\.\w+$/.test(link.pathname)) return;
      if (`${link.pathname}?${link.search.slice(1)}` === here) return;
      stop();
      timers = [
        setTimeout(() => setWaits('a moment'), QUICK),
        setTimeout(() => setWaits('longer'), SLOW),
        setTimeout(() => setWaits('no'), MOST),
      ];
    };
    setWaits('no');
    document.addEventListener('click', onClick);
    return () => {
      document.removeEventListener('click', onClick);
      stop();
    };
  }, [here]);
  if (waits === 'no') return null;
  return (
    <>
      <div role="status" className="no-print fixed inset-x-0 top-0 z-50">
        <progress className="progress progress-primary block h-1 w-full rounded-none" />
        <span className="sr-only">The page is on its way.</span>
      </div>
      {waits === 'longer' && (
        <div aria-hidden="true" className="no-print absolute inset-0 z-40 bg-base-200 px-4 py-6">
          <div className="sticky top-6 flex flex-col gap-5">
            <div className="skeleton h-9 w-72 max-w-full" />
            <div className="skeleton h-40 w-full" />
            <div className="skeleton h-64 w-full" />
          </div>
        </div>
      )}
    </>
  );
}
