import { z } from 'zod';
import { draftedLine, draftedRecipe, type RecipeBody } from '@/contracts/recipe';
import type { DraftLine } from '@/core/recipes/draft';
import { alternativesAsWritten, detailsOf } from '@/core/recipes/line-details';
import { readRecipe } from '@/core/recipes/recipe';
import { sayItem } from '@/core/recipes/say-item';
import { batchGrams, checkRecipe, type Slip } from '@/core/recipes/slips';
import type { Reference } from '@/core/reference/reference';
import { type ChosenLine, type DraftedLine, readIncomingLine } from '@/formats/recipe-any';
import { FileRefused } from '@/formats/text';
import { readRecipes } from '@/workers/read-recipes';
import { logChange } from '../access/change-log';
import { type Context, service } from '../access/gate';
import { ServiceError } from '../errors';
import { loadProgramme } from '../programme/load';
import { addRecipe, loadRecipe, saveVersion } from './saved';

export type { DraftedLine };

export const previewRecipe = service({
  title: 'Read recipes from text or a file before saving them',
  roles: ['coordinator'],
  input: z.object({ bytes: z.instanceof(Uint8Array) }),
  run: async (context, { bytes }) => {
    const { reference } = (await loadProgramme(context)).programme;
    try {
      return await readRecipes(bytes, reference);
    } catch (error) {
      if (error instanceof FileRefused) throw new ServiceError('invalid', error.message);
      throw error;
    }
  },
});

export const readDraftLine = service({
  title: 'Read one line of a recipe again',
  roles: ['coordinator'],
  input: draftedLine,
  run: async (context, line): Promise<DraftedLine> => {
    const { reference } = (await loadProgramme(context)).programme;
    return { section: line.section, ...readDrafted(line, reference) };
  },
});

export const checkDraft = service({
  title: 'Smell the slips of a recipe before saving it',
  roles: ['coordinator'],
  input: draftedRecipe.pick({ lines: true, steps: true }).extend({ servings: draftedRecipe.shape.servings.optional() }),
  run: async (context, { servings, lines, steps }): Promise<{ slips: Slip[]; grams: number | null }> => {
    const { programme } = await loadProgramme(context);
    const { reference, safetyProfile } = programme;
    const checked = lines.map((line) => readDrafted(line, reference));
    const slips = checkRecipe({ servings, lines: checked, steps }, reference, safetyProfile);
    return { slips, grams: batchGrams(checked, reference) ?? null };
  },
});

/** A drafted line as it is understood. */
const readDrafted = (line: z.output<typeof draftedLine>, reference: Reference): DraftLine =>
  // The schema is wider only in names: what it lets through is checked again when the recipe is read.
  readIncomingLine(line as ChosenLine, reference);

/** The body of a drafted recipe. @throws ServiceError naming every line that is open or cannot be computed with */
async function bodyOfDraft(
  context: Context,
  { servings, description, lines, steps: typed, right, estimated, planned }: z.output<typeof draftedRecipe>,
): Promise<RecipeBody> {
  const { reference } = (await loadProgramme(context)).programme;
  const read = lines.map((line) => readDrafted(line, reference));
  const where = (index: number) => `line ${index + 1}, “${read[index]?.text.slice(0, 60)}”`;
  const open = read.flatMap(({ items }, index) =>
    items.flatMap((item) => item.open.map((message) => ({ where: where(index), message }))),
  );
  if (open.length > 0) throw new ServiceError('invalid', 'Some lines are still open. Nothing was saved.', open);
  const written = read.map(({ items }) => items.flatMap(({ line }) => line ?? []));
  const problems = written.flatMap((own, index) => {
    const reading = readRecipe({ servings, lines: own }, reference);
    return 'problems' in reading ? reading.problems.map(({ message }) => ({ where: where(index), message })) : [];
  });
  if (problems.length > 0)
    throw new ServiceError('invalid', 'The recipe cannot be computed with yet. Nothing was saved.', problems);
  const steps = typed.map((step) => step.trim()).filter(Boolean);
  // A step in other words is read anew.
  const settled = planned.filter(({ text }) => steps.includes(text));
  return {
    servings,
    ...(description ? { description } : {}),
    lines: written.flat(),
    steps,
    ...(right.length > 0 ? { right } : {}),
    ...(settled.length > 0 ? { planned: settled } : {}),
    ...(estimated ? { estimated } : {}),
  };
}

export const saveDraft = service({
  title: 'Save a recipe that was brought in line by line',
  roles: ['coordinator'],
  input: draftedRecipe,
  run: async (context, draft) => {
    const body = await bodyOfDraft(context, draft);
    return context.store.transaction((db) => addRecipe(context, db, { title: draft.title, body }));
  },
});

/** A saved recipe as the editor starts from it: every line settled, its details and alternatives beside it. */
export const editRecipe = service({
  title: 'Open a recipe for editing',
  roles: ['coordinator'],
  input: z.object({ recipeId: z.uuid() }),
  run: async (context, { recipeId }) => {
    const { title, version, body } = await loadRecipe(context, context.store.db, recipeId);
    const { reference } = (await loadProgramme(context)).programme;
    const lines = body.lines.map((settled) => ({
      section: '',
      ...readIncomingLine({ text: settled.written ?? sayItem(settled), settled }, reference),
      settled,
      details: detailsOf(settled),
      alternatives: alternativesAsWritten(settled),
    }));
    const { servings, description = '', steps, estimated = false, right = [], planned = [] } = body;
    return { version, title, servings, description, lines, steps, estimated, right, planned };
  },
});

export const saveEdited = service({
  title: 'Save the next version of a recipe, or a variation of it',
  roles: ['coordinator'],
  input: draftedRecipe.extend({
    recipeId: z.uuid(),
    version: z.coerce.number().int(),
    /** Saved beside it as a recipe of its own, which remembers where it comes from. */
    asVariation: z.boolean().default(false),
  }),
  run: async (context, { recipeId, version, asVariation, ...draft }) => {
    const body = await bodyOfDraft(context, draft);
    return context.store.transaction(async (db) => {
      const before = await loadRecipe(context, db, recipeId);
      if (asVariation) {
        if (before.title === draft.title)
          throw new ServiceError('invalid', 'A variation needs a name of its own.', [
            { where: 'Name', message: `Not “${draft.title}”, which is the recipe it comes from.` },
          ]);
        return addRecipe(context, db, { title: draft.title, body, parent: before });
      }
      await saveVersion(context, db, { id: recipeId, version, title: draft.title, body });
      await logChange(context, db, 'changed', 'recipe', recipeId, { version: version + 1 });
      return recipeId;
    });
  },
});
