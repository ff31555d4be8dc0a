'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';

/** How often a page that watches something is loaded anew, in milliseconds: others note temperatures too. */
const AGAIN = 60_000;

/** Says when somebody has to look next, loudly once it is time. @param at ISO instant */
export function LookTimer({ at, what }: { at: string; what: string }) {
  const [now, setNow] = useState<number>();
  const router = useRouter();
  useEffect(() => {
    const look = () => setNow(Date.now());
    look();
    const second = setInterval(look, 5000);
    const again = setInterval(() => router.refresh(), AGAIN);
    return () => {
      clearInterval(second);
      clearInterval(again);
    };
  }, [router]);
  if (now === undefined) return null;
  const minutes = Math.ceil((Date.parse(at) - now) / 60_000);
  if (minutes <= 0)
    return (
      <p role="alert" className="rounded-box border-l-4 border-warning bg-warning/15 p-2 text-lg font-bold">
        Look now: {what}.
      </p>
    );
  return (
    <p className="text-lg">
      Look in{' '}
      <b className="tabular-nums">{minutes < 120 ? `${minutes} min` : `${Math.round(minutes / 30) / 2} hours`}</b>:{' '}
      {what}.
    </p>
  );
}
