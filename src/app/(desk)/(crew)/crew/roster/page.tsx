import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { sayCount } from '@/core/quantity/say';
import { type Asked, askCrew, remindCrew } from '@/services/crew/asking';
import { planRoster, viewRoster } from '@/services/crew/roster';
import { BelowAdults } from '@/ui/crew/below-adults';
import { DutyLine } from '@/ui/crew/duty-line';
import { StateKey } from '@/ui/crew/holders';
import { sayLongDate } from '@/ui/dates';
import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import { TextArea } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { Planning } from '@/ui/planning';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Roster' };

interface Wanted {
  readonly toDay?: string;
  readonly courseId?: string;
  readonly sessionId?: string;
}

async function plan(wanted: Wanted, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(planRoster, async () => {
    const { planned, empty, proven, changed } = await call(planRoster, wanted);
    const left = empty === 0 ? 'Every place has somebody.' : `${sayCount(empty, 'place is', 'places are')} empty.`;
    const sure = proven.empty
      ? empty > 0
        ? ' No roster has fewer, by weight.'
        : ''
      : ' There may be a better one: plan again.';
    return changed === 0
      ? `It is as good as can be already. ${left}${sure}`
      : `${sayCount(planned, 'person is', 'people are')} newly planned. ${left}${sure} Nobody is asked yet.`;
  });
}

const sayAsked = ({ people, places, unreached }: Asked, did: string): string =>
  `${sayCount(people, 'person was', 'people were')} ${did} about ${sayCount(places, 'place')}.${
    unreached.length > 0 ? ` Nobody wrote how these are reached, so tell them yourself: ${unreached.join(', ')}.` : ''
  }`;

async function ask(wanted: Wanted, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(askCrew, async () =>
    sayAsked(await call(askCrew, { ...wanted, words: fields(data).words ?? '' }), 'asked'),
  );
}

async function remind(wanted: Wanted, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(remindCrew, async () => sayAsked(await call(remindCrew, wanted), 'reminded'));
}

export default async function Roster({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const { until, course, session } = await searchParams;
  const wanted: Wanted = {
    ...(until ? { toDay: until } : {}),
    ...(course ? { courseId: course } : {}),
    ...(session ? { sessionId: session } : {}),
  };
  const { sessions, toDay, crew } = await orNotFound(call(viewRoster, wanted));
  const duties = sessions.flatMap((each) => each.duties);
  const holders = duties.flatMap((duty) => duty.holders);
  const empty = duties.reduce((sum, duty) => sum + duty.empty, 0);
  const planned = holders.filter(({ state }) => state === 'planned').length;
  const moved = holders.filter((holder) => holder.moved).length;
  const silent = holders.filter(({ state, moved: isMoved }) => state === 'asked' && !isMoved).length;
  const names = [...new Set(holders.filter(({ state }) => state === 'asked').map(({ name }) => name))];
  return (
    <>
      <PageTitle
        title="Roster"
        over={`Until ${sayLongDate(toDay)}: what the sessions need people for, and who does it`}
      >
        <Link href={`/crew/roster/table${until ? `?until=${until}` : ''}`} prefetch={false} className="btn">
          As a table
        </Link>
        <Link href="/crew" className="btn">
          Crew
        </Link>
        <PrintButton />
      </PageTitle>
      {sessions.map(
        ({ id, title, below }) =>
          below && <BelowAdults key={id} why={`${title}: ${below}`} href={`/sessions/${id}/crew`} />,
      )}
      <form className="no-print mb-4 flex flex-wrap items-end gap-3" action="/crew/roster">
        <DateField label="Until" name="until" defaultValue={toDay} width="w-56" />
        {course && <input type="hidden" name="course" value={course} />}
        <button type="submit" className="btn">
          Show
        </button>
      </form>
      {crew.length === 0 ? (
        <Empty title="Nobody is of the crew yet">
          <p>Add who helps, with what they can do and when they have time: then Logistra plans who does what.</p>
          <Link href="/crew/new" className="btn btn-primary">
            Add somebody
          </Link>
        </Empty>
      ) : (
        <section className="sheet mb-5 flex flex-col gap-3 p-5" aria-label="Plan and ask">
          <p className="text-lg">
            <b>{empty === 0 ? 'Every place has somebody' : `${sayCount(empty, 'place is', 'places are')} empty`}</b>
            {`; ${holders.filter(({ state }) => state === 'accepted').length} said yes, ${silent + moved} asked, ${planned} planned.`}
          </p>
          <div className="no-print flex flex-wrap items-start gap-x-6 gap-y-3">
            <ActionForm
              action={plan.bind(null, wanted)}
              label="Plan the roster"
              className="flex flex-wrap items-center gap-3"
            >
              <button type="submit" className="btn btn-primary">
                Plan the roster
              </button>
              <Planning seconds={8} />
            </ActionForm>
            {silent > 0 && (
              <ActionForm action={remind.bind(null, wanted)} label="Remind">
                <button type="submit" className="btn">
                  Remind the {silent} who are silent
                </button>
              </ActionForm>
            )}
          </div>
          {planned + moved > 0 && (
            <details className="no-print" open>
              <summary className="cursor-pointer font-semibold">
                Ask {planned > 0 && `about the ${planned} planned`}
                {planned > 0 && moved > 0 && ' and '}
                {moved > 0 && `again about the ${moved} that moved`}
              </summary>
              <ActionForm
                action={ask.bind(null, wanted)}
                label="Ask the crew"
                className="mt-2 flex max-w-2xl flex-col gap-3"
              >
                <TextArea
                  label="A word from you (may be left empty)"
                  name="words"
                  rows={2}
                  maxLength={1000}
                  hint="Each gets one message with their duties, and a page of their own to say yes or no. No account is needed."
                />
                <button type="submit" className="btn btn-primary w-fit">
                  Ask them
                </button>
              </ActionForm>
            </details>
          )}
          {names.length > 0 && <p className="text-sm">No answer yet from {names.join(', ')}.</p>}
          <StateKey />
        </section>
      )}
      <Caution>Adults are counted by a typical table; your local code decides, and may ask for more.</Caution>
      {sessions.length === 0 && <p className="my-4">No session until then needs anybody.</p>}
      {sessions.map(({ id, title, date, rooms, duties: own }) => (
        <section key={id} className="sheet my-5 p-5" aria-label={`${title}, ${sayLongDate(date)}`}>
          <h2 className="text-xl font-bold">
            <Link href={`/sessions/${id}/crew`} prefetch={false} className="link">
              {title}
            </Link>
            , {sayLongDate(date)}
          </h2>
          {rooms
            .filter(({ adults }) => adults.adults > 0)
            .map(({ name, adults }) => (
              <p key={name} className="mb-2 text-sm">
                <b>
                  {name && `${name}: `}
                  {sayCount(adults.adults, 'adult')} in the room.
                </b>{' '}
                {adults.because.join(' ')}
              </p>
            ))}
          <ul className="divide-y divide-base-300">
            {own.map((duty) => (
              <DutyLine key={duty.id} duty={duty} />
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}
