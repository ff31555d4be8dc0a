// Whole recipes as people write them: how they are split, what is asked about, which slips are smelt.
import { draftLine } from '@/core/recipes/reading/draft';
import { splitRecipeText } from '@/core/recipes/reading/recipe-text';
import { checkRecipe } from '@/core/recipes/slips/slips';
import type { Reference } from '@/core/reference/reference';

/** A recipe with what it holds, and slips that can be put into it. */
export interface LabelledRecipe {
  readonly text: string;
  readonly serves: number;
  readonly lines: number;
  /** What is written in place of what, and which kind of slip that is. */
  readonly slips: readonly (readonly [from: string, to: string, kind: string])[];
}

function read(text: string, reference: Reference) {
  const { title, servings, lines, steps } = splitRecipeText(text);
  const drafts = lines.map((line) => draftLine(line.text, reference));
  return { servings, drafts, slips: checkRecipe({ title, servings, lines: drafts, steps }, reference) };
}

/** Judges a set of recipes. */
export function judgeRecipes(recipes: readonly LabelledRecipe[], reference: Reference) {
  const readings = recipes.map((recipe) => ({ recipe, ...read(recipe.text, reference) }));
  const drafts = readings.flatMap((reading) => reading.drafts);
  const seeds = readings.flatMap(({ recipe, slips }) => {
    const known = new Set(slips.map(({ key }) => key));
    return recipe.slips.map(([from, to]) =>
      read(recipe.text.replace(from, to), reference).slips.some(({ key }) => !known.has(key)),
    );
  });
  return {
    recipes: recipes.length,
    lines: drafts.length,
    asked: drafts.filter(({ items }) => items.some(({ line }) => !line)).length,
    shaped: readings.filter((each) => each.servings === each.recipe.serves && each.drafts.length === each.recipe.lines)
      .length,
    seeds: seeds.length,
    found: seeds.filter(Boolean).length,
    alarms: readings.filter(({ slips }) => slips.length > 0).length,
  };
}

/** The figures of a set, as one reads them. */
export const sayRecipes = (
  name: string,
  { recipes, lines, asked, shaped, seeds, found, alarms }: ReturnType<typeof judgeRecipes>,
): string =>
  `${name}, ${recipes} recipes: servings and lines right ${shaped} · ${asked} questions in ${lines} lines · slips ${found} of ${seeds} · false alarms ${alarms}`;
