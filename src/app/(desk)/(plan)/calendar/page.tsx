import Link from 'next/link';
import { call } from '@/app/access';
import { readQuery } from '@/app/query';
import { saying } from '@/app/saying';
import { civilDate } from '@/contracts/plan';
import { addDays } from '@/core/plan/civil';
import { viewCalendar, WEEKS_SHOWN } from '@/services/plan/calendar';
import { listChanges } from '@/services/plan/changes';

import { PageTitle } from '@/ui/page';
import { UndoBar } from '@/ui/undo-bar';
import { undo } from './actions';
import { Board } from './board';

export const metadata = { title: 'Calendar' };

export default async function Calendar({ searchParams }: { searchParams: Promise<{ from?: string }> }) {
  const say = await saying();
  const { from } = await readQuery(searchParams);
  const day = civilDate.safeParse(from);
  const plan = await call(viewCalendar, day.success ? { from: day.data } : {});
  const [change] = await call(listChanges, {});
  const clashes = plan.sessions.filter(({ conflicts }) => conflicts.length > 0);
  return (
    <>
      <PageTitle title="Calendar" over={`${say.longDate(plan.start)} to ${say.longDate(plan.end)}`}>
        <Link href={`/calendar?from=${addDays(plan.start, -7 * WEEKS_SHOWN)}`} className="btn">
          Earlier
        </Link>
        <Link href="/calendar" className="btn">
          Today
        </Link>
        <Link href={`/calendar?from=${addDays(plan.start, 7 * WEEKS_SHOWN)}`} className="btn">
          Later
        </Link>
        <Link href="/places" className="btn">
          Places
        </Link>
        <Link href="/closures" className="btn">
          Closures
        </Link>
        <Link href="/calendar-addresses" className="btn">
          Share
        </Link>
      </PageTitle>
      <UndoBar change={change} action={undo} />
      {clashes.length > 0 && (
        <p className="mb-4 font-semibold text-error">
          {clashes.length === 1 ? 'One session has' : `${clashes.length} sessions have`} something against them. Open
          the course to see what would settle it, or move the session.
        </p>
      )}
      <Board
        start={plan.start}
        weeks={WEEKS_SHOWN}
        today={plan.today}
        sessions={plan.sessions}
        closures={plan.closures}
        places={plan.places}
      />
    </>
  );
}
