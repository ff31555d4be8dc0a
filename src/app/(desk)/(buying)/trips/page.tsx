import Link from 'next/link';
import { call } from '@/app/access';
import { saying } from '@/app/saying';

import { listTrips } from '@/services/buying/trips';

import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Trips' };

export default async function Trips() {
  const say = await saying();
  const trips = await call(listTrips, {});
  return (
    <>
      <PageTitle title="Trips" over="To the shop, and what they brought" />
      {trips.length === 0 ? (
        <Empty title="No trip is made">
          <p>A planned visit becomes a trip when a coordinator says so: then its list is here, on any phone.</p>
        </Empty>
      ) : (
        <ul className="grid gap-4 sm:grid-cols-2">
          {trips.map(({ id, shop, day, state, paid, payer }) => (
            <li key={id} className="sheet flex flex-col gap-3 p-5">
              <div>
                <h2 className="text-xl font-bold">{shop}</h2>
                <p>
                  {say.longDate(day)} ·{' '}
                  {{ 'to do': 'to do', paid: 'paid, to be checked in', received: 'on the shelf' }[state]}
                  {paid !== null && ` · ${say.money(paid)} paid by ${payer}`}
                </p>
              </div>
              <div className="flex flex-wrap gap-2">
                <Link
                  href={`/trips/${id}`}
                  className={`btn btn-lg w-fit ${state === 'to do' ? 'btn-primary' : ''}`}
                  aria-label={`${state === 'to do' ? 'Open the list' : 'See the list'} of ${shop}, ${day}`}
                >
                  {state === 'to do' ? 'Open the list' : 'See the list'}
                </Link>
                {state !== 'received' && (
                  <Link
                    href={`/trips/${id}/receive`}
                    className={`btn btn-lg w-fit ${state === 'paid' ? 'btn-primary' : ''}`}
                    aria-label={`Check in ${shop}, ${day}`}
                  >
                    Check in
                  </Link>
                )}
              </div>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
