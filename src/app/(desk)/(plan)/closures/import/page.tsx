import Link from 'next/link';
import { call } from '@/app/access';
import { listPlaces } from '@/services/plan/places';
import { PageTitle } from '@/ui/page';
import { CalendarImport } from './calendar-import';

export const metadata = { title: 'Bring in a calendar' };

export default async function ImportCalendar() {
  const { places } = await call(listPlaces, {});
  return (
    <>
      <PageTitle title="Bring in a calendar" over="School holidays, a building’s closures: any .ics file">
        <Link href="/closures" className="btn">
          Back to the closures
        </Link>
      </PageTitle>
      <CalendarImport places={places.map(({ id, name }) => ({ id, name }))} />
    </>
  );
}
