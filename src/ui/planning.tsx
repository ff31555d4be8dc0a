'use client';

import { useEffect, useState } from 'react';
import { usePending } from './form/pending';

/** How far a plan is while it is worked out, and a way to stop it: whoever leaves ends the work, and nothing is saved. */
export function Planning({ seconds }: { seconds: number }) {
  const isPending = usePending();
  const [since, setSince] = useState(0);
  useEffect(() => {
    if (!isPending) return;
    setSince(0);
    const timer = setInterval(() => setSince((now) => now + 1), 1000);
    return () => clearInterval(timer);
  }, [isPending]);
  if (!isPending) return null;
  return (
    <span className="flex items-center gap-3 text-sm">
      <progress className="progress w-32" value={Math.min(since, seconds)} max={seconds} aria-label="Planning" />
      <span>
        {since} s. After {seconds} s the best found so far is kept, with how far it may be from the very best.
      </span>
      <button type="button" className="btn btn-sm" onClick={() => window.location.reload()}>
        Stop planning
      </button>
    </span>
  );
}
