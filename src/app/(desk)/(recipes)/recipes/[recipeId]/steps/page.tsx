import Link from 'next/link';
import { attempt, fields, texts } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { ADULT, HEATS, type PlannedStep, TOOLS } from '@/core/recipes/steps/step-plan';
import { settleStep, viewSteps } from '@/services/recipes/steps';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';
import { StepBoard } from '@/ui/recipes/step-board';
import { call, requireMember } from '../../../../../access';

export const metadata = { title: 'Steps' };

async function settle(
  recipeId: string,
  version: number,
  step: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(settleStep, async () => {
    const { handsOn, handsOff, heat = '', fromAge, mayWait, done = '', batchServings, ...sent } = fields(data);
    const plan = {
      ...{ handsOn, handsOff, heat, fromAge, mayWait, done, batchServings },
      tools: texts(data, 'tools'),
      after: texts(data, 'after'),
      consumables: (sent.consumables ?? '')
        .split(',')
        .map((each) => each.trim())
        .filter(Boolean),
      ahead: sent.ahead === 'on',
      lastMinute: sent.lastMinute === 'on',
    };
    await call(settleStep, { recipeId, version, step, plan });
    return 'Settled.';
  });
}

async function readAgain(recipeId: string, version: number, step: number): Promise<FormState> {
  'use server';
  return attempt(settleStep, async () => {
    await call(settleStep, { recipeId, version, step });
    return 'Read from its words again.';
  });
}

export default async function Steps({
  params,
  searchParams,
}: {
  params: Promise<{ recipeId: string }>;
  searchParams: Promise<{ hands?: string; servings?: string }>;
}) {
  const { recipeId } = await params;
  const { actor } = await requireMember();
  const asked = await readQuery(searchParams);
  const hands = Math.min(20, Math.max(1, Number(asked.hands) || 1));
  const wanted = Number(asked.servings);
  const { title, version, steps, schedules, servings } = await orNotFound(
    call(viewSteps, { recipeId, hands, ...(wanted >= 1 && wanted <= 500 ? { servings: Math.floor(wanted) } : {}) }),
  );
  const turns = steps.filter(({ batchServings }) => batchServings !== null && batchServings < servings);
  const schedule = schedules.find(({ cooks }) => cooks === hands);
  return (
    <>
      <PageTitle title={`Steps of ${title}`} over="Minutes, order, and who may do what">
        <Link href={`/recipes/${recipeId}`} className="btn">
          Recipe
        </Link>
      </PageTitle>
      {steps.length === 0 || !schedule ? (
        <p className="sheet p-5">This recipe has no steps yet. Edit it, one step a line.</p>
      ) : (
        <div className="flex flex-col gap-6">
          <section className="sheet p-5" aria-labelledby="order">
            <h2 id="order" className="mb-1 text-xl font-bold">
              {schedule.minutes} minutes with {hands === 1 ? 'one pair of hands' : `${hands} pairs of hands`}
            </h2>
            <p className="mb-3 text-sm">
              {schedule.isShortest
                ? 'No order is shorter.'
                : `No order that was tried is shorter; at most ${schedule.atMostShorterBy} minutes could still be saved.`}{' '}
              Hygiene, eating and cleaning come on top.
              {turns.length > 0 &&
                ` Made for ${servings}: ${turns.map(({ batchServings }) => `${Math.ceil(servings / (batchServings ?? 1))} turns of ${batchServings} servings`).join(', ')}, what the pan or tray holds.`}
            </p>
            <nav className="no-print mb-4 flex flex-wrap gap-2" aria-label="Pairs of hands at the dish">
              {schedules.map(({ cooks, minutes }) => (
                <Link
                  key={cooks}
                  href={`/recipes/${recipeId}/steps?hands=${cooks}&servings=${servings}`}
                  className={`btn btn-sm ${cooks === hands ? 'btn-primary' : ''}`}
                  aria-current={cooks === hands ? 'true' : undefined}
                >
                  {cooks} {cooks === 1 ? 'pair' : 'pairs'}: {minutes} min
                </Link>
              ))}
            </nav>
            <form className="no-print mb-4 flex items-end gap-2" aria-label="How many it is made for">
              <input type="hidden" name="hands" value={hands} />
              <Field
                label="Made for, servings"
                name="servings"
                type="number"
                min={1}
                max={500}
                defaultValue={servings}
              />
              <button type="submit" className="btn">
                Show
              </button>
            </form>
            <StepBoard steps={steps} schedule={schedule} />
          </section>
          <ol className="flex flex-col gap-4">
            {steps.map((step, at) => (
              <li key={step.text} className="sheet p-5">
                <p className="font-semibold">
                  {at + 1}. {step.text}
                </p>
                <p className="mt-1 text-sm">{sayStep(step)}</p>
                {step.isRead && (
                  <p className="text-sm text-base-content/80">
                    {step.estimated ? 'Read from its words; the minutes are an estimate.' : 'Read from its words.'}
                  </p>
                )}
                {!step.isOwn && (
                  <p className="text-sm text-base-content/80">Of a recipe that this one is made of: settled there.</p>
                )}
                {actor.role === 'coordinator' && step.isOwn && (
                  <details className="no-print mt-2">
                    <summary className="cursor-pointer text-sm font-semibold" aria-label={`Settle step ${at + 1}`}>
                      Settle it
                    </summary>
                    <StepForm
                      key={version}
                      steps={steps}
                      at={at}
                      action={settle.bind(null, recipeId, version, at)}
                      reset={step.isRead ? undefined : readAgain.bind(null, recipeId, version, at)}
                    />
                  </details>
                )}
              </li>
            ))}
          </ol>
        </div>
      )}
    </>
  );
}

