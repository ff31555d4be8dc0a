import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import type { AdultsNeeded } from '@/core/crew/adults';
import { sayCount } from '@/core/quantity/say';
import { type Asked, askCrew, remindCrew } from '@/services/crew/asking';
import { planRoster } from '@/services/crew/roster';
import type { ListedDuty } from '@/ui/crew/duty-line';
import { StateKey } from '@/ui/crew/holders';
import { ActionForm } from '@/ui/form/action-form';
import { TextArea } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Planning } from '@/ui/planning';

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

/** Where the crew stands, and what is to be done about it: plan, ask, remind. */
export function PlanAndAsk({ wanted, duties }: { wanted: Wanted; duties: readonly ListedDuty[] }) {
  const holders = duties.flatMap((duty) => duty.holders);
  const empty = duties.reduce((sum, duty) => sum + duty.empty, 0);
  const over = duties.reduce((sum, duty) => sum + duty.over, 0);
  const planned = holders.filter(({ state }) => state === 'planned').length;
  const moved = holders.filter((holder) => holder.moved).length;
  const silent = holders.filter(({ state, moved: isMoved }) => state === 'asked' && !isMoved).length;
  const names = [...new Set(holders.filter(({ state }) => state === 'asked').map(({ name }) => name))];
  return (
    <section className="sheet mb-5 flex flex-col gap-3 p-5" aria-label="Plan and ask">
      <p className="text-lg">
        <b>{empty === 0 ? 'Every place has somebody' : `${sayCount(empty, 'place is', 'places are')} empty`}</b>
        {`; ${holders.filter(({ state }) => state === 'accepted').length} said yes, ${silent + moved} asked, ${planned} planned.${over > 0 ? ` ${sayCount(over, 'person', 'people')} more said yes than a duty needs: it says so below.` : ''}`}
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
  );
}

/** How many adults each room needs, with the working. */
export function Rooms({ rooms }: { rooms: readonly { readonly name: string; readonly adults: AdultsNeeded }[] }) {
  return rooms
    .filter(({ adults }) => adults.adults > 0)
    .map(({ name, adults }) => (
      <p key={name} className="mb-2 text-sm">
        <b>
          {name && `${name}: `}
          {sayCount(adults.adults, 'adult')} in the room.
        </b>{' '}
        {adults.because.join(' ')}
      </p>
    ));
}
