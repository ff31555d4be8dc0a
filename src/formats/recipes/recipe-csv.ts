import Papa from 'papaparse';
import { lineDetails, type RecipeBody } from '@/contracts/recipe';
import { alternativesAsWritten, DETAILS, detailsOf, type LineDetails } from '@/core/recipes/reading/line-details';
import { writeCsv } from '../csv';
import type { IncomingLine, IncomingRecipe } from './incoming-recipe';

type Column =
  | 'recipe'
  | 'servings'
  | 'line'
  | 'amount'
  | 'unit'
  | 'food'
  | 'preparation'
  | 'step'
  | 'instead'
  | keyof LineDetails;

/** How a detail's column is called: "pack grams". */
const headingOfDetail = (name: string) => name.replaceAll('_', ' ');

/** Headings understood, in lower case, and what they mean. */
const HEADINGS: ReadonlyMap<string, Column> = new Map<string, Column>([
  ...(['recipe', 'title', 'name', 'dish'] as const).map((word) => [word, 'recipe'] as const),
  ...(['servings', 'serves', 'yield'] as const).map((word) => [word, 'servings'] as const),
  ...(['line', 'ingredients', 'ingredient line'] as const).map((word) => [word, 'line'] as const),
  ...(['amount', 'quantity', 'qty'] as const).map((word) => [word, 'amount'] as const),
  ...(['unit', 'measure'] as const).map((word) => [word, 'unit'] as const),
  ...(['ingredient', 'food', 'item'] as const).map((word) => [word, 'food'] as const),
  ...(['preparation', 'prep'] as const).map((word) => [word, 'preparation'] as const),
  ...(['step', 'steps', 'method', 'instruction', 'instructions'] as const).map((word) => [word, 'step'] as const),
  ...DETAILS.map((name) => [headingOfDetail(name), name] as const),
  ['replaced by', 'instead'],
]);

/** What parts alternatives in a cell. */
const BETWEEN = ' | ';

/** Whether a text begins as a recipe table does: a header row that names ingredients. */
export function isRecipeCsv(text: string): boolean {
  const [first = ''] = text.split(/\r?\n/, 1);
  const heads = first.split(/[,;\t]/).map(headingOf);
  return heads.length > 1 && (heads.includes('line') || heads.includes('food'));
}

const headingOf = (cell: string) => HEADINGS.get(cell.replace(/^[\uFEFF"'\s]+|["'\s]+$/g, '').toLowerCase());

/**
 * Reads recipes from a table: a header row, then a row for each ingredient or step; what recipe a row belongs to is said in
 * its first row, or in each. An ingredient is one cell (`line`), or is told in amount, unit, ingredient and preparation.
 */
export function readRecipeCsv(text: string): IncomingRecipe[] {
  const { data } = Papa.parse<string[]>(text, {
    delimiter: '',
    delimitersToGuess: [',', ';', '\t'],
    skipEmptyLines: 'greedy',
  });
  const heads = (data[0] ?? []).map(headingOf);
  interface Recipe {
    title: string;
    servings: number | undefined;
    lines: IncomingLine[];
    steps: string[];
  }
  const recipes: Recipe[] = [];
  const byTitle = new Map<string, Recipe>();
  for (const row of data.slice(1)) {
    const cell = (name: Column) => unescaped(row[heads.indexOf(name)] ?? '');
    const title = cell('recipe').slice(0, 120);
    let recipe = title ? byTitle.get(title) : recipes.at(-1);
    if (!recipe) {
      recipe = { title, servings: undefined, lines: [], steps: [] };
      recipes.push(recipe);
      if (title) byTitle.set(title, recipe);
    }
    const servings = Number(/^\d{1,3}/.exec(cell('servings'))?.[0]);
    if (servings >= 1 && servings <= 500) recipe.servings ??= servings;
    const words = [cell('amount'), cell('unit'), cell('food')].filter(Boolean).join(' ');
    const line = cell('line') || (cell('food') && (cell('preparation') ? `${words}, ${cell('preparation')}` : words));
    if (line) {
      const details = Object.fromEntries(DETAILS.flatMap((name) => (cell(name) ? [[name, cell(name)]] : [])));
      const alternatives = cell('instead')
        .split(BETWEEN.trim())
        .flatMap((text) => (text.trim() ? [{ text: text.trim() }] : []));
      const given = lineDetails.safeParse(
        details.batch_servings ? { ...details, batch_servings: Number(details.batch_servings) } : details,
      );
      recipe.lines.push({
        text: line,
        section: '',
        // What is none of ours is left to be said on the screen.
        ...(given.success && Object.keys(details).length > 0 ? { details: given.data as LineDetails } : {}),
        ...(alternatives.length > 0 ? { alternatives } : {}),
      });
    }
    if (cell('step')) recipe.steps.push(cell('step').slice(0, 2000));
  }
  return recipes.map((recipe) => ({ ...recipe, description: '', steps: recipe.steps.slice(0, 100) }));
}

/** An apostrophe that kept a spreadsheet from running a cell is no part of it. */
const unescaped = (cell: string) => cell.trim().replace(/^'(?=\s*[=+\-@])/, '');

/** A recipe as a table: a row for each ingredient, then one for each step. `readRecipeCsv` reads it back. */
export function writeRecipeCsv(title: string, body: RecipeBody): string {
  const none = DETAILS.map(() => '');
  return writeCsv([
    [
      'recipe',
      'servings',
      'amount',
      'unit',
      'ingredient',
      'preparation',
      'step',
      ...DETAILS.map(headingOfDetail),
      'replaced by',
    ],
    ...body.lines.map((line) => {
      const details = detailsOf(line);
      return [
        title,
        body.servings,
        line.amount,
        line.unit,
        line.ingredient,
        line.preparation ?? '',
        '',
        ...DETAILS.map((name) => String(details[name] ?? '')),
        alternativesAsWritten(line)
          .map(({ text }) => text)
          .join(BETWEEN),
      ];
    }),
    ...body.steps.map((step) => [title, body.servings, '', '', '', '', step, ...none, '']),
  ]);
}
