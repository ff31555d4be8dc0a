import Link from 'next/link';
import type { viewSteps } from '@/services/recipes/steps';
import { Field } from '@/ui/form/field';
import { StepBoard } from '@/ui/recipes/step-board';

type Viewed = Awaited<ReturnType<typeof viewSteps>>;

interface Props {
  readonly recipeId: string;
  readonly viewed: Viewed;
  readonly schedule: Viewed['schedules'][number];
  readonly hands: number;
}

/** In which order the steps are done by so many hands, and how long that takes. */
export function Order({ recipeId, viewed: { steps, schedules, servings }, schedule, hands }: Props) {
  const turns = steps.filter(({ batchServings }) => batchServings !== null && batchServings < servings);
  return (
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
        <Field label="Made for, servings" name="servings" type="number" min={1} max={500} defaultValue={servings} />
        <button type="submit" className="btn">
          Show
        </button>
      </form>
      <StepBoard steps={steps} schedule={schedule} />
    </section>
  );
}
