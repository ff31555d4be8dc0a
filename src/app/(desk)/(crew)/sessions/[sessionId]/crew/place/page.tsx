import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields, ticked } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { timeOf } from '@/core/plan/civil';
import { sayCount } from '@/core/quantity/say';
import { askToStepIn } from '@/services/crew/asking';
import { changeDuty, changePlaces, resetDuty } from '@/services/crew/places';
import { dropOut, viewPlace } from '@/services/crew/step-in';
import { BelowAdults } from '@/ui/crew/below-adults';
import { endOf, Fill } from '@/ui/crew/duty-line';
import { HolderLine } from '@/ui/crew/holders';

import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Choice, Field, TextArea, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'A duty' };

interface Of {
  readonly sessionId: string;
  readonly duty: string;
}
type Change = 'put' | 'take away' | 'pin' | 'unpin' | 'rule out' | 'allow';

async function change(of: Of, crewId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(changePlaces, async () => {
    const what = fields(data).what as Change;
    await call(changePlaces, { changes: [{ ...of, crewId, what }], byWord: false });
    return undefined;
  });
}

async function put(of: Of, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(changePlaces, async () => {
    const crewId = fields(data).crewId ?? '';
    await call(changePlaces, { changes: [{ ...of, crewId, what: 'put' }], byWord: ticked(data, 'byWord') });
    return 'They are planned for it, by hand.';
  });
}

async function word(promiseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(dropOut, async () => {
    const { answer, note = '' } = fields(data);
    const { state } = await call(dropOut, { promiseId, answer: answer === 'yes' ? 'yes' : 'no', note });
    return state === 'taken' ? 'It has all its people already.' : undefined;
  });
}

async function ask(of: Of, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(askToStepIn, async () => {
    const crewIds = data.getAll('crewIds').map(String);
    const { people, unreached } = await call(askToStepIn, { ...of, crewIds, words: fields(data).words ?? '' });
    const tell = unreached.length > 0 ? ` Tell these yourself: ${unreached.join(', ')}.` : '';
    return `${sayCount(people, 'person was', 'people were')} asked: whoever says yes first has it.${tell}`;
  });
}

async function alter(of: Of, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(changeDuty, async () => {
    const { date = '', from = '', to = '', people = '', place = '', reason = '', what = '' } = fields(data);
    const isLeftOut = what === 'leave out';
    await call(changeDuty, { ...of, isLeftOut, date, from, to, people, place, reason });
    return isLeftOut ? 'It is left out.' : 'Changed. Whoever was told otherwise is to be asked again.';
  });
}

async function reset(of: Of, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(resetDuty, async () => {
    await call(resetDuty, of);
    return 'It is as it follows from the plan again.';
  });
}

