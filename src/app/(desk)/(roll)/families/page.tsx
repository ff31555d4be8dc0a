import { call, requireMember } from '@/app/access';
import { attempt } from '@/app/form';
import { saying } from '@/app/saying';
import { eraseHousehold, listHouseholds, listLooks } from '@/services/privacy/households';
import { KEPT_DAYS } from '@/services/privacy/retention';

import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';
import { FamiliesTable } from './families-table';

export const metadata = { title: 'Families’ data' };

async function erase(householdId: string, version: number): Promise<FormState> {
  'use server';
  return attempt(eraseHousehold, async () => {
    const { people, sheets } = await call(eraseHousehold, { householdId, version });
    return `Erased: ${people} on rolls, ${sheets} locked sheets. Counts are kept.`;
  });
}

export default async function Families() {
  const say = await saying();
  const { programme } = await requireMember();
  const households = await call(listHouseholds, {});
  const looks = await call(listLooks, {});
  const due = households.filter((household) => household.isDue);
  return (
    <>
      <PageTitle title="Families’ data" over="What is held, how long, who looked at it; taking it out and erasing it" />
      {due.length > 0 && (
        <section className="sheet mb-6 min-w-0 p-5" aria-labelledby="due">
          <h2 id="due" className="mb-2 text-xl font-bold">
            Due to be erased
          </h2>
          <p className="mb-2 text-sm">
            Their last session was more than {programme.retentionMonths} months ago. What counts them stays.
          </p>
          <FamiliesTable label="Due to be erased" families={due} erase={erase} />
        </section>
      )}
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <section className="sheet h-fit min-w-0 p-5" aria-labelledby="households">
          <h2 id="households" className="mb-2 text-xl font-bold">
            {households.length} households
          </h2>
          <FamiliesTable label="Households" families={households} erase={erase} />
        </section>
        <section className="sheet h-fit min-w-0 p-5" aria-labelledby="looks">
          <h2 id="looks" className="mb-2 text-xl font-bold">
            Who looked at needs
          </h2>
          {looks.length === 0 && <p>Nobody has looked yet.</p>}
          <ul className="divide-y divide-base-300 text-sm">
            {looks.slice(0, 25).map((look) => (
              <li key={look.id} className="flex justify-between gap-3 py-1.5">
                <span>
                  <b>{look.actorName}</b>, {look.page}, {look.people} {look.people === 1 ? 'person' : 'people'}
                </span>
                <span className="whitespace-nowrap">{say.moment(look.at.toISOString())}</span>
              </li>
            ))}
          </ul>
          <h3 className="mt-5 mb-1 font-bold">Kept without being asked</h3>
          <ul className="text-sm">
            {Object.entries(KEPT_DAYS).map(([what, days]) => (
              <li key={what}>
                {what}: {days} days
              </li>
            ))}
          </ul>
        </section>
      </div>
    </>
  );
}
