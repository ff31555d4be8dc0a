'use client';

import { usePathname, useSearchParams } from 'next/navigation';
import { Suspense, useEffect, useState } from 'react';

/** So long a page may take before anything is shown, in milliseconds. */
const QUICK = 250;
/** A page that does not come is no longer on its way. */
const MOST = 20_000;

/** A line across the top while a page that was asked for is on its way. */
export function NavProgress() {
  return (
    <Suspense fallback={null}>
      <Line />
    </Suspense>
  );
}

function Line() {
  const here = `${usePathname()}?${useSearchParams()}`;
  const [from, setFrom] = useState<string>();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const onClick = (event: MouseEvent) => {
      const link = (event.target as Element | null)?.closest?.('a[href]') as HTMLAnchorElement | null;
      const isPlain = event.button === 0 && !event.metaKey && !event.ctrlKey && !event.shiftKey && !event.altKey;
      if (!link || !isPlain || link.target || link.hasAttribute('download') || link.origin !== window.location.origin)
        return;
      if (link.pathname === window.location.pathname && link.search === window.location.search) return;
      clearTimeout(timer);
      const left = `${window.location.pathname}?${window.location.search.slice(1)}`;
      timer = setTimeout(() => setFrom(left), QUICK);
    };
    document.addEventListener('click', onClick);
    return () => {
      document.removeEventListener('click', onClick);
      clearTimeout(timer);
    };
  }, []);
  useEffect(() => {
    if (from === undefined) return;
    const end = setTimeout(() => setFrom(undefined), MOST);
    return () => clearTimeout(end);
  }, [from]);
  if (from !== here) return null;
  return (
    <div role="status" className="no-print fixed inset-x-0 top-0 z-50">
      <progress className="progress progress-primary block h-1 w-full rounded-none" />
      <span className="sr-only">The page is on its way.</span>
    </div>
  );
}
