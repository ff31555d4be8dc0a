import { z } from 'zod';
import { draftedLine, draftedRecipe, type RecipeBody } from '@/contracts/recipe';
import { type DraftLine, draftLine } from '@/core/recipes/reading/draft';
import { alternativesAsWritten, detailsOf } from '@/core/recipes/reading/line-details';
import { withBatches } from '@/core/recipes/reading/usual-details';
import { readRecipe } from '@/core/recipes/recipe/recipe';
import { sayItem } from '@/core/recipes/recipe/say-item';
import { circleOf, type SubRecipe, wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import type { Slip } from '@/core/recipes/slips/slip';
import { batchGrams, checkRecipe } from '@/core/recipes/slips/slips';
import { wordKey } from '@/core/reference/food-finder';
import { foodNames, type Reference } from '@/core/reference/reference';
import { type ChosenLine, type DraftedLine, readIncomingLine } from '@/formats/recipes/recipe-any';
import { insert, remove } from '@/store/query';
import type { Db } from '@/store/store';
import type { RecipeRow } from '@/store/tables/recipes';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { addRecipe, loadRecipe, saveVersion } from './saved';

export type { DraftedLine };

export const previewRecipe = service({
  title: 'Read recipes from text or a file before saving them',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ bytes: z.instanceof(Uint8Array) }),
  run: async (context, { bytes }) => {
    const { reference } = (await loadProgramme(context)).programme;
    return pooled('readRecipes', { bytes, reference });
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
  input: draftedRecipe
    .pick({ lines: true, steps: true })
    .extend({ title: z.string().max(400).optional(), servings: draftedRecipe.shape.servings.optional() }),
  run: async (context, { title, servings, lines, steps }): Promise<{ slips: Slip[]; grams: number | null }> => {
    const { programme } = await loadProgramme(context);
    const { reference, safetyProfile } = programme;
    const checked = lines.map((line) => readDrafted(line, reference));
    const slips = checkRecipe({ title, servings, lines: checked, steps }, reference, safetyProfile);
    return { slips, grams: batchGrams(checked, reference) ?? null };
  },
});

/** A drafted line as it is understood. */
const readDrafted = (line: z.output<typeof draftedLine>, reference: Reference): DraftLine =>
  // The schema is wider only in names: what it lets through is checked again when the recipe is read.
  readIncomingLine(line as ChosenLine, reference);

/** What somebody chose for words that the table does not know: the next recipe is not asked about them. */
async function learnWords(
  context: Context,
  db: Db,
  lines: z.output<typeof draftedRecipe>['lines'],
  reference: Reference,
): Promise<void> {
  const { programmeId } = context.actor;
  const index = foodNames(reference);
  for (const { text, chosen = [] } of lines)
    for (const [at, { food }] of draftLine(text, reference).items.entries()) {
      const ingredient = chosen[at];
      const word = food.split(/\s+/).map(wordKey).filter(Boolean).join(' ').slice(0, 80);
      // A word of one letter, or a whole sentence, is no name.
      if (!ingredient || word.length < 3 || word.split(' ').length > 5 || /\d/.test(word) || index.byKey.has(word))
        continue;
      await remove(db, db.models.foodWord, { programmeId, word });
      await insert(db, db.models.foodWord, [{ programmeId, word, ingredient }]);
    }
}

/** The body of a drafted recipe. @throws ServiceError naming every line that is open or cannot be computed with */
async function bodyOfDraft(
  context: Context,
  { servings, description, lines, steps: typed, right, estimated, planned, subRecipes }: z.output<typeof draftedRecipe>,
  before?: Pick<RecipeRow, 'id' | 'title' | 'body'>,
): Promise<RecipeBody> {
  const { reference } = (await loadProgramme(context)).programme;
  const read = lines.map((line) => readDrafted(line, reference));
  const where = (index: number) => `line ${index + 1}, “${read[index]?.text.slice(0, 60)}”`;
  const open = read.flatMap(({ items }, index) =>
    items.flatMap((item) => item.open.map((message) => ({ where: where(index), message }))),
  );
  if (open.length > 0) throw new ServiceError('invalid', 'Some lines are still open. Nothing was saved.', open);
  const written = read.map(({ items }) =>
    withBatches(
      items.flatMap(({ line }) => line ?? []),
      servings,
    ),
  );
  const problems = written.flatMap((own, index) => {
    const reading = readRecipe({ servings, lines: own }, reference);
    return 'problems' in reading ? reading.problems.map(({ message }) => ({ where: where(index), message })) : [];
  });
  if (problems.length > 0)
    throw new ServiceError('invalid', 'The recipe cannot be computed with yet. Nothing was saved.', problems);
  const steps = typed.map((step) => step.trim()).filter(Boolean);
  const subs = await subRecipesOf(context, subRecipes, before);
  // A step in other words is read anew.
  const settled = planned.filter(({ text }) => steps.includes(text));
  const weighed = before?.body.servings === servings ? before.body.weighed : undefined;
  return {
    servings,
    ...(description ? { description } : {}),
    lines: written.flat(),
    steps,
    ...(right.length > 0 ? { right } : {}),
    ...(settled.length > 0 ? { planned: settled } : {}),
    ...(estimated ? { estimated } : {}),
    ...(subs.length > 0 ? { subRecipes: subs } : {}),
    ...(weighed ? { weighed } : {}),
  };
}

