import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { tapAtDoor, viewDoor } from '@/services/crew/hours';

import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'At the door' };

async function tap(sessionId: string, crewId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(tapAtDoor, async () => {
    await call(tapAtDoor, { sessionId, crewId });
    return undefined;
  });
}

type Person = Awaited<ReturnType<typeof viewDoor>>['people'][number];

/** Tapping who of the crew came and went: their hours are kept from it. */
export default async function Door({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { session, today, people } = await orNotFound(call(viewDoor, { sessionId }));
  const expected = people.filter(({ isExpected, stays }) => isExpected || stays.length > 0);
  const others = people.filter((person) => !expected.includes(person));
  return (
    <>
      <PageTitle title="At the door" over={`${session.title} · ${say.longDate(session.date)}`}>
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
      </PageTitle>
      <p className="mb-4">Tap whoever comes, and again when they go. A second tap in the same minute takes it back.</p>
      <ul className="grid gap-3 sm:grid-cols-2">
        {expected.map((person) => (
          <Tapped key={person.id} person={person} sessionId={sessionId} today={today} />
        ))}
      </ul>
      {expected.length === 0 && <p>Nobody has said yes to a duty of this session.</p>}
      {others.length > 0 && (
        <details className="mt-5">
          <summary className="cursor-pointer font-semibold">Somebody else of the crew came</summary>
          <ul className="mt-3 grid gap-3 sm:grid-cols-2">
            {others.map((person) => (
              <Tapped key={person.id} person={person} sessionId={sessionId} today={today} />
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

async function Tapped({ person, sessionId, today }: { person: Person; sessionId: string; today: string }) {
  const say = await saying();
  const { id, name, duties, stays } = person;
  const now = stays.filter(({ date }) => date === today);
  const isThere = now.some(({ went }) => went === null);
  return (
    <li>
      <ActionForm action={tap.bind(null, sessionId, id)} label={name}>
        <button
          type="submit"
          className={`btn h-auto min-h-16 w-full flex-wrap justify-between gap-2 py-2 text-left ${isThere ? 'btn-primary' : ''}`}
          aria-label={`${name}: ${isThere ? 'is here, tap when they go' : 'tap when they come'}`}
        >
          <span>
            <b className="text-lg">{name}</b>
            <span className="block text-sm font-normal">
              {duties.map(({ title, from }) => `${title}, ${say.time(from)}`).join('; ')}
            </span>
          </span>
          <span className="tabular-nums">
            {isThere ? 'here since ' : ''}
            {now
              .map(({ came, went }) => (went === null ? say.time(came) : `${say.time(came)}–${say.time(went)}`))
              .join(', ')}
          </span>
        </button>
      </ActionForm>
    </li>
  );
}
