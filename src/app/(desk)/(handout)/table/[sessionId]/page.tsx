import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { viewTable } from '@/services/handout/table';

import { HandOutTable } from '@/ui/handout/hand-out-table';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Hand out' };

/** Kits at a table. */
export default async function Table({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { actor } = await requireMember();
  const { session, kits, events, lentUsually } = await orNotFound(call(viewTable, { sessionId }));
  return (
    <>
      <PageTitle
        title={`Hand out: ${session.title}`}
        over={`${session.courseTitle} · ${say.longDate(session.date)}, ${say.time(session.startsAt)} · ${session.place}`}
      >
        {actor.role === 'coordinator' && (
          <Link href={`/sessions/${sessionId}/handout`} className="btn">
            Hand-out
          </Link>
        )}
      </PageTitle>
      <HandOutTable sessionId={sessionId} kits={kits} events={events} lentUsually={lentUsually} />
    </>
  );
}
