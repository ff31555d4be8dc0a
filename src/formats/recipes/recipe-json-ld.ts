import { decodeHTML } from 'entities';
import { z } from 'zod';
import { type RecipeBody, settledStep, writtenLine } from '@/contracts/recipe';
import { draftLine } from '@/core/recipes/reading/draft';
import { labelsOf } from '@/core/recipes/reading/line-details';
import { withBatches } from '@/core/recipes/reading/usual-details';
import { type RecipeProblem, readRecipe, type WrittenLine } from '@/core/recipes/recipe/recipe';
import type { Reference } from '@/core/reference/reference';
import { decodeText, FileRefused } from '../text';
import type { IncomingLine, IncomingRecipe } from './incoming-recipe';

/** The namespace of our one extension of schema.org/Recipe; documented in docs/formats.md. */
export const NAMESPACE = 'https://logistra.example/terms#';
const LINES = 'logistra:lines';
const PLAN = 'logistra:plan';
const ESTIMATED = 'logistra:estimated';

/** A recipe file as it was understood. */
export interface RecipeFile {
  readonly title: string;
  readonly body: RecipeBody;
  /** What had to be taken for granted, said before saving. */
  readonly assumed: readonly string[];
}

/**
 * Reads a schema.org Recipe from JSON-LD: alone, in a list, or in an @graph.
 *
 * @returns the recipe, or every problem with its place in the file
 * @throws FileRefused when the file as a whole cannot be used
 */
export function readRecipeFile(
  bytes: Uint8Array,
  reference: Reference,
): { file: RecipeFile } | { problems: RecipeProblem[] } {
  const node = findRecipe(parseJson(decodeText(bytes).text));
  const problems: RecipeProblem[] = [];
  const title = textOf(node.name).slice(0, 120);
  if (!title) problems.push({ path: 'name', message: 'The recipe has no name.' });
  const servings = servingsOf(node.recipeYield);
  if (servings === undefined) {
    problems.push({
      path: 'recipeYield',
      message: 'Say how many servings the recipe makes, for example "4 servings" (1 to 500).',
    });
  }
  const assumed: string[] = [];
  const lines = withBatches(linesOf(node, reference, problems, assumed), servings ?? 1);
  if (problems.length === 0) {
    const reading = readRecipe({ servings: servings ?? 1, lines }, reference);
    const place = (node[LINES] ?? node[`${NAMESPACE}lines`]) ? LINES : 'recipeIngredient';
    if ('problems' in reading) {
      problems.push(...reading.problems.map(({ path, message }) => ({ path: path.replace(/^lines/, place), message })));
    }
  }
  if (problems.length > 0) return { problems };
  const description = textOf(node.description).slice(0, 2000);
  return {
    file: {
      title,
      body: {
        servings: servings as number,
        lines,
        steps: stepsOf(node.recipeInstructions),
        ...plansOf(node),
        ...(description ? { description } : {}),
      },
      assumed,
    },
  };
}

/**
 * Reads every schema.org Recipe of a file without judging its lines: they are shown, and settled by a person. Lines that
 * the extension states completely are settled already.
 *
 * @throws FileRefused when there is no Recipe in it
 */
export const readRecipeNodes = (text: string, reference: Reference): IncomingRecipe[] =>
  findRecipes(parseJson(text)).map((node) => readRecipeNode(node, reference));

/** The same of recipes that are values already, as a page's elements have them. */
export const readRecipeValues = (values: readonly unknown[], reference: Reference): IncomingRecipe[] =>
  recipesIn(values).map((node) => readRecipeNode(node, reference));

function readRecipeNode(node: Node, reference: Reference): IncomingRecipe {
  const extras = [node[LINES] ?? node[`${NAMESPACE}lines`] ?? []].flat();
  const written = node.recipeIngredient ?? node.ingredients ?? [];
  const texts = extras.length > 0 ? [written].flat() : lineTextsOf(written);
  const count = Math.max(texts.length, extras.length);
  const lines = Array.from({ length: count }, (_, index): IncomingLine => {
    const written = writtenLine.safeParse(extras[index]);
    const settled =
      written.success && 'recipe' in readRecipe({ servings: 1, lines: [written.data] }, reference)
        ? written.data
        : undefined;
    const said = textOf(texts[index]) || (settled ? sayLine(settled) : '');
    const labelIsOpen = settled !== undefined && labelsOf(settled).length > 0;
    return { text: said, section: '', ...(settled ? { settled } : {}), ...(labelIsOpen ? { labelIsOpen } : {}) };
  });
  return {
    title: textOf(node.name).slice(0, 120),
    servings: servingsOf(node.recipeYield),
    description: [textOf(node.description), timesOf(node)].filter(Boolean).join(' ').slice(0, 2000),
    lines: lines.filter((line) => line.text !== ''),
    steps: stepsOf(node.recipeInstructions),
    ...plansOf(node),
  };
}

type Node = Readonly<Record<string, unknown>>;

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new FileRefused(
      `This is not JSON: ${(error as Error).message}. Choose a .json or .jsonld file with a schema.org Recipe.`,
    );
  }
}

