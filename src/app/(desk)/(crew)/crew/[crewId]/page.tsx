import Link from 'next/link';
import { notFound, redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { importBusy } from '@/services/crew/busy';
import { endCrewLink } from '@/services/crew/own-page';
import { editCrewMember, eraseCrewMember, listCrew, noteSick, takeSickBack } from '@/services/crew/people';
import { showCrewLink } from '@/services/crew/session-crew';
import type { InputOf } from '@/services/gate/gate';

import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import { FileField } from '@/ui/form/field';
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
    const say = await saying();
    const lastSymptom = String(data.get('lastSymptom') ?? '');
    const { sickUntil, places, filled, empty, before } = await call(noteSick, { ...of, lastSymptom });
    const undo = sickBack.bind(null, { ...of, version: of.version + 1, ...before });
    const off = `Off all duties until ${say.longDate(sickUntil ?? '')}.`;
    if (places === 0) return { message: off, undo };
    const mended = filled > 0 ? ` ${sayCount(filled, 'person is', 'people are')} planned instead: ask them.` : '';
    const open = empty > 0 ? ` ${sayCount(empty, 'place is', 'places are')} empty there.` : '';
    return { message: `${off} ${sayCount(places, 'place was', 'places were')} theirs.${mended}${open}`, undo };
  });
}

async function sickBack(sent: InputOf<typeof takeSickBack>): Promise<FormState> {
  'use server';
  return attempt(takeSickBack, async () => {
    const { places, lost } = await call(takeSickBack, sent);
    const theirs = places > 0 ? ` ${sayCount(places, 'place is', 'places are')} theirs again.` : '';
    const not = lost > 0 ? ` ${sayCount(lost, 'place is', 'places are')} not: somebody else has it by now.` : '';
    return `Not sick.${theirs}${not}`;
  });
}

async function well(of: Of, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(noteSick, async () => {
    await call(noteSick, { ...of, lastSymptom: null });
    return 'Well again: they can be given duties.';
  });
}

async function link(crewId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(showCrewLink, async () => ({ message: 'Their page:', copy: await call(showCrewLink, { crewId }) }));
}

async function endLink(crewId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(endCrewLink, async () => {
    const ended = await call(endCrewLink, { crewId });
    return ended === 0 ? 'There was no link.' : 'The link works no longer.';
  });
}

async function busy(of: Of, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(importBusy, async () => {
    const say = await saying();
    const file = data.get('file');
    const bytes = file instanceof File ? new Uint8Array(await file.arrayBuffer()) : new Uint8Array();
    const { times, until } = await call(importBusy, { ...of, bytes });
    return `${sayCount(times, 'time')} until ${say.longDate(until)} at which they are busy.`;
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
  const say = await saying();
  const { crewId } = await params;
  const { people, today, places, members } = await call(listCrew, {});
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
            <b>Off all duties until {say.longDate(own.sickUntil ?? '')}.</b>
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
        isUndoable
        action={save.bind(null, of)}
        version={own.version}
        label={`Change ${own.name}`}
        className="sheet mb-5 flex max-w-3xl flex-col gap-4 p-5"
      >
        <CrewMemberFields
          of={own}
          others={people.filter(({ id }) => id !== crewId)}
          places={places}
          members={members}
        />
        <button type="submit" className="btn btn-primary w-fit">
          Save
        </button>
      </ActionForm>
      <section className="sheet mb-5 flex max-w-3xl flex-col gap-3 p-5" aria-labelledby="own-page">
        <h2 id="own-page" className="text-lg font-bold">
          Their own page
        </h2>
        <p className="text-sm">
          Their duties, to say yes or no, without an account. Whoever has the link can answer for them: end it when it
          came into other hands. Each message to them carries it.
        </p>
        <div className="flex flex-wrap gap-3">
          <ActionForm action={link.bind(null, crewId)} label="Show the personal link">
            <button type="submit" className="btn">
              Show the link
            </button>
          </ActionForm>
          <ActionForm action={endLink.bind(null, crewId)} label="End the personal link">
            <button type="submit" className="btn">
              End the link
            </button>
          </ActionForm>
        </div>
      </section>
      <section className="sheet mb-5 max-w-3xl p-5" aria-labelledby="busy">
        <h2 id="busy" className="mb-2 text-lg font-bold">
          When they are busy, from a calendar
        </h2>
        <ActionForm action={busy.bind(null, of)} label="Bring in a calendar" className="flex flex-wrap items-end gap-3">
          <FileField label="Calendar file (.ics)" name="file" accept=".ics,text/calendar" required />
          <button type="submit" className="btn">
            Note when they are busy
          </button>
        </ActionForm>
      </section>
      <ActionForm action={erase.bind(null, of)} label={`Erase ${own.name}`}>
        <button type="submit" className="btn" aria-label={`Erase ${own.name}`}>
          Erase {own.name}
        </button>
      </ActionForm>
    </>
  );
}
