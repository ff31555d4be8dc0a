import { TYPICAL } from '@/core/reference/reference';
import { judge, judgeNames, type Labelled, sayFigures } from '../tests/lines/judge';
import names from '../tests/lines/names.json';
import { judgeRecipes, type LabelledRecipe, sayRecipes } from '../tests/lines/recipe-judge';
import recipes from '../tests/lines/recipes.json';
import lines from '../tests/lines/three.json';
import { judgeStep, type LabelledStep } from '../tests/steps/judge';
import steps from '../tests/steps/labelled.json';

const eachOf = <Set>(sets: unknown, say: (name: string, set: readonly Set[]) => string): string[] =>
  Object.entries(sets as Record<string, readonly Set[]>).map(([name, set]) => say(name, set));

const sayNames = () => {
  const { read, asked, first, wrong } = judgeNames(names, TYPICAL);
  return `  ${names.nearly.length} names nearly written: read ${read}, asked ${asked}, of them the right one first ${first}; with ${names.others.length} names of other foods, wrong ${wrong.length}`;
};

/**
 * How right the readers are on what was written down before them: a part to work on, one to choose by, and one that was
 * looked at once (then: lines 113 of 126 right, slips 14 of 15, facts of steps 301 of 312).
 */
export const accuracy = (): string[] => [
  'Ingredient lines, recipes and steps, read against what people wrote down for them',
  ...eachOf<Labelled>(
    lines,
    (name, set) =>
      `  ${sayFigures(
        name,
        set.map((line) => judge(line, TYPICAL)),
      )}`,
  ),
  sayNames(),
  ...eachOf<LabelledRecipe>(recipes, (name, set) => `  ${sayRecipes(name, judgeRecipes(set, TYPICAL))}`),
  ...eachOf<LabelledStep>(steps, (name, set) => {
    const judged = set.map((step) => judgeStep(step, TYPICAL));
    const wrong = judged.reduce((sum, each) => sum + each.wrong.length, 0);
    const all = judged.reduce((sum, each) => sum + each.facts, 0);
    return `  ${name}, ${set.length} steps: ${all - wrong} of ${all} facts right, too young for ${judged.filter(({ isTooYoung }) => isTooYoung).length}`;
  }),
];
