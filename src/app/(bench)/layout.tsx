import type { ReactNode } from 'react';
import { sayingFacts } from '@/core/plan/saying';
import { PageOf } from '@/ui/page-of';
import { SayingOf } from '@/ui/saying';
import { requireMember } from '../access';

/** The bench: high contrast, the whole screen, nothing but the work. */
export default async function BenchLayout({ children }: { children: ReactNode }) {
  const { actor, programme } = await requireMember();
  return (
    <SayingOf value={sayingFacts(programme)}>
      <PageOf member={actor.id} />
      <div data-theme="bench" className="min-h-dvh bg-base-100 text-base-content">
        {children}
      </div>
    </SayingOf>
  );
}
