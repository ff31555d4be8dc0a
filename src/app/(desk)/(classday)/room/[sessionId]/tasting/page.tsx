import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { viewTasting } from '@/services/classday/tasting';
import { TastingTable } from '@/ui/classday/tasting-table';

import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Tasting' };

/** So many foods of a child are shown: those tried most. */
const MOST_FOODS = 8;

/** What the children think, and how often each has tried what. */
export default async function Tasting({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { session, dishes, people } = await orNotFound(call(viewTasting, { sessionId }));
  const tried = people.filter(({ tries }) => tries.length > 0);
  return (
    <>
      <PageTitle title={`Tasting: ${session.title}`} over={say.longDate(session.date)}>
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
      </PageTitle>
      <TastingTable sessionId={sessionId} dishes={dishes} people={people} />
      <p className="mt-4 text-sm">
        A new spoon for each tasting. Nobody has to; a food may need fifteen tries before a child likes it, and “not
        yet” is an answer.
      </p>
      {tried.length > 0 && (
        <details className="mt-4">
          <summary className="cursor-pointer font-semibold">How often they have tried what</summary>
          <ul className="mt-2 list-disc pl-5">
            {tried.map(({ id, name, tries }) => (
              <li key={id}>
                <b>{name}:</b>{' '}
                {tries
                  .slice(0, MOST_FOODS)
                  .map(({ food, times }) => `${food} ${sayCount(times, 'time')}`)
                  .join(', ')}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