function findRecipe(value: unknown): Node {
  const [only, ...others] = findRecipes(value) as [Node, ...Node[]];
  if (others.length > 0) throw new FileRefused(`The file holds ${others.length + 1} recipes. Bring them one by one.`);
  return only;
}

/** Recipes stand so deep in a page's data at most: in a graph, in a list, as what the page is about. */
const DEEPEST = 8;

const isRecipe = (node: Node): boolean =>
  [node['@type']].flat().some((type) => /^(https?:\/\/schema\.org\/|schema:)?Recipe$/.test(String(type)));

/** Every recipe in a value, wherever it stands: not what stands inside a recipe. */
function recipesIn(value: unknown, depth = 0): Node[] {
  if (depth > DEEPEST) return [];
  if (Array.isArray(value)) return value.flatMap((each) => recipesIn(each, depth + 1));
  if (!isNode(value)) return [];
  return isRecipe(value)
    ? [value]
    : Object.values(value).flatMap((each) => (typeof each === 'object' ? recipesIn(each, depth + 1) : []));
}

function findRecipes(value: unknown): Node[] {
  const recipes = recipesIn(value);
  if (recipes.length === 0)
    throw new FileRefused('No schema.org Recipe is in this file: its "@type" must be "Recipe".');
  return recipes;
}

const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null && !Array.isArray(value);

