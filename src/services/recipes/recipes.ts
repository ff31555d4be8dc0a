import { z } from 'zod';
import { draftedRecipe, type RecipeBody, recipeBody } from '@/contracts/recipe';
import type { SheetInput } from '@/core/kits/record/sheet-content';
import { computeSheet, sheetContent } from '@/core/kits/record/snapshot';
import { type RecipeOverview, recipeOverview } from '@/core/recipes/choosing/recipe-overview';
import { type RecipeProblem, readRecipe } from '@/core/recipes/recipe/recipe';
import { sayItem } from '@/core/recipes/recipe/say-item';
import { EATERS, estimateServings, ROLES_OF_DISH } from '@/core/recipes/recipe/serving-size';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import type { Slip } from '@/core/recipes/slips/slip';
import { checkRecipe } from '@/core/recipes/slips/slips';
import { cautionSentences } from '@/core/recipes/steps/caution-sentences';
import { cautionsOf } from '@/core/recipes/steps/cautions';
import { writeRecipeCsv } from '@/formats/recipes/recipe-csv';
import { type RecipeFile, writeRecipeFile } from '@/formats/recipes/recipe-json-ld';
import { recipesWithUse } from '@/store/recipes';
import type { RecipeRow } from '@/store/tables/recipes';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service, todayIn } from '../gate/gate';
import { markOf, markOnce, memoryOf } from '../memory';
import { loadProducts } from '../sheet/load-products';
import { loadProgramme, type Programme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { addRecipe, loadRecipe, saveVersion } from './saved';
import { dishRecipe } from './suits';

export const listRecipes = service({
  title: 'See all recipes',
  roles: ['coordinator', 'instructor'],
  input: z.object({}),
  run: async (context) => {
    const rows = await recipesWithUse(context.store.db, { programmeId: context.actor.programmeId });
    return rows.map(({ body, version: _, lastUsed: __, ...row }) => {
      const { servings, lines, description } = body;
      return { ...row, servings, lines: lines.length, description: description ?? '' };
    });
  },
});

/** Overviews worked out before, by all that they depend on: of the recipes of some hundred programmes. */
const overviews = memoryOf<{ readonly of: RecipeOverview | undefined }>(10_000);

/** So many are worked out sooner than they are sent to another process with the table that they need (a millisecond each). */
const FEW = 6;

export const findRecipes = service({
  title: 'See all recipes with what one looks for them by',
  roles: ['coordinator', 'instructor'],
  input: z.object({}),
  run: async (context) => {
    const rows = await recipesWithUse(context.store.db, { programmeId: context.actor.programmeId });
    const { reference, timeZone } = (await loadProgramme(context)).programme;
    const products = await loadProducts(context);
    const month = Number(todayIn(context, timeZone).slice(5, 7));
    const around = markOnce(reference, (table) => table) + markOf(products) + month;
    const unknown = rows.filter(({ id, version }) => !overviews.known(`${id} ${version} ${around}`));
    if (unknown.length > 0) {
      const dishes = unknown.map(({ id, title, body }) => dishRecipe(id, title, body));
      const made =
        dishes.length > FEW
          ? await pooled('recipeOverviews', { dishes, reference, products, month })
          : dishes.map((dish) => recipeOverview(dish, reference, products, month));
      for (const [at, { id, version }] of unknown.entries())
        overviews.of(`${id} ${version} ${around}`, () => ({ of: made[at] ?? undefined }));
    }
    return rows.map(({ id, title, version, sessions, lastUsed, body }) => ({
      id,
      title,
      description: body.description ?? '',
      servings: body.servings,
      sessions,
      lastUsed,
      overview: overviews.known(`${id} ${version} ${around}`)?.of ?? null,
    }));
  },
});

/** A recipe as it is shown: what smells like a slip in it, and what it is a variation of. */
export async function recipeView(context: Context, recipe: RecipeRow, programme: Programme) {
  const { id, title, version, body, parentId } = recipe;
  const parent = parentId ? await loadRecipe(context, context.store.db, parentId) : undefined;
  return {
    id,
    title,
    version,
    body,
    slips: slipsOf(title, body, programme),
    parent: parent && { id: parent.id, title: parent.title },
  };
}

export const viewRecipe = service({
  title: 'See a recipe',
  roles: ['coordinator', 'instructor'],
  input: z.object({ recipeId: z.uuid() }),
  run: async (context, { recipeId }) => {
    const recipe = await loadRecipe(context, context.store.db, recipeId);
    return recipeView(context, recipe, (await loadProgramme(context)).programme);
  },
});

/** What smells like a slip in a recipe, without what somebody said is right as it is. */
function slipsOf(title: string, body: RecipeBody, { reference, safetyProfile }: Programme): Slip[] {
  const { servings, lines, steps, right = [] } = wholeRecipe(body);
  const checked = lines.map((line) => ({
    text: sayItem(line),
    items: [{ line, open: [], food: line.ingredient }],
  }));
  const slips = checkRecipe({ title, servings, lines: checked, steps }, reference, safetyProfile);
  // What is not safe stays said, whoever thinks otherwise.
  return slips.filter(({ kind, key }) => kind === 'unsafe' || !right.includes(key));
}

export const settleSlip = service({
  title: 'Say that a recipe is right as it is',
  roles: ['coordinator'],
  input: z.object({ recipeId: z.uuid(), version: z.coerce.number().int(), key: z.string().min(1).max(400) }),
  run: (context, { recipeId, version, key }) =>
    context.store.transaction(async (db) => {
      const { title, body } = await loadRecipe(context, db, recipeId);
      const right = [...new Set([...(body.right ?? []), key])];
      await saveVersion(context, db, { id: recipeId, version, title, body: { ...body, right } });
      await logChange(context, db, 'said it is right', 'recipe', recipeId, { key });
    }),
});

export const confirmServings = service({
  title: 'Confirm how many servings a recipe makes',
  roles: ['coordinator'],
  input: z.object({
    recipeId: z.uuid(),
    version: z.coerce.number().int(),
    servings: draftedRecipe.shape.servings,
  }),
  run: (context, { recipeId, version, servings }) =>
    context.store.transaction(async (db) => {
      const { title, body } = await loadRecipe(context, db, recipeId);
      const { estimated: _, ...rest } = body;
      await saveVersion(context, db, { id: recipeId, version, title, body: { ...rest, servings } });
      await logChange(context, db, 'confirmed servings', 'recipe', recipeId, { before: body.servings, servings });
    }),
});

export const weighBatch = service({
  title: 'Correct the servings of a recipe by weighing a finished batch',
  roles: ['coordinator'],
  input: z.object({
    recipeId: z.uuid(),
    version: z.coerce.number().int(),
    grams: z.coerce
      .number('Write the weight in grams.')
      .int('Whole grams.')
      .min(20, 'At least 20 g: with the empty pot taken off.')
      .max(500_000, 'At most 500 kg.'),
    /** How many times the recipe the batch was. */
    times: z.coerce.number('Write a number.').min(0.1, 'More than nothing.').max(100).default(1),
    role: z.enum(ROLES_OF_DISH),
    eater: z.enum(EATERS),
  }),
  run: (context, { recipeId, version, grams, times, role, eater }) =>
    context.store.transaction(async (db) => {
      const { title, body } = await loadRecipe(context, db, recipeId);
      const one = Math.round(grams / times);
      const servings = estimateServings(one, role, eater);
      const { timeZone } = (await loadProgramme(context, db)).programme;
      const on = todayIn(context, timeZone);
      const { estimated: _, ...rest } = body;
      const weighed = { grams: one, on, by: `${role}, ${eater}` };
      await saveVersion(context, db, { id: recipeId, version, title, body: { ...rest, servings, weighed } });
      await logChange(context, db, 'weighed a batch', 'recipe', recipeId, {
        ...weighed,
        before: body.servings,
        servings,
      });
      return { servings, before: body.servings };
    }),
});

export const exportRecipe = service({
  title: 'Take out a recipe as JSON-LD',
  roles: ['coordinator', 'instructor'],
  input: z.object({ recipeId: z.uuid() }),
  run: async (context, input) => {
    const { title, body } = await viewRecipe(context, input);
    return { title, text: writeRecipeFile(title, wholeRecipe(body)) };
  },
});

export const exportRecipeTable = service({
  title: 'Take out a recipe as CSV',
  roles: ['coordinator', 'instructor'],
  input: z.object({ recipeId: z.uuid() }),
  run: async (context, { recipeId }) => {
    const { title, body } = await loadRecipe(context, context.store.db, recipeId);
    return { title, text: writeRecipeCsv(title, wholeRecipe(body)) };
  },
});

export const viewCard = service({
  title: 'See a recipe as a card for a family',
  roles: ['coordinator', 'instructor'],
  input: z.object({
    recipeId: z.uuid(),
    servings: draftedRecipe.shape.servings.optional(),
    system: z.enum(['us', 'metric']).optional(),
  }),
  run: async (context, { recipeId, servings: asked, system: wanted }) => {
    const { title, body: own } = await viewRecipe(context, { recipeId });
    const body = wholeRecipe(own);
    const { reference, measureSystem } = (await loadProgramme(context)).programme;
    const servings = asked ?? body.servings;
    const system = wanted ?? measureSystem;
    const input: SheetInput = {
      system,
      dishes: [{ id: recipeId, title, recipe: { servings: body.servings, lines: body.lines } }],
      labels: {},
      reference,
    };
    const outcome = computeSheet(input, [{ id: 'card', name: '', servings, needs: [] }]);
    if ('problems' in outcome) throw new ServiceError('invalid', 'The recipe cannot be computed with yet.');
    const [variant] = sheetContent(input, outcome).variants;
    return {
      title,
      servings,
      system,
      steps: body.steps,
      lines: (variant?.components ?? []).map(({ say, sayGrams, name }) => ({ say, grams: sayGrams, name })),
      contains: variant?.contains ?? [],
      mayContain: variant?.mayContain ?? [],
      cautions: cautionSentences(
        cautionsOf(
          body.lines.map(({ ingredient }) => ingredient),
          body.steps,
        ),
      ),
    };
  },
});

/** What a recipe file came to, shown before anything is saved. */
export type RecipePreview = { file: RecipeFile } | { problems: RecipeProblem[] };

export const previewRecipeFile = service({
  title: 'Read a recipe file before saving it',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ bytes: z.instanceof(Uint8Array) }),
  run: async (context, { bytes }): Promise<RecipePreview> => {
    const { reference } = (await loadProgramme(context)).programme;
    return pooled('readRecipeFile', { bytes, reference });
  },
});

export const saveRecipe = service({
  title: 'Save a recipe',
  roles: ['coordinator'],
  input: z.object({
    title: z.string().trim().min(1, 'The recipe needs a name.').max(120),
    body: recipeBody.omit({ subRecipes: true }),
  }),
  run: async (context, { title, body }) => {
    const reading = readRecipe(body, (await loadProgramme(context)).programme.reference);
    if ('problems' in reading) {
      throw new ServiceError(
        'invalid',
        'The recipe cannot be computed with yet.',
        reading.problems.map(({ path, message }) => ({ where: path, message })),
      );
    }
    return context.store.transaction((db) => addRecipe(context, db, { title, body }));
  },
});
