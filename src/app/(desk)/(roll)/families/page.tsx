import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { attempt } from '@/app/form';
import { readQuery } from '@/app/query';
import { saying } from '@/app/saying';
import { nameKey } from '@/core/roll/name-key';
import { eraseHousehold, type HouseholdEntry, listHouseholds, listLooks } from '@/services/privacy/households';
import { KEPT_DAYS } from '@/services/privacy/retention';

import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Families’ data' };

async function erase(householdId: string, version: number): Promise<FormState> {
  'use server';
  return attempt(eraseHousehold, async () => {
    const { people, sheets } = await call(eraseHousehold, { householdId, version });
    return `Erased: ${people} on rolls, ${sheets} locked sheets. Counts are kept.`;
  });
}

export default async function Families({ searchParams }: { searchParams: Promise<{ q?: string }> }) {
  const say = await saying();
  const { q = '' } = await readQuery(searchParams);
  const { programme } = await requireMember();
  const households = await call(listHouseholds, {});
  const looks = await call(listLooks, {});
  const due = households.filter((household) => household.isDue);
  const found = households.filter((household) => nameKey(household.name).includes(nameKey(q)));
  return (
    <>
      <PageTitle title="Families’ data" over="What is held, how long, who looked at it; taking it out and erasing it" />
      {due.length > 0 && (
        <section className="sheet mb-6 p-5" aria-labelledby="due">
          <h2 id="due" className="mb-2 text-xl font-bold">
            Due to be erased
          </h2>
          <p className="mb-2 text-sm">
            Their last session was more than {programme.retentionMonths} months ago. What counts them stays.
          </p>
          <Households households={due} />
        </section>
      )}
      <div className="grid gap-6 lg:grid-cols-2">
        <section className="sheet h-fit p-5" aria-labelledby="households">
          <h2 id="households" className="mb-2 text-xl font-bold">
            {households.length} households
          </h2>
          <form className="mb-3 flex items-end gap-2" aria-label="Find a household">
            <label className="flex flex-col gap-1">
              <span className="text-sm font-semibold">Find by name</span>
              <input name="q" defaultValue={q} className="input w-56" />
            </label>
            <button type="submit" className="btn">
              Find
            </button>
          </form>
          <Households households={found} />
        </section>
        <section className="sheet h-fit p-5" aria-labelledby="looks">
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

async function Households({ households }: { households: readonly HouseholdEntry[] }) {
  const say = await saying();
  if (households.length === 0) return <p>None.</p>;
  return (
    <ul className="divide-y divide-base-300">
      {households.map((household) => (
        <li key={household.id} className="flex flex-wrap items-center justify-between gap-2 py-2">
          <span>
            <Link href={`/families/${household.id}`} className="link font-bold">
              {household.name}
            </Link>
            <span className="block text-sm">
              {household.people} on rolls, last session {say.shortDate(household.lastDate)}, kept until{' '}
              {household.eraseFrom.slice(0, 7)}
            </span>
          </span>
          <span className="flex flex-wrap items-center gap-2">
            <a
              href={`/families/${household.id}/export.json`}
              className="btn btn-sm"
              aria-label={`Take out what is held about ${household.name}`}
            >
              Take out
            </a>
            <details className="dropdown dropdown-end">
              <summary className="btn btn-sm" aria-label={`Erase ${household.name}`}>
                Erase
              </summary>
              <div className="dropdown-content z-10 mt-1 w-72 rounded-box border border-base-300 bg-base-100 p-4">
                <p className="mb-3 text-sm">
                  Name, contact, address, needs and plan go for good, from rolls, locked sheets and the log. This cannot
                  be taken back. Copies in backups go when those are deleted.
                </p>
                <ActionForm action={erase.bind(null, household.id, household.version)}>
                  <button type="submit" className="btn btn-sm btn-error">
                    Erase {household.name}
                  </button>
                </ActionForm>
              </div>
            </details>
          </span>
        </li>
      ))}
    </ul>
  );
}
