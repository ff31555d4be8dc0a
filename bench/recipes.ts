import { readdirSync, readFileSync } from 'node:fs';
import { type CourseDishes, dishesForCourse } from '@/core/recipes/choosing/course-dishes';
import { draftLine } from '@/core/recipes/reading/draft';
import { checkRecipe } from '@/core/recipes/slips/slips';
import { indexed, TYPICAL } from '@/core/reference/reference';
import { readRecipeFile } from '@/formats/recipes/recipe-json-ld';
import labelled from '../tests/lines/labelled.json';
import sound from '../tests/slips/sound.json';

/** The table that ships, grown to a thousand foods. */
const THOUSAND = indexed({
  ...TYPICAL,
  ingredients: Array.from({ length: 1000 }, (_, n) => {
    const [food] = TYPICAL.ingredients.slice(n % TYPICAL.ingredients.length);
    if (!food) throw new Error('The table is empty.');
    return n < TYPICAL.ingredients.length ? food : { ...food, name: `${food.name} number ${n}` };
  }),
});

/** A thousand lines as they come from anywhere, one in ten of them with a slip of the keyboard. */
const LINES = Array.from({ length: 1000 }, (_, n) => {
  const text = labelled[n % labelled.length]?.[0] ?? '';
  return n % 10 === 0 ? text.replace(/(\p{L})(\p{L})(\p{L}*)$/u, '$2$1$3') : text;
});

/** Reads and matches a thousand lines. */
export const readLines = () => () => LINES.map((text) => draftLine(text, THOUSAND).items.length);

/** All checks on one recipe of eight lines. */
export function checks(): () => unknown {
  const recipes = sound.map(({ title, servings, lines, steps }) => ({
    title,
    servings,
    steps,
    lines: lines.map((text) => draftLine(text, TYPICAL)),
  }));
  let n = 0;
  return () => checkRecipe(recipes[n++ % recipes.length] ?? { servings: 1, lines: [], steps: [] }, TYPICAL);
}

/** Dishes proposed for a course of ten sessions from three hundred recipes, for a roll of fourteen with its needs. */
export function proposals(): () => unknown {
  const folder = 'demo/recipes';
  const own = readdirSync(folder).flatMap((file) => {
    const reading = readRecipeFile(new Uint8Array(readFileSync(`${folder}/${file}`)), TYPICAL);
    return 'file' in reading ? [reading.file] : [];
  });
  const foods = TYPICAL.ingredients.map(({ name }) => name);
  // Each with foods of its own beside those of the demo, so that no two are alike.
  const recipes = Array.from({ length: 300 }, (_, n) => {
    const { title, body } = own[n % own.length] as (typeof own)[number];
    const more = [0, 1, 2].map((k) => ({
      ingredient: foods[(n * 7 + k * 31) % foods.length] ?? 'carrot',
      amount: '50',
      unit: 'g',
    }));
    return { id: `recipe ${n}`, title: `${title} ${n}`, ...body, lines: [...body.lines, ...more] };
  });
  const task: CourseDishes = {
    reference: TYPICAL,
    recipes,
    sessions: Array.from({ length: 10 }, (_, n) => ({
      id: `session ${n}`,
      date: `2027-02-${String(n + 1).padStart(2, '0')}`,
      mode: n % 4 === 3 ? 'take-home' : 'in person',
      minutes: 75 + 15 * (n % 3),
      participants: 14,
      equipment: { stations: 4, burners: 4, ovens: 1, knives: 14 },
      isFire: false,
      chosen: [],
    })),
    people: Array.from({ length: 14 }, (_, n) => ({
      servings: 1,
      needs:
        n % 4 === 0
          ? [{ asWritten: 'milk', codes: ['MILK'] }]
          : n % 5 === 0
            ? [{ asWritten: 'egg', codes: ['EGG'] }]
            : [],
    })),
    ages: [7, 8, 9],
    stock: ['carrot', 'rolled oats'],
    offers: ['apple'],
    products: [],
  };
  return () => dishesForCourse(task).proposals.length;
}
