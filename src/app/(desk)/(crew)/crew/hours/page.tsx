import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields, ticked } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { minutesOfStay, quarterHours } from '@/core/crew/hours';
import { minutesOf, timeOf } from '@/core/plan/civil';
import { readTime } from '@/core/plan/manner';
import { editStay, viewHours } from '@/services/crew/hours';

import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Field, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';
import { SaveAs } from '@/ui/save-as';

export const metadata = { title: 'Hours' };

interface Of {
  readonly sessionId: string;
  readonly stayId: string;
  readonly version: number;
}

/** A time of a form as minutes of the day; what is none is refused by the service. */
const minuteIn = (text = ''): number | null => {
  if (text.trim() === '') return null;
  const time = readTime(text);
  return time === undefined ? Number.NaN : minutesOf(time);
};

async function edit(of: Of, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(editStay, async () => {
    const { came, went, note = '' } = fields(data);
    const isGone = ticked(data, 'isGone');
    await call(editStay, { ...of, came: minuteIn(came) ?? Number.NaN, went: minuteIn(went), note, isGone });
    return isGone ? 'Taken out.' : 'Changed.';
  });
}

export default async function Hours({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const say = await saying();
  const { from, to, person } = await searchParams;
  const { people, ...span } = await orNotFound(
    call(viewHours, { ...(from ? { from } : {}), ...(to ? { to } : {}), ...(person ? { crewId: person } : {}) }),
  );
  const asked = (crewId = person) => `from=${span.from}&to=${span.to}${crewId ? `&crewId=${crewId}` : ''}`;
  return (
    <>
      <PageTitle title="Hours of the crew" over="From when they came and went; changed here where a tap was forgotten">
        <Link href="/crew" className="btn">
          Crew
        </Link>
        <SaveAs
          files={[
            ['Statements (PDF)', `/crew/hours.pdf?${asked()}`],
            ['Certificates (PDF)', `/crew/certificates.pdf?${asked()}`],
            ['CSV', `/crew/hours.csv?${asked()}`],
          ]}
        />
      </PageTitle>
      <form className="no-print mb-5 flex flex-wrap items-end gap-3" action="/crew/hours">
        <DateField label="From" name="from" defaultValue={span.from} width="w-52" />
        <DateField label="To" name="to" defaultValue={span.to} width="w-52" />
        <button type="submit" className="btn">
          Show
        </button>
      </form>
      {people.length === 0 && (
        <Empty title="No hours in this time">
          <p>Tap who comes and goes at the door of a session: their hours are kept from it.</p>
        </Empty>
      )}
      {people.map(({ id, name, stays, minutes }) => (
        <section key={id} className="sheet mb-5 p-5" aria-label={name}>
          <h2 className="flex flex-wrap items-baseline gap-x-3 text-xl font-bold">
            {name}
            <span className="text-base font-normal">{quarterHours(minutes)} hours</span>
            <a href={`/crew/hours.pdf?${asked(id)}`} className="link no-print text-base font-normal" download>
              Statement of {name}
            </a>
            <a href={`/crew/certificates.pdf?${asked(id)}`} className="link no-print text-base font-normal" download>
              Certificate of {name}
            </a>
          </h2>
          <ul className="divide-y divide-base-300">
            {stays.map((stay) => (
              <li key={stay.id} className="py-2">
                <span className="tabular-nums">
                  {say.shortDate(stay.date)}, {say.time(stay.came)} to{' '}
                  {stay.went === null ? <b>nobody tapped when they went</b> : say.time(Math.min(stay.went, 1439))}
                </span>
                , {stay.title}
                {stay.went !== null && `: ${quarterHours(minutesOfStay(stay))} hours`}
                {stay.note && `, ${stay.note}`}
                <details className="no-print text-sm">
                  <summary className="cursor-pointer">Change</summary>
                  <ActionForm
                    action={edit.bind(null, { sessionId: stay.sessionId, stayId: stay.id, version: stay.version })}
                    label={`Change the hours of ${name} on ${say.shortDate(stay.date)}`}
                    className="mt-2 flex flex-wrap items-end gap-3"
                  >
                    <TimeField label="Came" name="came" required defaultValue={timeOf(stay.came)} width="w-32" />
                    <TimeField
                      label="Went"
                      name="went"
                      defaultValue={stay.went === null ? '' : timeOf(Math.min(stay.went, 1439))}
                      width="w-32"
                    />
                    <Field label="Why" name="note" maxLength={200} defaultValue={stay.note} />
                    <Tick label="Take it out" name="isGone" />
                    <button type="submit" className="btn btn-sm">
                      Save
                    </button>
                  </ActionForm>
                </details>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}
