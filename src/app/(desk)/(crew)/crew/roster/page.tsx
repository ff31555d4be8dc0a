import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { viewRoster } from '@/services/crew/roster';
import { BelowAdults } from '@/ui/crew/below-adults';
import { DutyLine } from '@/ui/crew/duty-line';

import { DateField } from '@/ui/form/dates';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';
import { PlanAndAsk, Rooms } from '../../plan-and-ask';

export const metadata = { title: 'Roster' };

export default async function Roster({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const say = await saying();
  const { until, course, session } = await searchParams;
  const wanted = {
    ...(until ? { toDay: until } : {}),
    ...(course ? { courseId: course } : {}),
    ...(session ? { sessionId: session } : {}),
  };
  const { sessions, toDay, crew } = await orNotFound(call(viewRoster, wanted));
  const duties = sessions.flatMap((each) => each.duties);
  return (
    <>
      <PageTitle
        title="Roster"
        over={`Until ${say.longDate(toDay)}: what the sessions need people for, and who does it`}
      >
        <Link href={`/crew/roster/table${until ? `?until=${until}` : ''}`} prefetch={false} className="btn">
          As a table
        </Link>
        <Link href="/crew" className="btn">
          Crew
        </Link>
        <PrintButton />
      </PageTitle>
      {sessions.map(
        ({ id, title, below }) =>
          below && <BelowAdults key={id} why={`${title}: ${below}`} href={`/sessions/${id}/crew`} />,
      )}
      <form className="no-print mb-4 flex flex-wrap items-end gap-3" action="/crew/roster">
        <DateField label="Until" name="until" defaultValue={toDay} width="w-56" />
        {course && <input type="hidden" name="course" value={course} />}
        <button type="submit" className="btn">
          Show
        </button>
      </form>
      {crew.length === 0 ? (
        <Empty title="Nobody is of the crew yet">
          <p>Add who helps, with what they can do and when they have time: then Logistra plans who does what.</p>
          <Link href="/crew/new" className="btn btn-primary">
            Add somebody
          </Link>
        </Empty>
      ) : (
        <PlanAndAsk wanted={wanted} duties={duties} />
      )}
      <Caution>Adults are counted by a typical table; your local code decides, and may ask for more.</Caution>
      {sessions.length === 0 && <p className="my-4">No session until then needs anybody.</p>}
      {sessions.map(({ id, title, date, rooms, duties: own }) => (
        <section key={id} className="sheet my-5 p-5" aria-label={`${title}, ${say.longDate(date)}`}>
          <h2 className="text-xl font-bold">
            <Link href={`/sessions/${id}/crew`} prefetch={false} className="link">
              {title}
            </Link>
            , {say.longDate(date)}
          </h2>
          <Rooms rooms={rooms} />
          <ul className="divide-y divide-base-300">
            {own.map((duty) => (
              <DutyLine key={duty.id} duty={duty} say={say} />
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}
