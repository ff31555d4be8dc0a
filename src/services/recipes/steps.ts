import { z } from 'zod';
import { settledStep } from '@/contracts/recipe';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { inBatches } from '@/core/recipes/steps/step-plan';
import { circleIn, type StepSchedule, scheduleSteps } from '@/core/recipes/steps/step-schedule';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { stepsOf, stepsWithCutting } from '../sheet/steps-of';
import { loadRecipe, saveVersion } from './saved';

/** So many pairs of hands at one dish are looked at side by side. */
const MOST_HANDS = 4;

export const viewSteps = service({
  title: 'See the steps of a recipe, their order and the shortest time',
  roles: ['coordinator', 'instructor'],
  input: z.object({
    recipeId: z.uuid(),
    hands: z.coerce.number().int().min(1).max(20).default(1),
    /** Made at one place to cook; as written where left out. */
    servings: z.coerce.number().int().min(1).max(500).optional(),
  }),
  run: async (context, { recipeId, hands, servings: wanted }) => {
    const recipe = await loadRecipe(context, context.store.db, recipeId);
    const { reference } = (await loadProgramme(context)).programme;
    const steps = stepsWithCutting(recipe, reference, () => true, 'last');
    const { id, title, version, body } = recipe;
    const servings = wanted ?? body.servings;
    const timed = inBatches(steps, servings);
    const counts = [...new Set([...Array.from({ length: MOST_HANDS }, (_, n) => n + 1), hands])];
    const schedules = counts.map((cooks): StepSchedule & { cooks: number } => ({
      cooks,
      ...scheduleSteps(timed, { cooks }),
    }));
    const own = new Set(body.steps);
    const shown = steps.map((step) => ({ ...step, isOwn: own.has(step.text) }));
    return { id, title, version, steps: shown, hands, servings, schedules };
  },
});

export const settleStep = service({
  title: 'Settle how a step is planned, or read it from its words again',
  roles: ['coordinator'],
  input: z.object({
    recipeId: z.uuid(),
    version: z.coerce.number().int(),
    step: z.coerce.number().int().min(0),
    /** Left out, the step is read from its words again. */
    plan: settledStep
      .omit({ text: true, after: true })
      .extend({ after: z.array(z.coerce.number().int().min(0)) })
      .optional(),
  }),
  run: async (context, { recipeId, version, step, plan }) => {
    const { reference } = (await loadProgramme(context)).programme;
    return context.store.transaction(async (db) => {
      const recipe = await loadRecipe(context, db, recipeId);
      const { planned = [] } = recipe.body;
      const { steps } = wholeRecipe(recipe.body);
      const text = steps[step];
      if (text === undefined || plan?.after.some((at) => steps[at] === undefined))
        throw new ServiceError(
          'stale',
          'The steps were changed by someone else while you were editing. Look at them again.',
        );
      if (!recipe.body.steps.includes(text))
        throw new ServiceError('invalid', 'This step belongs to another recipe: settle it there.');
      const others = planned.filter((each) => each.text !== text);
      const settled = plan ? [{ ...plan, text, after: plan.after.flatMap((at) => steps[at] ?? []) }] : [];
      const body = { ...recipe.body, planned: [...others, ...settled] };
      const circle = circleIn(stepsOf({ body }, reference));
      if (circle)
        throw new ServiceError('invalid', 'Steps would wait for each other for ever. Nothing was saved.', [
          {
            where: 'After',
            message: `Steps ${circle.map((at) => at + 1).join(', ')} wait for each other: take one of them out.`,
          },
        ]);
      await saveVersion(context, db, { id: recipeId, version, title: recipe.title, body });
      await logChange(context, db, 'settled a step', 'recipe', recipeId, { step: step + 1 });
    });
  },
});
