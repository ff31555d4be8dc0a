import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { minutesOf } from '@/core/plan/civil';
import { readTime } from '@/core/plan/manner';
import { rational } from '@/core/quantity/rational';
import { sayGrams } from '@/core/quantity/say';
import { viewPrepPlan } from '@/services/packing/prep';

import { TimeField } from '@/ui/form/dates';
import { PrepBoard } from '@/ui/packing/prep/prep-board';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Prep plan' };

const PHASES = {
  without: 'First, on clean tools: for kits made without something',
  between: 'Then of these what another of them must not hold, each on its own board',
  rest: 'Then what is ready to eat or dry',
  raw: 'Last, on another board: what is raw',
} as const;

interface Params {
  readonly params: Promise<{ date: string }>;
  readonly searchParams: Promise<{ hands?: string; raw?: string; boards?: string; at?: string }>;
}

/** A prep day, planned for the hands there are. */
export default async function PrepPlanPage({ params, searchParams }: Params) {
  const say = await saying();
  const { date } = await params;
  const { hands, raw, boards, at = '' } = await searchParams;
  const { actor } = await requireMember();
  const asked = { date, ...(hands ? { hands } : {}), ...(raw ? { raw } : {}), ...(boards ? { boards } : {}) };
  const found = await orNotFound(call(viewPrepPlan, asked));
  const { plan, motions, curve } = found;
  const time = readTime(at) ?? '14:00';
  return (
    <>
      <PageTitle title={`Prep plan, ${say.longDate(date)}`} over={found.sessions.map(({ title }) => title).join(', ')}>
        {actor.role === 'coordinator' && (
          <Link href={`/prep/${date}`} className="btn">
            By food
          </Link>
        )}
        <PrintButton />
      </PageTitle>
      {motions.length === 0 ? (
        <Empty title="Nothing is prepared on this day">
          <p>The plan is made from the kit sheets of the day’s sessions.</p>
        </Empty>
      ) : (
        <div className="flex flex-col gap-5">
          <form className="no-print flex flex-wrap items-end gap-3" aria-label="Who is there">
            {(
              [
                ['hands', 'Pairs of hands', found.hands.length],
                ['raw', 'Of them with raw meat', found.hands.filter((hand) => hand.raw).length],
                ['boards', 'Boards', boards ?? 8],
              ] as const
            ).map(([name, label, value]) => (
              <label key={name} className="flex flex-col gap-1">
                <span className="text-sm font-semibold">{label}</span>
                <input
                  className="input w-28"
                  type="number"
                  min={name === 'raw' ? 0 : 1}
                  max={8}
                  name={name}
                  defaultValue={value}
                />
              </label>
            ))}
            <TimeField label="Begins at" name="at" defaultValue={time} width="w-28" />
            <button type="submit" className="btn btn-primary">
              Plan
            </button>
          </form>
          {plan ? (
            <>
              <section className="sheet p-4" aria-label="How long it takes">
                <p className="text-lg">
                  <b>{plan.minutes} minutes</b> with {found.hands.length} pairs of hands.{' '}
                  {plan.proven
                    ? 'No plan for them is shorter.'
                    : `No plan for them is shorter than ${plan.bound} minutes.`}
                </p>
                <ul className="mt-2 text-sm">
                  {plan.phases.map(({ phase, from, to, why }) => (
                    <li key={phase}>
                      <b>
                        {PHASES[phase]}: minute {from} to {to}.
                      </b>{' '}
                      {why}
                    </li>
                  ))}
                </ul>
                <p className="mt-2 text-sm">
                  With 1 to 6 pairs of hands:{' '}
                  {curve.map((minutes) => (minutes === null ? 'not possible' : `${minutes} min`)).join(', ')}.{' '}
                  {motions.some(({ timed }) => timed > 0)
                    ? `Minutes of ${motions.filter(({ timed }) => timed > 0).length} motions come from your own prep days, the rest are estimates.`
                    : 'Minutes are estimates until you tap “begun” and “done” on your own days.'}
                </p>
              </section>
              <PrepBoard
                date={date}
                begins={minutesOf(time)}
                motions={motions.map((motion) => ({ ...motion, sayGrams: sayGrams(rational(motion.grams)) }))}
                hands={found.hands}
                stretches={plan.stretches}
                events={found.events}
              />
            </>
          ) : (
            <p role="alert" className="rounded-box border-l-4 border-error bg-error/10 p-3 font-semibold">
              Raw meat or fish waits for somebody who may handle it: say how many of the hands may.
            </p>
          )}
          <Caution>
            Hands first; clean boards and knives between the parts; raw meat last, on its own board. What is cut is kept
            cold and dated. A sachet filled from a pack takes the pack’s label along.
          </Caution>
        </div>
      )}
    </>
  );
}
