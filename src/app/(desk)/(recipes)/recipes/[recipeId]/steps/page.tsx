import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { attempt, fields, texts } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { ADULT, type PlannedStep } from '@/core/recipes/steps/step-plan';
import { settleStep, viewSteps } from '@/services/recipes/steps';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';
import { Order } from './order';
import { StepForm } from './step-form';

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
  const viewed = await orNotFound(
    call(viewSteps, { recipeId, hands, ...(wanted >= 1 && wanted <= 500 ? { servings: Math.floor(wanted) } : {}) }),
  );
  const { title, version, steps, schedules } = viewed;
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
          <Order recipeId={recipeId} viewed={viewed} schedule={schedule} hands={hands} />
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
