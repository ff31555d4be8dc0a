import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { viewFamilyRecord } from '@/services/closeout/family-record';

import { Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Record of a family' };

/** What a family took part in, cooked and tried: printed for it when it asks. */
export default async function FamilyRecord({ params }: { params: Promise<{ householdId: string }> }) {
  const say = await saying();
  const { householdId } = await params;
  const { household, people } = await orNotFound(call(viewFamilyRecord, { householdId }));
  return (
    <>
      <PageTitle title={`Record: ${household.name}`} over="For the family alone, when it asks for it">
        <Link href={`/families/${householdId}`} className="btn">
          Household
        </Link>
        <PrintButton />
      </PageTitle>
      {people.every(({ sessions }) => sessions.length === 0) && (
        <Empty title="Nothing is recorded yet">
          <p>It is filled as somebody notes who came, fetched or cooked, and what children thought of the dishes.</p>
        </Empty>
      )}
      {people
        .filter(({ sessions }) => sessions.length > 0)
        .map(({ id, name, course, sessions, tries }) => (
          <section key={id} className="sheet keep-together mb-5 p-5" aria-label={`${name}, ${course}`}>
            <h2 className="text-xl font-bold">
              {name}, {course}
            </h2>
            <ul className="divide-y divide-base-300">
              {sessions.map(({ sessionId, date, title, states, dishes }) => (
                <li key={sessionId} className="py-1.5">
                  <b>{title}</b>, {say.longDate(date)}: {states.join(', ')}
                  {dishes.length > 0 && (
                    <span className="block text-sm">
                      {dishes.map(({ title: dish, face }) => (face ? `${dish} (“${face}”)` : dish)).join('; ')}
                    </span>
                  )}
                </li>
              ))}
            </ul>
            {tries.length > 0 && (
              <p className="mt-2 text-sm">
                Tried: {tries.map(({ food, times }) => (times > 1 ? `${food}, ${times} times` : food)).join('; ')}.
              </p>
            )}
          </section>
        ))}
    </>
  );
}
