import Link from 'next/link';
import { notFound, redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { editCrewMember, eraseCrewMember, listCrew, noteSick } from '@/services/crew/people';
import { sayLongDate } from '@/ui/dates';
import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';
import { CrewMemberFields, crewFrom } from '../crew-fields';

export const metadata = { title: 'Somebody of the crew' };

interface Of {
  readonly crewId: string;
  readonly version: number;
}

async function save(of: Of, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(editCrewMember, async () => {
    await call(editCrewMember, { ...crewFrom(data), ...of });
    return 'Saved.';
  });
}

async function sick(of: Of, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(noteSick, async () => {
    const until = await call(noteSick, { ...of, lastSymptom: String(data.get('lastSymptom') ?? '') });
    return `Off all duties until ${sayLongDate(until ?? '')}.`;
  });
}

async function well(of: Of, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(noteSick, async () => {
    await call(noteSick, { ...of, lastSymptom: null });
    return 'Well again: they can be given duties.';
  });
}

async function erase(of: Of, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(eraseCrewMember, async () => {
    await call(eraseCrewMember, of);
    redirect('/crew');
  });
}

export default async function CrewMember({ params }: { params: Promise<{ crewId: string }> }) {
  const { crewId } = await params;
  const { people, today } = await call(listCrew, {});
  const own = people.find(({ id }) => id === crewId);
  if (!own) notFound();
  const of = { crewId, version: own.version };
  const isSick = own.sickUntil !== null && own.sickUntil >= today;
  return (
    <>
      <PageTitle title={own.name} over="Crew">
        <Link href="/crew" className="btn">
          Crew
        </Link>
      </PageTitle>
      <section className="sheet mb-5 max-w-3xl p-5" aria-labelledby="sick">
        <h2 id="sick" className="mb-1 text-lg font-bold">
          Sickness
        </h2>
        <p className="mb-2 text-sm">
          Off all duties until 48 hours after the last symptom: usual where food is handled. The local code decides.
        </p>
        {isSick ? (
          <ActionForm action={well.bind(null, of)} label="Well again" className="flex items-center gap-3">
            <b>Off all duties until {sayLongDate(own.sickUntil ?? '')}.</b>
            <button type="submit" className="btn">
              Well again
            </button>
          </ActionForm>
        ) : (
          <ActionForm action={sick.bind(null, of)} label="Sick" className="flex flex-wrap items-end gap-3">
            <DateField label="Last symptom on" name="lastSymptom" required defaultValue={today} width="w-56" />
            <button type="submit" className="btn">
              Note as sick
            </button>
          </ActionForm>
        )}
      </section>
      <ActionForm
        action={save.bind(null, of)}
        version={own.version}
        label={`Change ${own.name}`}
        className="sheet mb-5 flex max-w-3xl flex-col gap-4 p-5"
      >
        <CrewMemberFields of={own} others={people.filter(({ id }) => id !== crewId)} />
        <button type="submit" className="btn btn-primary w-fit">
          Save
        </button>
      </ActionForm>
      <ActionForm action={erase.bind(null, of)} label={`Erase ${own.name}`}>
        <button type="submit" className="btn" aria-label={`Erase ${own.name}`}>
          Erase {own.name}
        </button>
      </ActionForm>
    </>
  );
}
