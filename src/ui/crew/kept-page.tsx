'use client';

import { useEffect, useState } from 'react';

/** Keeps this page on the device, so that it opens without a network; and says so while there is none. */
export function KeptPage({ scope = '/my/' }: { scope?: '/my/' | '/live/' }) {
  const [isOffline, setOffline] = useState(false);
  useEffect(() => {
    // On the local network without TLS a browser keeps no pages: it is read with a network then.
    void navigator.serviceWorker
      ?.register('/my-worker.js', { scope })
      .then(() => navigator.serviceWorker.ready)
      .then(({ active }) => {
        const parts = [...document.querySelectorAll<HTMLScriptElement | HTMLLinkElement>('script[src], link[href]')];
        const own = parts.map((part) => ('src' in part ? part.src : part.href));
        const keep = own.filter((url) => url.startsWith(`${location.origin}/_next/static/`));
        active?.postMessage({ keep: [location.href, ...keep] });
      })
      .catch(() => {});
    const look = () => setOffline(!navigator.onLine);
    look();
    window.addEventListener('online', look);
    window.addEventListener('offline', look);
    return () => {
      window.removeEventListener('online', look);
      window.removeEventListener('offline', look);
    };
  }, [scope]);
  if (!isOffline) return null;
  return (
    <p role="status" className="mb-4 rounded-box border-l-4 border-warning bg-warning/10 p-3 text-sm">
      No network: this is how it stood when you last looked. Answers need a network.
    </p>
  );
}
