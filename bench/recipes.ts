import { draftLine } from '@/core/recipes/draft';
import { checkRecipe } from '@/core/recipes/slips';
import { type Reference, TYPICAL } from '@/core/reference/reference';
import labelled from '../tests/lines/labelled.json';
import sound from '../tests/slips/sound.json';

/** The table that ships, grown to a thousand foods. */
const THOUSAND: Reference = {
  ...TYPICAL,
  ingredients: Array.from({ length: 1000 }, (_, n) => {
    const [food] = TYPICAL.ingredients.slice(n % TYPICAL.ingredients.length);
    if (!food) throw new Error('The table is empty.');
    return n < TYPICAL.ingredients.length ? food : { ...food, name: `${food.name} number ${n}` };
  }),
};

/** A thousand lines as they come from anywhere, one in ten of them with a slip of the keyboard. */
const LINES = Array.from({ length: 1000 }, (_, n) => {
  const text = labelled[n % labelled.length]?.[0] ?? '';
  return n % 10 === 0 ? text.replace(/(\p{L})(\p{L})(\p{L}*)$/u, '$2$1$3') : text;
});

/** Reads and matches a thousand lines. */
export const readLines = () => () => LINES.map((text) => draftLine(text, THOUSAND).items.length);

/** All checks on one recipe of eight lines. */
export function checks(): () => unknown {
  const recipes = sound.map(({ servings, lines, steps }) => ({
    servings,
    steps,
    lines: lines.map((text) => draftLine(text, TYPICAL)),
  }));
  let n = 0;
  return () => checkRecipe(recipes[n++ % recipes.length] ?? { servings: 1, lines: [], steps: [] }, TYPICAL);
}
