import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { timeOf } from '@/core/plan/civil';
import { sayCount } from '@/core/quantity/say';
import { proposeRoster } from '@/services/crew/roster';
import { sayLongDate, sayShortDate } from '@/ui/dates';
import { Caution, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Roster' };

type Duty = Awaited<ReturnType<typeof proposeRoster>>['sessions'][number]['duties'][number];

/** Rules as one says them of somebody. */
const RULES: Readonly<Record<Duty['because'][number]['rule'], string>> = {
  skill: 'lacks a skill, or it has ended',
  free: 'has no time then',
  overlap: 'has another duty then',
  travel: 'could not get there in time',
  most_duties: 'has as many duties as they take',
  most_minutes: 'has as many hours as they take',
  apart: 'is kept apart from somebody there',
  elsewhere: 'is needed more elsewhere',
};

/** A change that would fill a place, in words. */
function sayChange({ name, ...change }: Duty['would'][number]): string {
  switch (change.rule) {
    case 'skill':
      return `${change.skill} for ${name}`;
    case 'free':
      return `time of ${name} then`;
    case 'most_duties':
      return `one duty more for ${name}`;
    case 'most_minutes':
      return `more hours for ${name}`;
    case 'apart':
      return `${name} beside ${change.with}`;
  }
}

/** Why nobody has it: each rule with those whom it keeps from it. */
function Why({ duty }: { duty: Duty }) {
  const rules = [...new Set(duty.because.map(({ rule }) => rule))];
  return (
    <details className="text-sm">
      <summary className="cursor-pointer font-semibold">Why, and what would fill it</summary>
      <ul className="list-disc pl-5">
        {rules.map((rule) => (
          <li key={rule}>
            {RULES[rule]}:{' '}
            {duty.because
              .filter((each) => each.rule === rule)
              .map(({ name }) => name)
              .join(', ')}
          </li>
        ))}
      </ul>
      <p>
        {duty.would.length === 0
          ? 'No single change fills it: somebody new, another time, or less to do.'
          : `It would be filled by ${duty.would.map(sayChange).join('; or ')}. Each was tried.`}
      </p>
    </details>
  );
}

export default async function Roster() {
  const { sessions, toDay, empty, crew, proven } = await orNotFound(call(proposeRoster, {}));
  const due = sessions.filter(({ duties }) => duties.length > 0);
  return (
    <>
      <PageTitle
        title="Roster"
        over={`Until ${sayLongDate(toDay)}: what the sessions need people for, and the best that the crew can give`}
      >
        <Link href="/crew" className="btn">
          Crew
        </Link>
        <PrintButton />
      </PageTitle>
      <Caution>
        A proposal: nobody is asked by it yet. Adults are counted by a typical table; your local code decides, and may
        ask for more.
      </Caution>
      <p className="my-4">
        <b>{empty === 0 ? 'Every place is filled.' : `${sayCount(empty, 'place is', 'places are')} empty`}</b>
        {empty > 0 && ` with a crew of ${crew}${proven.empty ? ': no roster has fewer, by weight' : ''}.`}
      </p>
      {due.map(({ id, title, date, adults, duties }) => (
        <section key={id} className="sheet mb-5 p-5" aria-label={`${title}, ${sayLongDate(date)}`}>
          <h2 className="text-xl font-bold">
            <Link href={`/sessions/${id}`} className="link">
              {title}
            </Link>
            , {sayLongDate(date)}
          </h2>
          {adults && (
            <p className="mb-2 text-sm">
              <b>{sayCount(adults.adults, 'adult')} in the room.</b> {adults.because.join(' ')}
            </p>
          )}
          <ul className="divide-y divide-base-300">
            {duties.map((duty) => (
              <li key={duty.id} className="grid gap-x-4 gap-y-1 py-2 sm:grid-cols-[14rem_11rem_1fr]">
                <b>
                  {duty.title}
                  {duty.people > 1 && ` × ${duty.people}`}
                </b>
                <span className="tabular-nums">
                  {sayShortDate(duty.date)}, {timeOf(duty.from)}–{timeOf(Math.min(duty.to, 1439))}
                </span>
                <div>
                  {duty.who.join(', ')}
                  {duty.missing > 0 && (
                    <span className="font-semibold text-error">
                      {duty.who.length > 0 && '; '}
                      {sayCount(duty.missing, 'place')} empty
                    </span>
                  )}
                  <p className="text-sm">
                    {[...duty.skills, duty.isAdult ? 'an adult' : ''].filter(Boolean).join(', ')}
                    {(duty.skills.length > 0 || duty.isAdult) && '. '}
                    {duty.working.join(' ')}
                  </p>
                  {duty.missing > 0 && <Why duty={duty} />}
                </div>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}
