'use client';

import dynamic from 'next/dynamic';
import { startTransition, useEffect, useState } from 'react';

/** What came of the way back. */
interface Answered {
  readonly ok: boolean;
  readonly message?: string;
}

/** What was done, with the way back where there is one. */
export interface Notice {
  readonly message: string;
  readonly undo?: (() => Promise<Answered>) | undefined;
}

const Toaster = dynamic(() => import('sonner').then((sonner) => sonner.Toaster), { ssr: false });

const FIRST = 'logistra:notice';

/** Says what was done in a corner of the desk: with a way back it stays until somebody takes it, or puts it away. */
export async function notify({ message, undo }: Notice): Promise<void> {
  window.dispatchEvent(new Event(FIRST));
  const { toast } = await import('sonner');
  if (!undo) {
    toast(message, { duration: 8000 });
    return;
  }
  const id = toast(message, {
    duration: Number.POSITIVE_INFINITY,
    action: {
      label: 'Undo',
      onClick: () => {
        startTransition(async () => {
          const answer = await undo().catch(() => null);
          toast.dismiss(id);
          if (answer?.ok) toast(answer.message ?? 'Taken back.', { duration: 8000 });
          else
            toast.error(answer?.message ?? 'The server did not answer: nothing was taken back.', { duration: 20_000 });
        });
      },
    },
  });
}

/** Where notices are shown; fetched with the first of them. */
export function Notices() {
  const [any, setAny] = useState(false);
  useEffect(() => {
    const show = () => setAny(true);
    window.addEventListener(FIRST, show);
    return () => window.removeEventListener(FIRST, show);
  }, []);
  return any ? (
    <Toaster position="bottom-right" closeButton className="no-print" containerAriaLabel="What was done" />
  ) : null;
}
