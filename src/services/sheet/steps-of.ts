import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { planSteps } from '@/core/recipes/steps/step-reader';
import type { Reference } from '@/core/reference/reference';
import type { RecipeRow } from '@/store/tables/recipes';

/** The steps of a recipe as they can be planned. */
export const stepsOf = ({ body }: Pick<RecipeRow, 'body'>, reference: Reference) => {
  const { steps, lines, planned } = wholeRecipe(body);
  const ingredients = [...new Set(lines.map(({ ingredient }) => ingredient))];
  return planSteps({ steps, ingredients, ...(planned ? { settled: planned } : {}) }, reference);
};
