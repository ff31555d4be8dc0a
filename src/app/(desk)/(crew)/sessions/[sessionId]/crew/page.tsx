import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields, ticked } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { SessionFrame } from '@/app/session-frame';
import { SKILLS } from '@/core/crew/duties';
import { changeDuty, changePlaces } from '@/services/crew/places';
import { viewSessionCrew } from '@/services/crew/session-crew';
import { DutyLine } from '@/ui/crew/duty-line';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Field, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution } from '@/ui/page';
import { PlanAndAsk, Rooms } from '../../../plan-and-ask';

export const metadata = { title: 'Crew' };

async function add(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(changeDuty, async () => {
    const { title = '', date = '', from = '', to = '', people = '', reason = '' } = fields(data);
    await call(changeDuty, {
      sessionId,
      title,
      date,
      from,
      to,
      people,
      reason,
      isAdult: ticked(data, 'isAdult'),
      skills: SKILLS.filter((skill) => data.getAll('skills').includes(skill)),
    });
    return 'Added.';
  });
}

async function letGo(
  sessionId: string,
  left: readonly { readonly duty: string; readonly crewId: string }[],
  _state: FormState | null,
): Promise<FormState> {
  'use server';
  return attempt(changePlaces, async () => {
    const changes = left.map(({ duty, crewId }) => ({ sessionId, duty, crewId, what: 'take away' as const }));
    await call(changePlaces, { changes });
    return 'They are told.';
  });
}

export default async function SessionCrew({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { bundle, sheet, hours, rooms, duties, left, crewSize } = await orNotFound(
    call(viewSessionCrew, { sessionId }),
  );
  return (
    <SessionFrame
      bundle={bundle}
      sheet={sheet}
      hours={hours}
      current="crew"
      title="crew"
      actions={
        <>
          <Link href={`/room/${sessionId}/door`} prefetch={false} className="btn">
            At the door
          </Link>
          <Link href={`/sessions/${sessionId}/crew/sheet`} prefetch={false} className="btn">
            Lead’s sheet
          </Link>
        </>
      }
    >
      {crewSize === 0 && <p className="mb-4">Nobody is of the crew yet: add who helps under Crew.</p>}
      <PlanAndAsk wanted={{ sessionId }} duties={duties} />
      <section className="sheet mb-5 p-5" aria-labelledby="duties">
        <h2 id="duties" className="text-xl font-bold">
          Duties
        </h2>
        <Rooms rooms={rooms} />
        <ul className="divide-y divide-base-300">
          {duties.map((duty) => (
            <DutyLine key={duty.id} duty={duty} say={say} />
          ))}
        </ul>
        {left.length > 0 && (
          <ActionForm action={letGo.bind(null, sessionId, left)} label="Duties that are gone" className="mt-3">
            <p className="text-sm font-semibold text-error">
              The plan changed, and these duties are no longer there:{' '}
              {left.map(({ name, title }) => `${name} (${title})`).join(', ')}.
            </p>
            <button type="submit" className="btn btn-sm mt-2">
              Tell them, and take them out
            </button>
          </ActionForm>
        )}
      </section>
      <details className="sheet no-print mb-5 p-5">
        <summary className="cursor-pointer text-lg font-bold">Add a duty that only this session has</summary>
        <ActionForm action={add.bind(null, sessionId)} label="Add a duty" clear className="mt-3 flex flex-col gap-3">
          <div className="grid gap-3 sm:grid-cols-2">
            <Field label="What is to be done" name="title" required maxLength={120} />
            <Field label="Why" name="reason" required maxLength={255} />
            <DateField label="Day" name="date" required defaultValue={bundle.session.date} />
            <Field label="People" name="people" type="number" min={1} max={60} defaultValue={1} />
            <TimeField label="From" name="from" required />
            <TimeField label="To" name="to" required />
          </div>
          <fieldset>
            <legend className="font-semibold">For somebody with</legend>
            <div className="flex flex-wrap gap-x-5 gap-y-2">
              {SKILLS.map((skill) => (
                <Tick key={skill} label={skill} name="skills" value={skill} />
              ))}
              <Tick label="an adult" name="isAdult" />
            </div>
          </fieldset>
          <button type="submit" className="btn w-fit">
            Add the duty
          </button>
        </ActionForm>
      </details>
      <Caution>Adults are counted by a typical table; your local code decides, and may ask for more.</Caution>
    </SessionFrame>
  );
}
