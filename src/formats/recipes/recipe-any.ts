import {
  type DraftItem,
  type DraftLine,
  draftLine,
  type RangeUse,
  sayLine,
  withDetails,
} from '@/core/recipes/reading/draft';
import { labelsOf } from '@/core/recipes/reading/line-details';
import { servingsIn, splitRecipeText } from '@/core/recipes/reading/recipe-text';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import type { Reference } from '@/core/reference/reference';
import { decodeText, FileRefused } from '../text';
import { isZip, readZip } from '../zip';
import type { IncomingLine, IncomingRecipe } from './incoming-recipe';
import { isRecipeCsv, readRecipeCsv } from './recipe-csv';
import { readRecipeNodes, readRecipeValues } from './recipe-json-ld';
import { readPage } from './recipe-page';

/** One of the recipes that came in together, or why it cannot be used. */
export interface Found {
  /** Its file in an archive, or its place. */
  readonly from: string;
  readonly recipe?: IncomingRecipe;
  readonly problem?: string;
}

/** More lines than any recipe has: a slip of the clipboard. */
const MOST_LINES = 200;

/** More recipes than anybody looks through at once. */
const MOST_RECIPES = 300;

/**
 * Reads recipes from whatever they came in: pasted text, a text file, schema.org JSON-LD alone or inside a web page, a
 * table, or an archive of these.
 *
 * @returns at least one; of several, each that cannot be used with its reason
 * @throws FileRefused when there is no recipe in it, saying what to do
 */
export function readIncoming(bytes: Uint8Array, reference: Reference): Found[] {
  if (bytes.length === 0) throw new FileRefused('There is nothing to read: paste a recipe, or choose a file.');
  const found = isZip(bytes)
    ? readZip(bytes).flatMap(({ name, bytes: content }) => tried(name, () => readFile(content, reference)))
    : readFile(bytes, reference).map((recipe) => checked(recipe.title, recipe));
  const [only] = found;
  if (!only) throw new FileRefused('No recipe was found in it.');
  if (found.length > MOST_RECIPES)
    throw new FileRefused(
      `${found.length} recipes are more than are looked through at once (${MOST_RECIPES}). Split the file.`,
    );
  if (found.length === 1 && only.problem) throw new FileRefused(only.problem);
  return found;
}

/** The recipes of one file of an archive, or why there are none. */
function tried(from: string, read: () => IncomingRecipe[]): Found[] {
  try {
    return read().map((recipe) => checked(recipe.title ? `${from}: ${recipe.title}` : from, recipe));
  } catch (error) {
    if (error instanceof FileRefused) return [{ from, problem: error.message }];
    throw error;
  }
}

function checked(from: string, recipe: IncomingRecipe): Found {
  if (recipe.lines.length === 0)
    return {
      from,
      problem:
        'No ingredient line was found. Put the ingredients one below the other, under the heading “Ingredients”.',
    };
  if (recipe.lines.length > MOST_LINES)
    return {
      from,
      problem: `${recipe.lines.length} ingredient lines are more than a recipe holds (${MOST_LINES}). Paste one recipe at a time.`,
    };
  return { from, recipe };
}