/**
 * The recipes in a recipe, as they are pinned: those that were in it before stay at their version.
 *
 * @throws ServiceError when one of them is made of the recipe itself
 */
async function subRecipesOf(
  context: Context,
  wanted: z.output<typeof draftedRecipe>['subRecipes'],
  before: Pick<RecipeRow, 'id' | 'title' | 'body'> | undefined,
): Promise<SubRecipe[]> {
  const pinned = before?.body.subRecipes ?? [];
  const subs: SubRecipe[] = [];
  for (const { recipeId, servings } of wanted) {
    if (subs.some((each) => each.recipeId === recipeId))
      throw new ServiceError(
        'invalid',
        'A recipe is named twice among those this one is made of: add their servings up.',
      );
    const known = pinned.find((each) => each.recipeId === recipeId);
    const sub = known ? { ...known, servings } : await pin(context, recipeId, servings);
    const circle = circleOf(before, sub);
    if (circle) throw new ServiceError('invalid', `${circle} Nothing was saved.`);
    subs.push(sub);
  }
  return subs;
}

/** A recipe as it is now, to be taken into another. */
async function pin(context: Context, recipeId: string, servings: number): Promise<SubRecipe> {
  const { title, version, body } = await loadRecipe(context, context.store.db, recipeId);
  const { lines, steps, planned } = wholeRecipe(body);
  const within = (body.subRecipes ?? []).flatMap((sub) => [
    { recipeId: sub.recipeId, title: sub.title },
    ...sub.within,
  ]);
  return {
    recipeId,
    version,
    title,
    servings,
    of: body.servings,
    lines,
    steps,
    ...(planned ? { planned } : {}),
    within,
  };
}

export const takeNewest = service({
  title: 'Take the newest version of a recipe into one that is made of it',
  roles: ['coordinator'],
  input: z.object({ recipeId: z.uuid(), version: z.coerce.number().int(), subId: z.uuid() }),
  run: (context, { recipeId, version, subId }) =>
    context.store.transaction(async (db) => {
      const recipe = await loadRecipe(context, db, recipeId);
      const subs = recipe.body.subRecipes ?? [];
      const sub = subs.find((each) => each.recipeId === subId);
      if (!sub) throw notFound('recipe');
      const newest = await pin(context, subId, sub.servings);
      const circle = circleOf(recipe, newest);
      if (circle) throw new ServiceError('invalid', `${circle} Nothing was saved.`);
      const subRecipes = subs.map((each) => (each === sub ? newest : each));
      await saveVersion(context, db, {
        id: recipeId,
        version,
        title: recipe.title,
        body: { ...recipe.body, subRecipes },
      });
      await logChange(context, db, 'took the newest version', 'recipe', recipeId, {
        of: newest.title,
        version: newest.version,
      });
    }),
});

export const saveDraft = service({
  title: 'Save a recipe that was brought in line by line',
  roles: ['coordinator'],
  input: draftedRecipe,
  run: async (context, draft) => {
    const body = await bodyOfDraft(context, draft);
    const { reference } = (await loadProgramme(context)).programme;
    return context.store.transaction(async (db) => {
      await learnWords(context, db, draft.lines, reference);
      return addRecipe(context, db, { title: draft.title, body });
    });
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
    const subRecipes = (body.subRecipes ?? []).map((sub) => ({ recipeId: sub.recipeId, servings: sub.servings }));
    return { version, title, servings, description, lines, steps, estimated, right, planned, subRecipes };
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
    const from = await loadRecipe(context, context.store.db, recipeId);
    const body = await bodyOfDraft(context, draft, asVariation ? { ...from, id: '' } : from);
    const { reference } = (await loadProgramme(context)).programme;
    return context.store.transaction(async (db) => {
      await learnWords(context, db, draft.lines, reference);
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