export default async function Place({
  params,
  searchParams,
}: {
  params: Promise<{ sessionId: string }>;
  searchParams: Promise<{ duty?: string }>;
}) {
  const say = await saying();
  const { sessionId } = await params;
  const key = (await searchParams).duty ?? '';
  const of: Of = { sessionId, duty: key };
  const { session, duty, holders, empty, over, ways, others, would, isBetter, draft } = await orNotFound(
    call(viewPlace, of),
  );
  const wanted = [...duty.skills, ...(duty.isAdult ? ['an adult'] : [])];
  return (
    <>
      <PageTitle
        title={duty.title}
        over={
          <>
            <Link href={`/sessions/${sessionId}/crew`} className="link">
              {session.title}
            </Link>{' '}
            · {say.longDate(duty.date)}, {say.time(duty.from)} to {say.time(endOf(duty.to))} · {duty.place}
          </>
        }
      >
        <Link href={`/sessions/${sessionId}/crew`} className="btn">
          Crew of the session
        </Link>
      </PageTitle>
      {session.below && <BelowAdults why={session.below} />}
      <p className="mb-4">
        {wanted.length > 0 && <>For {wanted.join(', ')}. </>}
        {duty.because.join(' ')}
        {duty.changed && ` Changed by hand: ${duty.changed}`}
      </p>
      <div className="grid items-start gap-5 lg:grid-cols-2">
        <div className="flex flex-col gap-5">
          <section className="sheet p-5" aria-labelledby="who">
            <h2 id="who" className="text-xl font-bold">
              Who
            </h2>
            <ul className="divide-y divide-base-300">
              {holders.map((holder) => (
                <li key={holder.promiseId} className="flex flex-col gap-2 py-3">
                  <HolderLine holder={holder} />
                  {holder.why && <p className="text-sm">{say.text(holder.why)}</p>}
                  <Holding of={of} holder={holder} />
                </li>
              ))}
            </ul>
            <Fill duty={{ ...duty, empty, over }} />
          </section>
          <section className="sheet p-5" aria-labelledby="by-hand">
            <h2 id="by-hand" className="text-xl font-bold">
              By hand
            </h2>
            <ActionForm
              action={put.bind(null, of)}
              label="Put somebody there"
              className="mb-4 flex flex-wrap items-end gap-3"
            >
              <Choice label="Put somebody there" name="crewId" required>
                <option value="">Choose …</option>
                {[
                  ...ways.map(({ steps }) => ({ crewId: steps[0]?.crewId ?? '', name: steps[0]?.name ?? '' })),
                  ...others,
                ]
                  .filter((each, at, all) => all.findIndex(({ crewId }) => crewId === each.crewId) === at)
                  .sort((a, b) => a.name.localeCompare(b.name))
                  .map(({ crewId, name }) => (
                    <option key={crewId} value={crewId}>
                      {name}
                    </option>
                  ))}
              </Choice>
              <Tick label="They were asked and have time, whatever is written" name="byWord" />
              <button type="submit" className="btn">
                Put them there
              </button>
            </ActionForm>
            <ActionForm action={alter.bind(null, of)} label="Change the duty" className="flex flex-col gap-3">
              <h3 className="font-bold">Change the duty</h3>
              <div className="grid gap-3 sm:grid-cols-2">
                <DateField label="Day" name="date" defaultValue={duty.date} />
                <Field label="People" name="people" type="number" min={1} max={60} defaultValue={duty.people} />
                <TimeField label="From" name="from" defaultValue={timeOf(duty.from)} />
                <TimeField label="To" name="to" defaultValue={endOf(duty.to)} />
                <Field label="Place" name="place" maxLength={120} defaultValue={duty.place} />
                <Field label="Why" name="reason" required maxLength={255} />
              </div>
              <div className="flex flex-wrap gap-3">
                <button type="submit" className="btn">
                  Change it
                </button>
                <button type="submit" name="what" value="leave out" className="btn">
                  Leave it out
                </button>
              </div>
            </ActionForm>
            {duty.changed && (
              <ActionForm action={reset.bind(null, of)} label="As planned" className="mt-3">
                <button type="submit" className="btn">
                  As it follows from the plan
                </button>
              </ActionForm>
            )}
          </section>
        </div>
        <div className="flex flex-col gap-5">
          <section className="sheet p-5" aria-labelledby="step-in">
            <h2 id="step-in" className="text-xl font-bold">
              {empty > 0 ? 'Who can step in' : 'Who else could'}
            </h2>
            {ways.length === 0 ? (
              <p>Nobody could as things stand, not even by changing places with others.</p>
            ) : (
              <ActionForm action={ask.bind(null, of)} label="Ask to step in" className="flex flex-col gap-3">
                <p className="text-sm">With the fewest changes to others first. Ask several: the first yes takes it.</p>
                <ol className="flex flex-col gap-2">
                  {ways.map(({ steps, leaves, wishes }) => (
                    <li key={steps.map(({ crewId }) => crewId).join()}>
                      <Tick label={steps[0]?.name ?? ''} name="crewIds" value={steps[0]?.crewId} />
                      <p className="pl-7 text-sm">
                        {steps.length === 1 && !steps[0]?.gives && 'Gives up nothing.'}
                        {steps.map(({ name, takes, gives }, at) => (
                          <span key={name} className="block">
                            {at > 0 && `${name} takes ${takes}. `}
                            {gives && `${name} gives up ${gives}.`}
                          </span>
                        ))}
                        {leaves && <span className="block font-semibold">Then empty: {leaves}.</span>}
                        {wishes > 0 && <span className="block">One of them would rather not.</span>}
                      </p>
                    </li>
                  ))}
                </ol>
                <details className="text-sm">
                  <summary className="cursor-pointer font-semibold">The message</summary>
                  <pre className="mt-2 whitespace-pre-wrap font-sans">
                    {draft.subject}
                    {'\n\n'}
                    {draft.body.replace('{link}', '(their own link)')}
                  </pre>
                </details>
                <TextArea label="A word from you (may be left empty)" name="words" rows={2} maxLength={1000} />
                <button type="submit" className="btn btn-primary w-fit">
                  Ask them
                </button>
              </ActionForm>
            )}
            {would.length > 0 && (
              <>
                <h3 className="mt-4 font-bold">It would be filled if</h3>
                <p className="text-sm">Each was tried, by itself.</p>
                <ul className="list-disc pl-5">
                  {would.map((each) => (
                    <li key={each}>{each}</li>
                  ))}
                </ul>
              </>
            )}
            {isBetter && (
              <p className="mt-2">Planned anew, the place is filled: others change places. Plan the session again.</p>
            )}
            {empty > 0 && !isBetter && would.length === 0 && ways.length === 0 && (
              <p className="mt-2">
                No single change fills it: somebody new, another time, two duties by one person, a dish that needs no
                such station, or fewer stations.
              </p>
            )}
          </section>
          <section className="sheet p-5" aria-labelledby="others">
            <h2 id="others" className="text-xl font-bold">
              Why not the others
            </h2>
            {others.length === 0 ? (
              <p>Nothing stands against anybody else.</p>
            ) : (
              <ul className="list-disc pl-5">
                {others.map(({ crewId, name, why }) => (
                  <li key={crewId}>
                    <b>{name}</b> {say.text(why)}.
                  </li>
                ))}
              </ul>
            )}
          </section>
        </div>
      </div>
    </>
  );
}