function readFile(bytes: Uint8Array, reference: Reference): IncomingRecipe[] {
  if (isZip(bytes)) throw new FileRefused('An archive inside an archive is not opened. Pack the recipes themselves.');
  const { text } = decodeText(bytes);
  const start = text.trimStart();
  if (/^[[{]/.test(start)) return readRecipeNodes(text, reference);
  if (/^<(?:!|\?xml|[a-z][\w-]*[\s/>])/i.test(start)) return fromPage(text, reference);
  return isRecipeCsv(start) ? readRecipeCsv(start) : [fromText(text)];
}

/** So many rows above the ingredients may say how many a recipe serves. */
const ABOVE = 8;

/** A page that says nothing to programs, read as one reads it: its own headings part it. Undefined where it has none. */
function asOneReads(heading: string, text: string): IncomingRecipe | undefined {
  const rows = text.split('\n');
  const at = rows.findIndex((row) => /^ingredients?\s*:?$/i.test(row.trim()));
  if (at < 0) return undefined;
  const recipe = fromText(
    [heading, ...rows.slice(Math.max(0, at - ABOVE), at).filter((row) => servingsIn(row)), ...rows.slice(at)].join(
      '\n',
    ),
  );
  return recipe.lines.length > 1 && recipe.steps.length > 0 ? recipe : undefined;
}

function fromText(text: string): IncomingRecipe {
  const { title, servings, lines, steps } = splitRecipeText(text);
  return { title, servings, description: '', lines, steps: steps.slice(0, 100) };
}

/** A web page: the recipes that its maker put into it for programs to read, as linked data or in its elements. */
function fromPage(html: string, reference: Reference): IncomingRecipe[] {
  const { scripts, marked, heading, text } = readPage(html);
  const found = [
    ...scripts.map((text) => () => readRecipeNodes(text, reference)),
    () => readRecipeValues(marked, reference),
  ].flatMap((read) => {
    try {
      return read();
    } catch (error) {
      if (error instanceof FileRefused) return [];
      throw error;
    }
  });
  // A page says the same recipe twice, for two kinds of programs.
  const filled = found.filter(({ title, lines }) => title !== '' || lines.length > 0);
  const unlike = [...new Map(filled.map((recipe) => [`${recipe.title} ${recipe.lines.length}`, recipe])).values()];
  if (unlike.length > 0) return unlike;
  const seen = asOneReads(heading, text);
  if (seen) return [seen];
  throw new FileRefused(
    'This web page holds no recipe that a program can read. Select the recipe on the page, copy it, and paste it here.',
  );
}

/** A line with what a person said of it beside its words. */
export interface ChosenLine extends Omit<IncomingLine, 'section'> {
  /** Foods chosen by hand, by their place in the line. */
  readonly chosen?: readonly (string | null)[];
  /** Of a range, the end that kits use. */
  readonly use?: RangeUse;
}

/** The line of a draft: as settled by its file, or read; with its details and alternatives. */
export function readIncomingLine(line: ChosenLine, reference: Reference): DraftLine {
  const { text, settled, labelIsOpen, chosen, details, alternatives, use } = line;
  const read = settled ? { text, items: [settledItem(settled, labelIsOpen)] } : draftLine(text, reference, chosen);
  if (!details && !alternatives && !use) return read;
  const [first, ...rest] = read.items;
  return { ...read, items: first ? [withDetails(first, reference, details, alternatives, use), ...rest] : [] };
}

/** A line that its file settled; open while its labels are somebody else's word. */
function settledItem(line: WrittenLine, labelIsOpen = false): DraftItem {
  const said = { say: sayLine(line), food: line.ingredient, assumed: [], suggestions: [] };
  const labels = labelIsOpen ? labelsOf(line) : [];
  if (labels.length === 0) return { ...said, line, open: [] };
  return {
    ...said,
    line: undefined,
    open: [`Its file states what labels say: ${labels.join('; ')}. Are these the labels of the products you use?`],
  };
}

/** A recipe as it came in, with each line as it is understood. */
export interface DraftedRecipe extends Omit<IncomingRecipe, 'lines' | 'servings'> {
  readonly servings: number | null;
  readonly lines: readonly DraftedLine[];
}

/** A line of a draft as the screen shows it. */
export interface DraftedLine extends DraftLine, Omit<IncomingLine, 'text'> {}

/** One of the recipes that came in together, with its lines understood, or why it cannot be used. */
export interface DraftedFound extends Omit<Found, 'recipe'> {
  readonly recipe?: DraftedRecipe;
}

/**
 * Reads recipes, and each of their lines.
 *
 * @throws FileRefused when there is no recipe in it, saying what to do
 */
export const draftIncoming = (bytes: Uint8Array, reference: Reference): DraftedFound[] =>
  readIncoming(bytes, reference).map(({ recipe, ...found }) =>
    recipe
      ? {
          ...found,
          recipe: {
            ...recipe,
            servings: recipe.servings ?? null,
            lines: recipe.lines.map((line) => ({ ...line, ...readIncomingLine(line, reference) })),
          },
        }
      : found,
  );
