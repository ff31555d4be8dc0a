import type { ReactNode } from 'react';
import { requireMember } from '../access';

/** The bench: high contrast, the whole screen, nothing but the work. */
export default async function BenchLayout({ children }: { children: ReactNode }) {
  await requireMember();
  return (
    <div data-theme="bench" className="min-h-dvh bg-base-100 text-base-content">
      {children}
    </div>
  );
}
