import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { changePlaces } from '@/services/crew/places';
import { viewRosterTable } from '@/services/crew/table';
import { type Change, RosterTable } from '@/ui/crew/roster-table';

import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Roster as a table' };

async function save(changes: readonly Change[], byWord: boolean) {
  'use server';
  return attempt(changePlaces, async () => {
    await call(changePlaces, { changes: [...changes], byWord });
    return undefined;
  });
}

export default async function Table({ searchParams }: { searchParams: Promise<{ until?: string }> }) {
  const say = await saying();
  const { until } = await searchParams;
  const { given, people, duties, places, toDay } = await orNotFound(
    call(viewRosterTable, until ? { toDay: until } : {}),
  );
  return (
    <>
      <PageTitle title="Roster as a table" over={`Until ${say.longDate(toDay)}: people down, duties across`}>
        <Link href="/crew/roster" className="btn">
          As a list
        </Link>
      </PageTitle>
      {people.length === 0 || duties.length === 0 ? (
        <Empty title="Nothing to lay out yet">
          <p>A table needs people of the crew, and sessions that need them.</p>
        </Empty>
      ) : (
        <RosterTable given={given} people={people} duties={duties} places={places} save={save} />
      )}
    </>
  );
}