/** All that is known of a step, in a sentence. */
function sayStep(step: PlannedStep): string {
  const { handsOn, handsOff, heat, fromAge, tools, mayWait, done, consumables, ahead, lastMinute, after } = step;
  const { batchServings } = step;
  return [
    handsOff > 0 ? `${handsOn} min by hand, then ${handsOff} min alone` : `${handsOn} min by hand`,
    heat === 'none' ? '' : `over or in: ${heat}`,
    fromAge >= ADULT ? 'an adult does it' : `from ${fromAge} years, an adult in the room`,
    after.length > 0 ? `after ${after.map((place) => place + 1).join(', ')}` : 'can begin at once',
    tools.length > 0 ? tools.join(', ') : '',
    batchServings === null ? '' : `in turns of ${batchServings} servings`,
    mayWait === null ? '' : `may wait ${mayWait} min`,
    done ? `done ${done}` : '',
    consumables.length > 0 ? `uses up ${consumables.join(', ')}` : '',
    ahead ? 'done before the class' : '',
    lastMinute ? 'at the last minute: what it adds travels apart' : '',
  ]
    .filter(Boolean)
    .join(' · ');
}

function StepForm({
  steps,
  at,
  action,
  reset,
}: {
  steps: readonly PlannedStep[];
  at: number;
  action: (state: FormState | null, data: FormData) => Promise<FormState>;
  reset: (() => Promise<FormState>) | undefined;
}) {
  const step = steps[at] as PlannedStep;
  return (
    <>
      <ActionForm action={action} label={`Step ${at + 1}`} className="mt-3 grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        <Field
          label="Minutes by hand"
          name="handsOn"
          type="number"
          min={0}
          max={2880}
          required
          defaultValue={step.handsOn}
        />
        <Field
          label="Then minutes alone"
          name="handsOff"
          type="number"
          min={0}
          max={2880}
          required
          defaultValue={step.handsOff}
        />
        <Choice label="Over or in" name="heat" defaultValue={step.heat}>
          {HEATS.map((heat) => (
            <option key={heat}>{heat}</option>
          ))}
        </Choice>
        <Field
          label="From age"
          name="fromAge"
          type="number"
          min={0}
          max={ADULT}
          required
          defaultValue={step.fromAge}
          hint={`${ADULT}: an adult`}
        />
        <Field
          label="May wait, minutes"
          name="mayWait"
          type="number"
          min={0}
          max={2880}
          defaultValue={step.mayWait ?? ''}
          hint="empty: it keeps"
        />
        <Field
          label="Holds at once, servings"
          name="batchServings"
          type="number"
          min={1}
          max={500}
          defaultValue={step.batchServings ?? ''}
          hint="a pan, tray or blender; empty: any"
        />
        <Field label="Done when" name="done" maxLength={120} defaultValue={step.done} />
        <Field
          label="Uses up"
          name="consumables"
          maxLength={200}
          defaultValue={step.consumables.join(', ')}
          hint="foil, paper, gloves …"
        />
        <div className="flex flex-col justify-center gap-1 text-sm">
          <label className="flex items-center gap-2">
            <input type="checkbox" name="ahead" className="checkbox checkbox-sm" defaultChecked={step.ahead} /> Before
            the class
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              name="lastMinute"
              className="checkbox checkbox-sm"
              defaultChecked={step.lastMinute}
            />{' '}
            At the last minute
          </label>
        </div>
        <fieldset className="text-sm sm:col-span-2">
          <legend className="mb-1 font-semibold">After these steps</legend>
          <span className="flex flex-wrap gap-x-4 gap-y-1">
            {steps.map(
              (other, place) =>
                place !== at && (
                  <label key={other.text} className="flex items-center gap-1.5" title={other.text}>
                    <input
                      type="checkbox"
                      name="after"
                      value={place}
                      className="checkbox checkbox-sm"
                      defaultChecked={step.after.includes(place)}
                    />
                    {place + 1}
                  </label>
                ),
            )}
          </span>
        </fieldset>
        <fieldset className="text-sm sm:col-span-2">
          <legend className="mb-1 font-semibold">Tools</legend>
          <span className="flex flex-wrap gap-x-4 gap-y-1">
            {TOOLS.map((tool) => (
              <label key={tool} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  name="tools"
                  value={tool}
                  className="checkbox checkbox-sm"
                  defaultChecked={step.tools.includes(tool)}
                />
                {tool}
              </label>
            ))}
          </span>
        </fieldset>
        <button type="submit" className="btn btn-primary w-fit">
          Settle step {at + 1}
        </button>
      </ActionForm>
      {reset && (
        <ActionForm action={reset} label={`Read step ${at + 1} again`} className="mt-2">
          <button type="submit" className="btn btn-sm">
            Read it from its words again
          </button>
        </ActionForm>
      )}
    </>
  );
}
