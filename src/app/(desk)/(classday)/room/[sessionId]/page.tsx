import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { viewRoom } from '@/services/classday/room';
import { BelowAdults } from '@/ui/crew/below-adults';

import { Caution, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';
import { UsualCautions } from '@/ui/recipes/usual-cautions';

export const metadata = { title: 'In the room' };

export default async function Room({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { actor } = await requireMember();
  const { session, people, others, below, isOnScreen, isFollowLater } = await orNotFound(call(viewRoom, { sessionId }));
  return (
    <>
      <PageTitle
        title={`In the room: ${session.title}`}
        over={`${session.courseTitle} · ${say.longDate(session.date)}, ${say.time(session.startsAt)} · ${session.place}`}
      >
        <Link href={`/live/${sessionId}`} prefetch={false} className="btn btn-primary">
          Run the class
        </Link>
        <Link href={`/room/${sessionId}/attendance`} className="btn">
          Attendance
        </Link>
        <Link href={`/room/${sessionId}/run-sheet`} prefetch={false} className="btn">
          Run sheet
        </Link>
        <Link href={`/room/${sessionId}/door`} prefetch={false} className="btn">
          Crew at the door
        </Link>
        <Link href={`/room/${sessionId}/tasting`} prefetch={false} className="btn">
          Tasting
        </Link>
        {isOnScreen && (
          <Link href={`/room/${sessionId}/on-screen`} prefetch={false} className="btn">
            On screen
          </Link>
        )}
        {isFollowLater && actor.role !== 'crew' && (
          <Link href={`/sessions/${sessionId}/lesson`} prefetch={false} className="btn">
            Cooked at home
          </Link>
        )}
        <Link href={`/room/${sessionId}/close`} prefetch={false} className="btn">
          Close out
        </Link>
        {actor.role === 'coordinator' && (
          <Link href={`/room/${sessionId}/incidents`} prefetch={false} className="btn">
            Incidents
          </Link>
        )}
        <Link href={`/room/${sessionId}/hurt`} prefetch={false} className="btn btn-error">
          Hurt or unwell
        </Link>
        <PrintButton />
      </PageTitle>
      {below && <BelowAdults why={below} />}
      <p className="mb-4 text-lg">
        {people.length === 0
          ? `None of the ${others} on the roll avoids anything.`
          : `${people.length} of ${people.length + others} must avoid something, or have a plan. The others told us of nothing.`}
      </p>
      <ul className="mb-5 grid gap-4 lg:grid-cols-2">
        {people.map((person) => (
          <li key={person.id} className="sheet keep-together p-5">
            <h2 className="text-2xl font-bold">
              {person.name}
              {person.age !== null && <span className="text-lg font-normal">, {person.age}</span>}
              {person.group && <span className="text-lg font-normal">, {person.group}</span>}
            </h2>
            {person.avoids.length > 0 && (
              <ul className="my-2 text-lg">
                {person.avoids.map(({ asWritten, means }) => (
                  <li key={asWritten}>
                    <b>Avoids {means || `“${asWritten}”`}</b>
                    {means && means !== asWritten && <span className="text-base"> (family wrote: {asWritten})</span>}
                    {!means && (
                      <span className="font-bold text-error"> — nobody has said yet what this means: ask</span>
                    )}
                  </li>
                ))}
              </ul>
            )}
            <p className="rounded-box border-l-4 border-error bg-error/10 p-3">
              <b className="block">What to do</b>
              {person.plan || 'No plan from the family is on record: ask the coordinator before class.'}
            </p>
          </li>
        ))}
      </ul>
      <Caution>
        In an emergency call the emergency number first, then follow the family’s plan. Wash hands: gel does not remove
        allergens. Keep this list to those in the room; every look at it is kept.
      </Caution>
      <UsualCautions at="room" />
    </>
  );
}
