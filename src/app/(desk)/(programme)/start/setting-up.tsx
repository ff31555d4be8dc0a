import { Check, Circle, Minus } from 'lucide-react';
import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt, formOf } from '@/app/form';
import type { FirstStep } from '@/core/plan/first-run';
import type { InputOf } from '@/services/gate/gate';
import {
  leaveOutStep,
  settleCountry,
  takeSampleAway,
  trySample,
  type viewFirstRun,
} from '@/services/programme/first-run';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { namesOf } from '@/ui/form/names';

type Found = Awaited<ReturnType<typeof viewFirstRun>>;

/** What each step is for, and where it is done. */
const SAYS: Readonly<Record<FirstStep, { title: string; why: string; href: (found: Found) => string; go: string }>> = {
  country: {
    title: 'Your country',
    why: 'Measures, money, dates, holidays and typical safety figures follow from it. You can change each of them.',
    href: () => '/start',
    go: 'Choose',
  },
  place: {
    title: 'A place',
    why: 'Where you cook: how many it seats, when it is open.',
    href: () => '/places',
    go: 'Add a place',
  },
  closures: {
    title: 'Closed days',
    why: 'Holidays and your school’s calendar: sessions are planned around them.',
    href: () => '/closures',
    go: 'Add closed days',
  },
  course: {
    title: 'A course',
    why: 'A run of sessions with one roll of people.',
    href: () => '/courses',
    go: 'Add a course',
  },
  sessions: {
    title: 'Its sessions',
    why: 'Say the weekday, the hour and how many: the dates are found.',
    href: ({ courseId }) => `/courses/${courseId}/season`,
    go: 'Plan the sessions',
  },
  recipes: {
    title: 'Recipes',
    why: 'Paste them as they are written; what is unclear is asked.',
    href: () => '/recipes/import',
    go: 'Paste a recipe',
  },
  roll: {
    title: 'The roll',
    why: 'Who comes, and what they must not eat: from a file, pasted, or one by one.',
    href: ({ courseId }) => `/courses/${courseId}/roll/import`,
    go: 'Bring in the roll',
  },
  kits: {
    title: 'A kit sheet',
    why: 'Choose what a session cooks; its kits are calculated. Lock the sheet, and buying and packing go by it.',
    href: ({ sessionId }) => (sessionId ? `/sessions/${sessionId}` : '/courses'),
    go: 'Go to the first session',
  },
};

/** "the roll" */
export const sayStep = (step: FirstStep): string => SAYS[step].title.toLowerCase();

const settle = namesOf<InputOf<typeof settleCountry>>();

async function saveCountry(fixed: { version: number; country: string }, _state: FormState | null, data: FormData) {
  'use server';
  return attempt(settleCountry, async () => {
    const closures = await call(settleCountry, { ...formOf(settleCountry, data), ...fixed });
    return closures > 0
      ? `Saved. ${closures} public holidays are brought in: check them against your official list.`
      : 'Saved.';
  });
}

async function leaveOut(step: FirstStep, leftOut: boolean): Promise<FormState> {
  'use server';
  return attempt(leaveOutStep, async () => {
    await call(leaveOutStep, { step, leftOut });
    return undefined;
  });
}

async function sample(): Promise<FormState> {
  'use server';
  return attempt(trySample, async () => redirect(`/courses/${await call(trySample, {})}`));
}

async function takeAway(): Promise<FormState> {
  'use server';
  return attempt(takeSampleAway, async () => {
    const kept = await call(takeSampleAway, {});
    return `The sample is gone, with all that was done with it.${kept > 0 ? ` ${kept} of its places, recipes or families stay: you use them elsewhere.` : ''}`;
  });
}

/** The steps of setting up, what is done of them, and what is missing. */
export function SettingUp({ found }: { found: Found }) {
  const { steps, hasSample, isEmpty } = found;
  const open = steps.filter(({ state }) => state === 'open');
  return (
    <>
      <p className="mb-4 text-lg" role="status">
        {open.length === 0 ? (
          'Everything is set up.'
        ) : (
          <>
            <b>
              {steps.length - open.length} of {steps.length}
            </b>{' '}
            done. Still missing: {open.map(({ step }) => sayStep(step)).join(', ')}.
          </>
        )}
      </p>
      <ol className="flex flex-col gap-3">
        {steps.map((now, at) => (
          <Step key={now.step} now={now} number={at + 1} found={found} />
        ))}
      </ol>
      <div className="mt-6 flex flex-wrap items-center gap-3">
        {hasSample ? (
          <ActionForm action={takeAway} label="Take the sample away" className="flex flex-wrap items-center gap-3">
            <span>
              The sample course is there to try things with. Put no real families on it: it goes with all its people.
            </span>
            <button type="submit" className="btn">
              Take the sample away
            </button>
          </ActionForm>
        ) : (
          isEmpty && (
            <ActionForm action={sample} label="Look around first" className="flex flex-wrap items-center gap-3">
              <span>
                Rather look around first? A sample course with people, recipes and sessions can be taken away whole.
              </span>
              <button type="submit" className="btn">
                Try it with a sample
              </button>
            </ActionForm>
          )
        )}
      </div>
    </>
  );
}