type Held = Awaited<ReturnType<typeof viewPlace>>['holders'][number];

/** What can be done about somebody at a duty. */
function Holding({ of, holder }: { of: Of; holder: Held }) {
  const { promiseId, crewId, name, state, isPinned } = holder;
  const act = change.bind(null, of, crewId);
  if (state === 'declined' || state === 'ruled out' || state === 'taken')
    return (
      <ActionForm action={act} label={`Allow ${name} again`}>
        <button type="submit" name="what" value="allow" className="btn btn-sm" aria-label={`Allow again: ${name}`}>
          Allow again
        </button>
      </ActionForm>
    );
  return (
    <div className="flex flex-wrap items-end gap-2">
      <ActionForm
        action={word.bind(null, promiseId)}
        label={`Answer of ${name}`}
        className="flex flex-wrap items-end gap-2"
      >
        {state !== 'accepted' && (
          <button type="submit" name="answer" value="yes" className="btn btn-sm" aria-label={`Said yes: ${name}`}>
            Said yes
          </button>
        )}
        <button type="submit" name="answer" value="no" className="btn btn-sm" aria-label={`Cannot come: ${name}`}>
          Cannot come
        </button>
      </ActionForm>
      <ActionForm action={act} label={`Change ${name}`} className="flex flex-wrap gap-2">
        {state === 'planned' && (
          <button
            type="submit"
            name="what"
            value={isPinned ? 'unpin' : 'pin'}
            className="btn btn-sm"
            aria-label={`${isPinned ? 'Let go' : 'Keep'}: ${name}`}
          >
            {isPinned ? 'Let go' : 'Keep'}
          </button>
        )}
        <button type="submit" name="what" value="take away" className="btn btn-sm" aria-label={`Take away: ${name}`}>
          Take away
        </button>
        <button type="submit" name="what" value="rule out" className="btn btn-sm" aria-label={`Not this one: ${name}`}>
          Not this one
        </button>
      </ActionForm>
    </div>
  );
}
