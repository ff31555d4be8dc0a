import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { addDays } from '@/core/plan/civil';
import { importCrew, listCrew } from '@/services/crew/people';
import { ActionForm } from '@/ui/form/action-form';
import { FileField, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';
import { CrewTable } from './crew-table';

export const metadata = { title: 'Crew' };

async function bringIn(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(importCrew, async () => {
    const file = data.get('file');
    const bytes = file instanceof File ? new Uint8Array(await file.arrayBuffer()) : new Uint8Array();
    const { people, left } = await call(importCrew, { bytes, skip: data.get('skip') === 'on' });
    return `${people} ${people === 1 ? 'person is' : 'people are'} of the crew now${left > 0 ? `; ${left} lines were left out` : ''}.`;
  });
}

/** A check that ends so soon is said loudly: a new one takes weeks. */
const SOON_DAYS = 30;

export default async function Crew() {
  const { people, today } = await call(listCrew, {});
  const soon = addDays(today, SOON_DAYS);
  return (
    <>
      <PageTitle title="Crew" over="Who helps: what they can do and until when, and when they have time">
        <Link href="/crew/roster" prefetch={false} className="btn">
          Roster
        </Link>
        <Link href="/crew/hours" prefetch={false} className="btn">
          Hours
        </Link>
        <Link href="/crew/new" className="btn btn-primary">
          Add somebody
        </Link>
        <a href="/crew.csv" className="btn" download>
          Save as CSV
        </a>
      </PageTitle>
      {people.length === 0 ? (
        <Empty title="Nobody is of the crew yet">
          <p>Add them one by one, or bring in a file: name, and what you have of contact, adult, skills, free.</p>
        </Empty>
      ) : (
        <CrewTable people={people.map((person) => lineOf(person, today))} today={today} soon={soon} />
      )}
      <section className="sheet no-print mt-5 p-5" aria-labelledby="crew-file">
        <h2 id="crew-file" className="mb-2 text-lg font-bold">
          As a file
        </h2>
        <p className="mb-3 text-sm">
          A CSV file with a column name; and contact, languages, adult, skills (“lead; background check until
          2027-01-31”), free (“Thu 14:00-18:00; not on 2026-12-10”), most duties, most hours, no lifting, rather not,
          kept until where you have them.
        </p>
        <ActionForm action={bringIn} label="Bring a crew in from a file" className="flex flex-wrap items-end gap-3">
          <FileField label="Crew file" name="file" accept=".csv,text/csv" required />
          <Tick label="Leave out lines that cannot be used" name="skip" />
          <button type="submit" className="btn">
            Bring the crew in
          </button>
        </ActionForm>
      </section>
    </>
  );
}

type Listed = Awaited<ReturnType<typeof listCrew>>['people'][number];

const lineOf = ({ id, name, contact, isAdult, skills, free, limits, sickUntil }: Listed, today: string) => ({
  id,
  name,
  contact,
  isAdult: isAdult === 1,
  skills: Object.entries(skills).map(([skill, { until }]) => ({ skill, until })),
  free: free === '' ? [] : free.split('; '),
  atMost: [
    limits.mostDuties && `${limits.mostDuties} duties`,
    limits.mostHours && `${limits.mostHours} hours`,
    limits.noLifting && 'no lifting',
  ]
    .filter(Boolean)
    .join(', '),
  sickUntil: sickUntil && sickUntil >= today ? sickUntil : null,
});