const ICONS = { done: Check, 'left out': Minus, open: Circle } as const;

function Step({
  now: { step, state, waitsFor },
  number,
  found,
}: {
  now: Found['steps'][number];
  number: number;
  found: Found;
}) {
  const { title, why, href, go } = SAYS[step];
  const Icon = ICONS[state];
  return (
    <li className={`sheet p-4 ${state === 'open' ? '' : 'text-base-content/80'}`}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Icon size={20} aria-hidden="true" className={state === 'done' ? 'text-success' : ''} />
        <span className="min-w-60 flex-1">
          <b className="text-lg">
            {number}. {title}
          </b>{' '}
          <span className="badge badge-sm badge-outline">{state}</span>
          <span className="block text-sm">
            {waitsFor ? `It waits for ${waitsFor}. ` : ''}
            {why}
          </span>
        </span>
        {step !== 'country' && state !== 'done' && !waitsFor && (
          <Link href={href(found)} className="btn btn-primary">
            {go}
          </Link>
        )}
        {state !== 'done' && (
          <ActionForm
            action={leaveOut.bind(null, step, state === 'open')}
            label={`${title}: leave it out, or take it up`}
          >
            <button
              type="submit"
              className="btn"
              aria-label={`${state === 'open' ? 'Leave out' : 'Do it after all'}: ${title}`}
            >
              {state === 'open' ? 'Leave out' : 'Do it after all'}
            </button>
          </ActionForm>
        )}
      </div>
      {step === 'country' && state === 'open' && <Country found={found} />}
    </li>
  );
}

function Country({ found: { country, countries, proposal, version, timeZone } }: { found: Found }) {
  return (
    <div className="mt-3 flex flex-col gap-3">
      <form method="get" action="/start" className="flex flex-wrap items-end gap-2">
        <Choice label="Country" name="country" defaultValue={country} width="w-72">
          <option value="">choose</option>
          {countries.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </Choice>
        <button type="submit" className={`btn ${proposal ? '' : 'btn-primary'}`}>
          See what it proposes
        </button>
      </form>
      {proposal && (
        <ActionForm
          key={country}
          action={saveCountry.bind(null, { version, country })}
          label="What the country proposes"
          className="flex flex-col gap-3"
        >
          <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
            <Choice
              label="Time zone"
              name={settle('timeZone')}
              defaultValue={proposal.timeZones.includes(timeZone) ? timeZone : (proposal.timeZones[0] ?? timeZone)}
            >
              {(proposal.timeZones.length > 0 ? proposal.timeZones : [timeZone]).map((zone) => (
                <option key={zone}>{zone}</option>
              ))}
            </Choice>
            <Field
              label="Currency"
              name={settle('currency')}
              maxLength={3}
              required
              defaultValue={proposal.currency}
              hint="Three letters, such as EUR"
            />
            <Choice label="Measures" name={settle('measureSystem')} defaultValue={proposal.measureSystem}>
              <option value="us">Cups, spoons, ounces</option>
              <option value="metric">Millilitres, grams</option>
            </Choice>
            {proposal.regions.length > 0 && (
              <Choice label="Region" name={settle('region')} defaultValue="">
                <option value="">the whole country</option>
                {proposal.regions.map(({ code, name }) => (
                  <option key={code} value={code}>
                    {name}
                  </option>
                ))}
              </Choice>
            )}
          </div>
          <Tick label="Bring in its public holidays as closed days" name={settle('holidays')} defaultChecked />
          <p className="text-sm">
            Typical safety figures: {proposal.safetyProfile === 'us' ? 'United States' : 'United Kingdom'}. They are for
            comparison; your local code decides.
          </p>
          <button type="submit" className="btn btn-primary w-fit">
            Set it up so
          </button>
        </ActionForm>
      )}
    </div>
  );
}
