import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields, ticked } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { SessionFrame } from '@/app/session-frame';
import { SKILLS } from '@/core/crew/duties';
import { sayCount } from '@/core/quantity/say';
import { askCrew, remindCrew } from '@/services/crew/asking';
import { changeDuty } from '@/services/crew/places';
import { planRoster } from '@/services/crew/roster';
import { viewSessionCrew } from '@/services/crew/session-crew';
import { DutyLine } from '@/ui/crew/duty-line';
import { StateKey } from '@/ui/crew/holders';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Field, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution } from '@/ui/page';
import { Planning } from '@/ui/planning';

export const metadata = { title: 'Crew' };

async function plan(sessionId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(planRoster, async () => {
    const { planned, empty } = await call(planRoster, { sessionId });
    return `${sayCount(planned, 'person is', 'people are')} newly planned. ${
      empty === 0 ? 'Every place has somebody.' : `${sayCount(empty, 'place is', 'places are')} empty.`
    }`;
  });
}

async function ask(sessionId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(askCrew, async () => {
    const { people, unreached } = await call(askCrew, { sessionId });
    return `${sayCount(people, 'person was', 'people were')} asked.${unreached.length > 0 ? ` Tell these yourself: ${unreached.join(', ')}.` : ''}`;
  });
}

async function remind(sessionId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(remindCrew, async () => {
    const { people } = await call(remindCrew, { sessionId });
    return `${sayCount(people, 'person was', 'people were')} reminded.`;
  });
}

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

export default async function SessionCrew({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { bundle, sheet, hours, rooms, duties, left, crewSize } = await orNotFound(
    call(viewSessionCrew, { sessionId }),
  );
  const holders = duties.flatMap((duty) => duty.holders);
  const toAsk = holders.filter(({ state, moved }) => state === 'planned' || moved).length;
  const silent = holders.filter(({ state, moved }) => state === 'asked' && !moved).length;
  const empty = duties.reduce((sum, duty) => sum + duty.empty, 0);
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
      <section className="sheet mb-5 flex flex-col gap-3 p-5" aria-label="Plan and ask">
        <p className="text-lg">
          <b>
            {duties.length === 0
              ? 'This session needs nobody that is known of.'
              : empty === 0
                ? 'Every place has somebody.'
                : `${sayCount(empty, 'place is', 'places are')} empty.`}
          </b>
          {crewSize === 0 && ' Nobody is of the crew yet.'}
        </p>
        {rooms
          .filter(({ adults }) => adults.adults > 0)
          .map(({ name, adults }) => (
            <p key={name} className="text-sm">
              <b>
                {name && `${name}: `}
                {sayCount(adults.adults, 'adult')} in the room.
              </b>{' '}
              {adults.because.join(' ')}
            </p>
          ))}
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <ActionForm
            action={plan.bind(null, sessionId)}
            label="Plan this session"
            className="flex flex-wrap items-center gap-3"
          >
            <button type="submit" className={`btn ${empty > 0 ? 'btn-primary' : ''}`}>
              Plan this session
            </button>
            <Planning seconds={8} />
          </ActionForm>
          {toAsk > 0 && (
            <ActionForm action={ask.bind(null, sessionId)} label="Ask the crew">
              <button type="submit" className={`btn ${empty > 0 ? '' : 'btn-primary'}`}>
                Ask the {toAsk} who are to be asked
              </button>
            </ActionForm>
          )}
          {silent > 0 && (
            <ActionForm action={remind.bind(null, sessionId)} label="Remind">
              <button type="submit" className="btn">
                Remind the {silent} who are silent
              </button>
            </ActionForm>
          )}
        </div>
        <StateKey />
      </section>
      <section className="sheet mb-5 p-5" aria-labelledby="duties">
        <h2 id="duties" className="text-xl font-bold">
          Duties
        </h2>
        <ul className="divide-y divide-base-300">
          {duties.map((duty) => (
            <DutyLine key={duty.id} duty={duty} />
          ))}
        </ul>
        {left.length > 0 && (
          <p className="mt-3 text-sm font-semibold text-error">
            The plan changed, and these duties are no longer there: tell{' '}
            {left.map(({ name, title }) => `${name} (${title})`).join(', ')}.
          </p>
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
