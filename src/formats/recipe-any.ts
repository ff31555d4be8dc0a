import { draftLine, sayLine } from '@/core/recipes/draft';
import type { WrittenLine } from '@/core/recipes/recipe';
import { splitRecipeText } from '@/core/recipes/recipe-text';
import type { Reference } from '@/core/reference/reference';
import { readRecipeNode } from './recipe-json-ld';
import { decodeText, FileRefused } from './text';

/** A recipe as it came in, before a person has looked at it: nothing in it is decided yet. */
export interface IncomingRecipe {
  readonly title: string;
  readonly servings: number | undefined;
  readonly description: string;
  readonly lines: readonly IncomingLine[];
  readonly steps: readonly string[];
}

/** One ingredient line as written; settled when the file itself said everything of it. */
export interface IncomingLine {
  readonly text: string;
  readonly section: string;
  readonly settled?: WrittenLine;
}

/** More lines than any recipe has: a slip of the clipboard. */
const MOST_LINES = 200;

/**
 * Reads a recipe from whatever it came in: pasted text, a text file, schema.org JSON-LD alone or inside a web page.
 *
 * @throws FileRefused when there is no recipe in it, saying what to do
 */
export function readIncoming(bytes: Uint8Array, reference: Reference): IncomingRecipe {
  if (bytes.length === 0) throw new FileRefused('There is nothing to read: paste a recipe, or choose a file.');
  const { text } = decodeText(bytes);
  const start = text.trimStart();
  const recipe = /^[[{]/.test(start)
    ? readRecipeNode(text, reference)
    : /^<(?:!doctype|html|head|body|script|\?xml)/i.test(start)
      ? fromPage(text, reference)
      : fromText(text);
  if (recipe.lines.length === 0)
    throw new FileRefused(
      'No ingredient line was found. Put the ingredients one below the other, under the heading “Ingredients”.',
    );
  if (recipe.lines.length > MOST_LINES)
    throw new FileRefused(
      `${recipe.lines.length} ingredient lines are more than a recipe holds (${MOST_LINES}). Paste one recipe at a time.`,
    );
  return recipe;
}

function fromText(text: string): IncomingRecipe {
  const { title, servings, lines, steps } = splitRecipeText(text);
  return { title, servings, description: '', lines, steps: steps.slice(0, 100) };
}

/** A web page: the recipe that its maker put into it for programs to read. */
function fromPage(html: string, reference: Reference): IncomingRecipe {
  const scripts = [...html.matchAll(/<script\b[^>]*application\/ld\+json[^>]*>([\s\S]*?)<\/script>/gi)];
  for (const [, json = ''] of scripts) {
    try {
      return readRecipeNode(json, reference);
    } catch (error) {
      if (!(error instanceof FileRefused)) throw error;
    }
  }
  throw new FileRefused(
    'This web page holds no recipe that a program can read. Select the recipe on the page, copy it, and paste it here.',
  );
}

/** The line of a draft: as settled by its file, or read. */
export const readIncomingLine = (
  { text, settled }: Pick<IncomingLine, 'text' | 'settled'>,
  reference: Reference,
  chosen?: readonly (string | null)[],
) =>
  settled
    ? {
        text,
        items: [
          { line: settled, say: sayLine(settled), food: settled.ingredient, open: [], assumed: [], suggestions: [] },
        ],
      }
    : draftLine(text, reference, chosen);
