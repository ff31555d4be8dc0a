import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields, formOf } from '@/app/form';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { addClosure, bringPublicHolidays, listClosures, removeCalendar, removeClosure } from '@/services/plan/closures';
import { listPlaces } from '@/services/plan/places';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';
import { putBack } from '../../put-back';

export const metadata = { title: 'Closures' };

async function add(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addClosure, async () => {
    const { title = '', from = '', to = '', fromTime, toTime, placeId = '' } = fields(data);
    const hours = fromTime || toTime ? { hours: { from: fromTime ?? '', to: toTime ?? '' } } : {};
    await call(addClosure, { title, from, to: to || from, ...hours, placeId });
    return 'Added. Sessions that fall on it are shown in the calendar.';
  });
}

async function bring(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(bringPublicHolidays, async () => {
    const { closures } = await call(bringPublicHolidays, formOf(bringPublicHolidays, data));
    return `${closures} public holidays are brought in. Check them against your official list.`;
  });
}

async function take(closureId: string): Promise<FormState> {
  'use server';
  return attempt(removeClosure, async () => {
    const id = await call(removeClosure, { closureId });
    return { message: 'The closure is taken away.', undo: putBack.bind(null, id) };
  });
}

async function takeAll(calendarId: string): Promise<FormState> {
  'use server';
  return attempt(removeCalendar, async () => {
    const id = await call(removeCalendar, { calendarId });
    return { message: 'These closures are taken away.', undo: putBack.bind(null, id) };
  });
}

export default async function Closures() {
  const say = await saying();
  const { calendars, countries } = await call(listClosures, {});
  const { places } = await call(listPlaces, {});
  return (
    <>
      <PageTitle title="Closures" over="Days on which nothing takes place: seasons are laid around them">
        <Link href="/closures/import" className="btn">
          Bring in an .ics file
        </Link>
        <Link href="/calendar" className="btn">
          Calendar
        </Link>
      </PageTitle>
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="flex flex-col gap-4">
          {calendars.length === 0 && (
            <Empty title="No closures yet">
              <p>Bring in the public holidays, your school’s calendar as an .ics file, or add days of your own.</p>
            </Empty>
          )}
          {calendars.map((calendar) => (
            <section key={calendar.id} className="sheet p-5" aria-label={calendar.name}>
              <div className="flex flex-wrap items-center justify-between gap-2">
                <h2 className="text-xl font-bold">
                  {calendar.name}
                  {calendar.placeName ? `, ${calendar.placeName} only` : ''}
                </h2>
                <ActionForm action={takeAll.bind(null, calendar.id)}>
                  <button type="submit" className="btn btn-sm" aria-label={`Take ${calendar.name} away`}>
                    Take away
                  </button>
                </ActionForm>
              </div>
              <details open={calendar.closures.length <= 8}>
                <summary className="cursor-pointer text-sm">{sayCount(calendar.closures.length, 'closure')}</summary>
                <ul className="mt-2 grid gap-x-6 text-sm sm:grid-cols-2">
                  {calendar.closures.map((closure) => (
                    <li
                      key={closure.id}
                      className="flex items-center justify-between gap-2 border-b border-base-300 py-1"
                    >
                      <span>
                        <b>{closure.title || 'Closed'}</b>
                        <span className="block">
                          {say.span(closure.fromDate, closure.toDate)}
                          {closure.fromTime
                            ? `, ${say.time(closure.fromTime)} to ${say.time(closure.toTime ?? '')}`
                            : ''}
                        </span>
                      </span>
                      <ActionForm action={take.bind(null, closure.id)}>
                        <button
                          type="submit"
                          className="btn btn-xs"
                          aria-label={`Take away ${closure.title}, ${closure.fromDate}`}
                        >
                          Take away
                        </button>
                      </ActionForm>
                    </li>
                  ))}
                </ul>
              </details>
            </section>
          ))}
        </div>
        <div className="flex flex-col gap-5">
          <section className="sheet p-5" aria-labelledby="own">
            <h2 id="own" className="mb-3 text-xl font-bold">
              Add days of your own
            </h2>
            <ActionForm action={add} label="Add a closure" clear className="flex flex-col gap-3">
              <Field label="What it is" name="title" required maxLength={190} hint="For example: floor repair" />
              <div className="grid grid-cols-2 gap-2">
                <DateField label="First day" name="from" required />
                <DateField label="Last day" name="to" hint="Empty: one day" />
                <TimeField label="From" name="fromTime" hint="Empty: all day" />
                <TimeField label="Until" name="toTime" />
              </div>
              <Choice label="Closed is" name="placeId" defaultValue="">
                <option value="">everything</option>
                {places.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name} only
                  </option>
                ))}
              </Choice>
              <button type="submit" className="btn btn-primary w-fit">
                Add closure
              </button>
            </ActionForm>
          </section>
          <section className="sheet p-5" aria-labelledby="public">
            <h2 id="public" className="mb-3 text-xl font-bold">
              Public holidays
            </h2>
            <ActionForm action={bring} label="Public holidays" className="flex flex-col gap-3">
              <Choice label="Country" name="country" required defaultValue="US">
                {countries.map(({ code, name }) => (
                  <option key={code} value={code}>
                    {name}
                  </option>
                ))}
              </Choice>
              <Field
                label="Region"
                name="region"
                maxLength={20}
                hint="Its code, such as NY for New York or SCT for Scotland; empty for the whole country"
              />
              <button type="submit" className="btn w-fit">
                Bring in three years
              </button>
            </ActionForm>
          </section>
        </div>
      </div>
    </>
  );
}
