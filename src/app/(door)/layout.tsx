import type { ReactNode } from 'react';
import { Wordmark } from '@/ui/wordmark';

/** The door: signing in, joining, a new password. Nobody is signed in here yet. */
export default function DoorLayout({ children }: { children: ReactNode }) {
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-6 px-4 py-10">
      <Wordmark />
      <div className="sheet p-6">{children}</div>
    </main>
  );
}
