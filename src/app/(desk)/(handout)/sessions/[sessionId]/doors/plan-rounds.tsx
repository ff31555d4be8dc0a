import { call } from '@/app/access';
import { attempt, formOf } from '@/app/form';
import { timeOf } from '@/core/plan/civil';
import { sayCount } from '@/core/quantity/say';
import type { viewDoors } from '@/services/handout/doors';
import { dropRound, planDoorRounds } from '@/services/handout/rounds';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Choice, Field, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Planning } from '@/ui/planning';

type Seen = Awaited<ReturnType<typeof viewDoors>>;

/** Rows for drivers in the form. */
const DRIVERS = [0, 1, 2, 3] as const;

async function plan(sessionId: string, group: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(planDoorRounds, async () => {
    const { drivers: rows = [], ...sent } = formOf(planDoorRounds, data);
    const drivers = [...rows].filter(({ crewId, name }) => crewId || name);
    const answer = await call(planDoorRounds, { ...sent, sessionId, group, drivers });
    const served = answer.routes.reduce((sum, { stops }) => sum + stops.length, 0);
    const sure = answer.proven.driving
      ? 'No rounds are shorter.'
      : `There may be shorter ones${answer.bound?.driving === undefined ? '' : `: not below ${answer.bound.driving} minutes`}.`;
    return `${sayCount(served, 'door', 'doors')} in ${sayCount(answer.routes.length, 'round', 'rounds')}, ${answer.driving} minutes on the road. ${sure}${
      answer.missed > 0 ? ` ${sayCount(answer.missed, 'door is', 'doors are')} not reached: see below why.` : ''
    }`;
  });
}

async function drop(sessionId: string, roundId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(dropRound, async () => {
    await call(dropRound, { sessionId, roundId });
    return undefined;
  });
}

interface Props {
  readonly sessionId: string;
  readonly meeting: Seen['meetings'][number] | undefined;
  readonly rounds: Seen['rounds'];
  readonly crew: Seen['crew'];
}

/** Who drives from when to when, and the button that plans. */
export function PlanRounds({ sessionId, meeting, rounds, crew }: Props) {
  return (
    <section className="no-print sheet p-5" aria-labelledby="plan">
      <h2 id="plan" className="mb-2 text-xl font-bold">
        Plan the rounds
      </h2>
      <ActionForm
        action={plan.bind(null, sessionId, meeting?.group ?? '')}
        label="Plan the rounds"
        className="flex flex-col gap-3"
      >
        <div className="flex flex-wrap gap-3">
          <DateField label="Day" name="date" defaultValue={rounds[0]?.date ?? meeting?.date ?? ''} required />
          <TimeField label="From" name="from" defaultValue={timeOf(meeting?.span.from ?? 900)} required />
          <TimeField label="To" name="to" defaultValue={timeOf(meeting?.span.to ?? 1080)} required />
        </div>
        <p className="text-sm">
          Whoever has hours of their own is reached in those. Cold parts are at most two hours on the way.
        </p>
        {DRIVERS.map((at) => {
          const round = rounds.filter(({ leftAt }) => leftAt === null)[at];
          const planned = meeting?.drivers[at];
          const crewId = round?.crewId ?? planned?.crewId ?? '';
          const from = round?.driver.from ?? planned?.from ?? meeting?.span.from ?? 900;
          const to = round?.driver.to ?? planned?.to ?? meeting?.span.to ?? 1080;
          return (
            <fieldset key={at} className="flex flex-wrap items-end gap-3">
              <legend className="text-sm font-semibold">{at === 0 ? 'Drivers' : `Driver ${at + 1}`}</legend>
              <Choice label="Of the crew" name={`drivers[${at}].crewId`} defaultValue={crewId}>
                <option value="">nobody</option>
                {crew.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </Choice>
              <Field
                label="Or by name"
                name={`drivers[${at}].name`}
                width="w-36"
                defaultValue={round && !round.crewId ? round.driver.name : ''}
              />
              <TimeField label="Drives from" name={`drivers[${at}].from`} defaultValue={timeOf(from)} />
              <TimeField label="Until" name={`drivers[${at}].to`} defaultValue={timeOf(to)} />
              <Field
                label="Litres"
                name={`drivers[${at}].litres`}
                inputMode="numeric"
                width="w-20"
                defaultValue={round?.driver.litres ?? ''}
              />
              <Tick label="Comes back here" name={`drivers[${at}].home`} defaultChecked={round?.driver.home ?? true} />
            </fieldset>
          );
        })}
        <div className="flex items-center gap-3">
          <button type="submit" className="btn btn-primary">
            Plan the rounds
          </button>
          <Planning seconds={8} />
        </div>
      </ActionForm>
      {rounds
        .filter(({ leftAt }) => leftAt === null)
        .map(({ id, driver }) => (
          <ActionForm key={id} action={drop.bind(null, sessionId, id)} label={`Take away: ${driver.name}`}>
            <button type="submit" className="btn btn-sm mt-2">
              Take away the round of {driver.name}
            </button>
          </ActionForm>
        ))}
    </section>
  );
}
