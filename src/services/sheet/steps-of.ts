import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { type CutLine, cuttingSteps, putLast, waitForCutting } from '@/core/recipes/steps/cutting';
import type { PlannedStep } from '@/core/recipes/steps/step-plan';
import { planSteps } from '@/core/recipes/steps/step-reader';
import type { Reference } from '@/core/reference/reference';
import type { RecipeRow } from '@/store/tables/recipes';

const plannedOf = ({ body }: Pick<RecipeRow, 'body'>, reference: Reference, cutting: readonly string[]) => {
  const { steps, lines, planned } = wholeRecipe(body);
  const ingredients = [...new Set(lines.map(({ ingredient }) => ingredient))];
  return planSteps({ steps: [...cutting, ...steps], ingredients, ...(planned ? { settled: planned } : {}) }, reference);
};

/** The steps of a recipe as they can be planned. */
export const stepsOf = (recipe: Pick<RecipeRow, 'body'>, reference: Reference): PlannedStep[] =>
  plannedOf(recipe, reference, []);

/**
 * The steps of a recipe with the cutting that its lines ask for and no step does.
 *
 * @param isCutHere whether the food of a line comes whole to where it is cooked
 * @param where the cutting stands: first as it is done, or last so that the recipe's own steps keep their numbers
 */
export function stepsWithCutting(
  recipe: Pick<RecipeRow, 'body'>,
  reference: Reference,
  isCutHere: (line: CutLine) => boolean,
  where: 'first' | 'last',
): PlannedStep[] {
  const { steps, lines } = wholeRecipe(recipe.body);
  const cutting = cuttingSteps(lines, steps, isCutHere);
  const planned = waitForCutting(plannedOf(recipe, reference, cutting), cutting.length);
  return where === 'first' ? planned : putLast(planned, cutting.length);
}
