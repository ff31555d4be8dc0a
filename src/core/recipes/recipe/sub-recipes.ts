import { parsePositiveAmount } from '../../quantity/amount';
import { multiply, rational, toText } from '../../quantity/rational';
import type { SettledStep } from '../steps/step-plan';
import type { WrittenItem, WrittenLine } from './recipe';

/** A recipe in another, as it was when it was taken in. Its lines and steps hold those of the recipes in it. */
export interface SubRecipe {
  readonly recipeId: string;
  readonly version: number;
  readonly title: string;
  /** Servings of it that the other needs. */
  readonly servings: number;
  /** Servings that it is written for. */
  readonly of: number;
  readonly lines: readonly WrittenLine[];
  readonly steps: readonly string[];
  readonly planned?: readonly SettledStep[] | undefined;
  /** Recipes in it, however deep. */
  readonly within: readonly { readonly recipeId: string; readonly title: string }[];
}

/** What is cooked of a recipe. */
export interface CookedRecipe {
  readonly servings: number;
  readonly lines: readonly WrittenLine[];
  readonly steps: readonly string[];
  readonly planned?: readonly SettledStep[] | undefined;
}

/**
 * A recipe with the recipes that it is made of: their lines behind its own, scaled to what it needs of them; their steps
 * before its own, each told whose it is. What kits, costs, allergens and times are computed from.
 */
export function wholeRecipe<R extends CookedRecipe & { readonly subRecipes?: readonly SubRecipe[] | undefined }>(
  recipe: R,
): R {
  const { servings, subRecipes = [] } = recipe;
  if (subRecipes.length === 0) return recipe;
  const planned = [...subRecipes.flatMap(plannedFor), ...(recipe.planned ?? [])];
  return {
    ...recipe,
    lines: [...recipe.lines, ...subRecipes.flatMap((sub) => sub.lines.map((line) => scaledLine(line, sub, servings)))],
    steps: [...subRecipes.flatMap((sub) => sub.steps.map((step) => stepFor(sub, step))), ...recipe.steps],
    ...(planned.length > 0 ? { planned } : {}),
  };
}

/** A step of a recipe in another, told whose it is: "Dough: knead". */
const stepFor = ({ title }: SubRecipe, step: string) => `${title}: ${step}`.slice(0, 2000);

const plannedFor = (sub: SubRecipe): SettledStep[] =>
  (sub.planned ?? []).map((plan) => ({
    ...plan,
    text: stepFor(sub, plan.text),
    after: plan.after.map((step) => stepFor(sub, step)),
  }));

function scaledLine(line: WrittenLine, sub: SubRecipe, servings: number): WrittenLine {
  const alternatives = line.alternatives?.map((each) =>
    'omit' in each
      ? each
      : {
          ...scaledItem(each, sub, servings),
          ...(each.also ? { also: each.also.map((item) => scaledItem(item, sub, servings)) } : {}),
        },
  );
  return { ...scaledItem(line, sub, servings), ...(alternatives ? { alternatives } : {}) };
}

/** An amount of the inner recipe for as much of it as the outer needs; what is the same in every kit stays. */
function scaledItem<T extends WrittenItem>(item: T, { servings: needed, of }: SubRecipe, servings: number): T {
  if (item.scaling === 'per kit') return item;
  const factor = rational(needed, of);
  const times = (amount: string) => toText(multiply(parsePositiveAmount(amount), factor));
  if (item.scaling === 'per batch' && item.batch_servings !== undefined) {
    // A batch feeds so many of the outer servings: fewer whole ones than not enough.
    return { ...item, batch_servings: Math.max(1, Math.floor((item.batch_servings * servings) / needed)) };
  }
  return {
    ...item,
    amount: times(item.amount),
    ...(item.range ? { range: { least: times(item.range.least), most: times(item.range.most) } } : {}),
  };
}

/**
 * Why a recipe cannot be made of another: it is in it already, or is it itself. Undefined when it can.
 *
 * @param recipe the outer one; undefined while it is not saved, when nothing can hold it
 */
export function circleOf(
  recipe: { readonly id: string; readonly title: string } | undefined,
  sub: Pick<SubRecipe, 'recipeId' | 'title' | 'within'>,
): string | undefined {
  if (!recipe) return undefined;
  if (sub.recipeId === recipe.id) return `${recipe.title} cannot be made of itself.`;
  if (sub.within.some(({ recipeId }) => recipeId === recipe.id))
    return `${sub.title} is itself made of ${recipe.title}: a circle. Take one of the two out of the other first.`;
  return undefined;
}
