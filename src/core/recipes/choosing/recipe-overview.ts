import type { Reference } from '../../reference/reference';
import { inSeason } from '../../reference/season';
import { AVOIDANCES, withImplied } from '../../safety/avoidances';
import { type Product, servingFigures } from '../recipe/cost';
import { packedLines, readRecipe } from '../recipe/recipe';
import { planSteps } from '../steps/step-reader';
import type { DishRecipe } from './course-dishes';

/** What a list of recipes tells of each, to find one by. */
export interface RecipeOverview {
  /** Hands' minutes, and those that go on alone. */
  readonly handsOn: number;
  readonly handsOff: number;
  /** "hob", "oven"; none where nothing is heated. */
  readonly heat: readonly string[];
  /** Allergens that it holds or may hold, in words. */
  readonly holds: readonly string[];
  /** Its foods, by name. */
  readonly foods: readonly string[];
  /** Fresh foods that are out of season in the month; none where it can be cooked then. */
  readonly outOfSeason: readonly string[];
  /** What a serving costs in hundredths, where each of its foods has a price. */
  readonly cost: number | null;
}

/**
 * What is to be known of a recipe in a list of many.
 *
 * @param month 1 to 12
 * @returns undefined where it cannot be computed with
 */
export function recipeOverview(
  { servings, lines, steps, planned }: DishRecipe,
  reference: Reference,
  products: readonly Product[],
  month: number,
): RecipeOverview | undefined {
  const reading = readRecipe({ servings, lines: packedLines(lines, reference) }, reference);
  if ('problems' in reading) return undefined;
  const items = reading.recipe.lines.map(({ written }) => written);
  const foods = [...new Set(items.map(({ ingredient }) => ingredient.name))];
  const plans = planSteps({ steps, ingredients: foods, ...(planned ? { settled: planned } : {}) }, reference);
  const codes = withImplied(items.flatMap(({ holdings }) => [...holdings.contains, ...holdings.mayContain]));
  const { cost } = servingFigures(reading.recipe, products);
  const sum = (of: 'handsOn' | 'handsOff') => plans.reduce((all, step) => all + step[of], 0);
  return {
    handsOn: sum('handsOn'),
    handsOff: sum('handsOff'),
    heat: [...new Set(plans.map(({ heat }) => heat as string))].filter((heat) => heat !== 'none').sort(),
    holds: AVOIDANCES.filter(({ kind, code }) => kind === 'allergen' && codes.has(code)).map(({ label }) => label),
    foods,
    outOfSeason: foods.filter((food) => inSeason(food, month) === false),
    cost: cost.known === cost.of && cost.of > 0 ? Math.round(cost.perServing) : null,
  };
}