/** What stands there as one reads it: without tags, and with its letters in place of their entities, however often they were written so. */
function textOf(value: unknown): string {
  if (typeof value === 'number') return String(value);
  // Of several names, the first that is one.
  if (Array.isArray(value)) return value.map(textOf).find((text) => text !== '') ?? '';
  if (typeof value === 'string') {
    const once = decodeHTML(value);
    const text = /&(?:#\d+|#x[\da-f]+|[a-z]+\d*);/i.test(once) ? decodeHTML(once) : once;
    return text
      .replace(/<(?:br|\/p|\/li|\/div)[^>]{0,200}>/gi, '\n')
      .replace(/<\/?[a-z][^>]{0,2000}>/gi, ' ')
      .replace(/[ \t\u00a0]+/g, ' ')
      .trim();
  }
  if (!isNode(value)) return '';
  const amount = textOf(value.requiredQuantity) || textOf(value.amount) || textOf(value.quantity);
  const unit = textOf(value.unitText) || textOf(value.unit);
  const named =
    textOf(value.text) ||
    textOf(value.name) ||
    textOf(value['@value']) ||
    (amount === '' && unit === '' ? textOf(value.value) : textOf(value.ingredient));
  return [amount, unit, named].filter(Boolean).join(' ');
}

/** An ingredient as a line: an oddity is shown as it stands, and never lost. */
const lineTextsOf = (value: unknown): string[] =>
  [value].flat(3).flatMap((entry) => {
    const text = textOf(entry);
    if (text !== '')
      return text
        .split(/\n+/)
        .map((line) => line.trim())
        .filter(Boolean);
    return entry === null || entry === undefined || (typeof entry === 'string' && entry.trim() === '')
      ? []
      : [JSON.stringify(entry).slice(0, 120)];
  });

/** How many it serves; undefined where nothing says it, or two things say two numbers ("24 buns", "8 servings"): then it is asked. */
function servingsOf(value: unknown): number | undefined {
  const numbers = new Set(
    [value].flat().flatMap((entry) => {
      const text = isNode(entry) ? String(entry.value ?? '') : String(entry ?? '');
      const found = /\d+/.exec(text)?.[0];
      const number = Number(found);
      return found && number >= 1 && number <= 500 && !/\d[.,/]\d|-\s*\d/.test(text) ? [number] : [];
    }),
  );
  return numbers.size === 1 ? [...numbers][0] : undefined;
}

/** "Preparation 20 minutes, cooking 1 hour 10 minutes.", of ISO 8601 durations. */
function timesOf(node: Node): string {
  const said = (['prepTime', 'cookTime', 'totalTime'] as const).flatMap((key) => {
    const [, hours, minutes] = /^P(?:0?D)?T(?:(\d{1,3})H)?(?:(\d{1,4})M)?/.exec(textOf(node[key])) ?? [];
    const parts = [
      Number(hours ?? 0) > 0 ? `${Number(hours)} ${Number(hours) === 1 ? 'hour' : 'hours'}` : '',
      Number(minutes ?? 0) > 0 ? `${Number(minutes)} minutes` : '',
    ].filter(Boolean);
    return parts.length > 0
      ? [`${{ prepTime: 'preparation', cookTime: 'cooking', totalTime: 'in all' }[key]} ${parts.join(' ')}`]
      : [];
  });
  const text = said.join(', ');
  return text === '' ? '' : `${text[0]?.toUpperCase()}${text.slice(1)}.`;
}

function stepsOf(value: unknown): string[] {
  if (typeof value === 'string')
    return textOf(value)
      .split(/\n+/)
      .map((step) => step.trim())
      .filter(Boolean)
      .slice(0, 100);
  return [value]
    .flat(5)
    .flatMap((step): string[] => {
      if (typeof step === 'string') return textOf(step).split(/\n+/);
      if (!isNode(step)) return [];
      return typeof step.itemListElement === 'object' && step.itemListElement !== null
        ? stepsOf(step.itemListElement)
        : (textOf(step.text) || textOf(step.description) || textOf(step.name)).split(/\n+/);
    })
    .filter(Boolean)
    .map((step) => step.slice(0, 2000))
    .slice(0, 100);
}

/** What our extension says of steps and servings; a plan that cannot be used is left to be read from the words. */
function plansOf(node: Node): Pick<RecipeBody, 'planned' | 'estimated'> {
  const planned = [node.recipeInstructions].flat().flatMap((step) => {
    const plan =
      isNode(step) && isNode(step[PLAN])
        ? settledStep.safeParse({ ...step[PLAN], text: textOf(step.text) })
        : undefined;
    return plan?.success ? [plan.data] : [];
  });
  return {
    ...(planned.length > 0 ? { planned } : {}),
    ...(node[ESTIMATED] === true ? { estimated: true } : {}),
  };
}

/** What the extension may say of a line: everything, or only what the written text does not. */
const extensionLine = z.union([z.null(), z.record(z.string(), z.unknown())]);

function linesOf(node: Node, reference: Reference, problems: RecipeProblem[], assumed: string[]): WrittenLine[] {
  const texts = node.recipeIngredient === undefined ? undefined : [node.recipeIngredient].flat();
  const extension = node[LINES] ?? node[`${NAMESPACE}lines`];
  const extras = extension === undefined ? undefined : [extension].flat();
  if (!texts?.length && !extras?.length) {
    problems.push({ path: 'recipeIngredient', message: 'The recipe lists no ingredients.' });
    return [];
  }
  const count = Math.max(texts?.length ?? 0, extras?.length ?? 0);
  if (count > 200) {
    problems.push({ path: 'recipeIngredient', message: `${count} lines are more than a recipe holds (200).` });
    return [];
  }
  if (texts && extras && texts.length !== extras.length) {
    problems.push({
      path: LINES,
      message: `${LINES} has ${extras.length} entries and recipeIngredient ${texts.length}. Give one entry for each line, null where there is nothing to add.`,
    });
    return [];
  }
  return Array.from({ length: count }, (_, index) =>
    linesAt(index, texts?.[index], extras?.[index], reference, problems, assumed),
  ).flat();
}

/** The lines of one entry: what the extension states stands, the rest is read from the text. */
function linesAt(
  index: number,
  text: unknown,
  extra: unknown,
  reference: Reference,
  problems: RecipeProblem[],
  assumed: string[],
): WrittenLine[] {
  const own = extensionLine.safeParse(extra ?? null);
  if (!own.success) {
    problems.push({ path: `${LINES}[${index}]`, message: 'An entry is an object, or null.' });
    return [];
  }
  const stated = own.data ?? {};
  let read: readonly Partial<WrittenLine>[] = [{}];
  if (!('ingredient' in stated && 'amount' in stated && 'unit' in stated)) {
    const { items } = draftLine(textOf(text), reference);
    for (const { open } of items)
      problems.push(...open.map((message) => ({ path: `recipeIngredient[${index}]`, message })));
    assumed.push(...items.flatMap((item) => item.assumed.map((note) => `Line ${index + 1}: ${note}.`)));
    read = items.flatMap(({ line }) => line ?? []);
  }
  return read.flatMap((line): WrittenLine[] => {
    const checked = writtenLine.safeParse({ ...line, ...stated });
    if (checked.success) return [checked.data];
    for (const issue of checked.error.issues)
      problems.push({ path: [`${LINES}[${index}]`, ...issue.path].join('.'), message: issue.message });
    return [];
  });
}

const sayLine = ({ amount, unit, ingredient, preparation }: WrittenLine): string =>
  `${amount} ${unit} ${ingredient}${preparation ? `, ${preparation}` : ''}`;

/** A recipe as a schema.org Recipe with our extension; `readRecipeFile` reads it back unchanged. */
export function writeRecipeFile(title: string, body: RecipeBody): string {
  return JSON.stringify(
    {
      '@context': ['https://schema.org', { logistra: NAMESPACE }],
      '@type': 'Recipe',
      name: title,
      ...(body.description ? { description: body.description } : {}),
      recipeYield: `${body.servings} servings`,
      recipeIngredient: body.lines.map(sayLine),
      recipeInstructions: body.steps.map((text) => {
        const { text: _, ...plan } = body.planned?.find((each) => each.text === text) ?? { text };
        return { '@type': 'HowToStep', text, ...(Object.keys(plan).length > 0 ? { [PLAN]: plan } : {}) };
      }),
      ...(body.estimated ? { [ESTIMATED]: true } : {}),
      [LINES]: body.lines,
    },
    null,
    2,
  );
}
