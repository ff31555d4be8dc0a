import { z } from 'zod';
import { draftedLine, draftedRecipe, type RecipeBody, recipeBody } from '@/contracts/recipe';
import { computeSheet, type SheetInput, sheetContent } from '@/core/kits/snapshot';
import { cautionsOf } from '@/core/recipes/cautions';
import type { DraftLine } from '@/core/recipes/draft';
import { type RecipeProblem, readRecipe, type WrittenLine } from '@/core/recipes/recipe';
import { sayItem } from '@/core/recipes/say-item';
import { batchGrams, checkRecipe, type Slip } from '@/core/recipes/slips';
import type { Reference } from '@/core/reference/reference';
import { readIncoming, readIncomingLine } from '@/formats/recipe-any';
import { type RecipeFile, readRecipeFile, writeRecipeFile } from '@/formats/recipe-json-ld';
import { FileRefused } from '@/formats/text';
import { find, findOne, insert, select, updateVersion } from '@/store/query';
import { logChange } from '../access/change-log';
import { service } from '../access/gate';
import { notFound, ServiceError, stale } from '../errors';
import { loadProgramme, type Programme } from '../programme/load';

export const listRecipes = service({
  title: 'See all recipes',
  roles: ['coordinator', 'instructor'],
  input: z.object({}),
  run: async (context) => {
    const rows = await select<{ id: string; title: string; body: string; sessions: number }>(
      context.store.db,
      `SELECT r.id, r.title, r.body, (SELECT COUNT(*) FROM dish d WHERE d.recipe_id = r.id) AS sessions
         FROM recipe r WHERE r.programme_id = :programmeId ORDER BY r.title`,
      { programmeId: context.actor.programmeId },
    );
    return rows.map(({ body, ...row }) => {
      const { servings, lines, description } = JSON.parse(body) as RecipeBody;
      return { ...row, servings, lines: lines.length, description: description ?? '' };
    });
  },
});

export const viewRecipe = service({
  title: 'See a recipe',
  roles: ['coordinator', 'instructor'],
  input: z.object({ recipeId: z.uuid() }),
  run: async (context, { recipeId }) => {
    const { db } = context.store;
    const row = await findOne(db, db.models.recipe, { id: recipeId, programmeId: context.actor.programmeId });
    if (!row) throw notFound('recipe');
    const body = JSON.parse(row.body) as RecipeBody;
    const { programme } = await loadProgramme(context);
    return { id: row.id, title: row.title, version: row.version, body, slips: slipsOf(body, programme) };
  },
});

/** What smells like a slip in a recipe, without what somebody said is right as it is. */
function slipsOf({ servings, lines, steps, right = [] }: RecipeBody, { reference, safetyProfile }: Programme): Slip[] {
  const checked = lines.map((line) => ({
    text: sayItem(line),
    items: [{ line, open: [], food: line.ingredient }],
  }));
  const slips = checkRecipe({ servings, lines: checked, steps }, reference, safetyProfile);
  // What is not safe stays said, whoever thinks otherwise.
  return slips.filter(({ kind, key }) => kind === 'unsafe' || !right.includes(key));
}

export const settleSlip = service({
  title: 'Say that a recipe is right as it is',
  roles: ['coordinator'],
  input: z.object({ recipeId: z.uuid(), version: z.coerce.number().int(), key: z.string().min(1).max(400) }),
  run: (context, { recipeId, version, key }) =>
    context.store.transaction(async (db) => {
      const row = await findOne(db, db.models.recipe, { id: recipeId, programmeId: context.actor.programmeId });
      if (!row) throw notFound('recipe');
      const body = JSON.parse(row.body) as RecipeBody;
      const right = [...new Set([...(body.right ?? []), key])];
      const saved = await updateVersion(db, db.models.recipe, recipeId, version, {
        body: JSON.stringify({ ...body, right }),
      });
      if (!saved) throw stale('The recipe');
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
      const row = await findOne(db, db.models.recipe, { id: recipeId, programmeId: context.actor.programmeId });
      if (!row) throw notFound('recipe');
      const { estimated: _, ...body } = JSON.parse(row.body) as RecipeBody;
      const saved = await updateVersion(db, db.models.recipe, recipeId, version, {
        body: JSON.stringify({ ...body, servings }),
      });
      if (!saved) throw stale('The recipe');
      await logChange(context, db, 'confirmed servings', 'recipe', recipeId, { before: body.servings, servings });
    }),
});

export const exportRecipe = service({
  title: 'Take out a recipe as JSON-LD',
  roles: ['coordinator', 'instructor'],
  input: z.object({ recipeId: z.uuid() }),
  run: async (context, input) => {
    const { title, body } = await viewRecipe(context, input);
    return { title, text: writeRecipeFile(title, body) };
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
    const { title, body } = await viewRecipe(context, { recipeId });
    const { reference, measureSystem } = (await loadProgramme(context)).programme;
    const servings = asked ?? body.servings;
    const system = wanted ?? measureSystem;
    const input: SheetInput = {
      system,
      dishes: [{ id: recipeId, title, recipe: { servings: body.servings, lines: body.lines } }],
      labels: {},
      reference,
    };
    const outcome = computeSheet(input, [{ id: 'card', name: '', servings, wishes: [] }]);
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
      cautions: cautionsOf(
        body.lines.map(({ ingredient }) => ingredient),
        body.steps,
      ),
    };
  },
});

/** What a recipe file came to, shown before anything is saved. */
export type RecipePreview = { file: RecipeFile } | { problems: RecipeProblem[] };

export const previewRecipeFile = service({
  title: 'Read a recipe file before saving it',
  roles: ['coordinator'],
  input: z.object({ bytes: z.instanceof(Uint8Array) }),
  run: async (context, { bytes }): Promise<RecipePreview> => {
    const { reference } = (await loadProgramme(context)).programme;
    try {
      return readRecipeFile(bytes, reference);
    } catch (error) {
      if (error instanceof FileRefused) throw new ServiceError('invalid', error.message);
      throw error;
    }
  },
});

/** A line of a draft as the screen shows it. */
export interface DraftedLine extends DraftLine {
  readonly section: string;
  readonly settled?: WrittenLine;
}

export const previewRecipe = service({
  title: 'Read a recipe from text or a file before saving it',
  roles: ['coordinator'],
  input: z.object({ bytes: z.instanceof(Uint8Array) }),
  run: async (context, { bytes }) => {
    const { reference } = (await loadProgramme(context)).programme;
    try {
      const incoming = readIncoming(bytes, reference);
      const lines = incoming.lines.map((line): DraftedLine => ({ ...line, ...readIncomingLine(line, reference) }));
      return { ...incoming, servings: incoming.servings ?? null, lines };
    } catch (error) {
      if (error instanceof FileRefused) throw new ServiceError('invalid', error.message);
      throw error;
    }
  },
});

export const readDraftLine = service({
  title: 'Read one line of a recipe again',
  roles: ['coordinator'],
  input: draftedLine.omit({ settled: true }),
  run: async (context, { text, section, chosen }): Promise<DraftedLine> => {
    const { reference } = (await loadProgramme(context)).programme;
    return { section, ...readIncomingLine({ text }, reference, chosen) };
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

const readDrafted = ({ text, settled, chosen }: z.output<typeof draftedLine>, reference: Reference) =>
  readIncomingLine({ text, ...(settled ? { settled } : {}) }, reference, chosen);

export const saveDraft = service({
  title: 'Save a recipe that was brought in line by line',
  roles: ['coordinator'],
  input: draftedRecipe,
  run: async (context, { title, servings, description, lines, steps, right, estimated }) => {
    const { reference } = (await loadProgramme(context)).programme;
    const read = lines.map((line) => readDrafted(line, reference));
    const open = read.flatMap(({ text, items }, index) =>
      items.flatMap((item) =>
        item.open.map((message) => ({ where: `line ${index + 1}, “${text.slice(0, 60)}”`, message })),
      ),
    );
    if (open.length > 0) throw new ServiceError('invalid', 'Some lines are still open. Nothing was saved.', open);
    const body = {
      servings,
      ...(description ? { description } : {}),
      lines: read.flatMap(({ items }) => items.flatMap(({ line }) => line ?? [])),
      steps: steps.map((step) => step.trim()).filter(Boolean),
      ...(right.length > 0 ? { right } : {}),
      ...(estimated ? { estimated } : {}),
    };
    return saveRecipe(context, { title, body });
  },
});

export const saveRecipe = service({
  title: 'Save a recipe',
  roles: ['coordinator'],
  input: z.object({ title: z.string().trim().min(1, 'The recipe needs a name.').max(120), body: recipeBody }),
  run: async (context, { title, body }) => {
    const reading = readRecipe(body, (await loadProgramme(context)).programme.reference);
    if ('problems' in reading) {
      throw new ServiceError(
        'invalid',
        'The recipe cannot be computed with yet.',
        reading.problems.map(({ path, message }) => ({ where: path, message })),
      );
    }
    return context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const [same] = await find(db, db.models.recipe, { programmeId, title });
      if (same)
        throw new ServiceError('invalid', `A recipe called "${title}" is there already. Give this one another name.`);
      const id = context.ids();
      await insert(db, db.models.recipe, [{ id, programmeId, title, body: JSON.stringify(body), version: 1 }]);
      await logChange(context, db, 'added', 'recipe', id, { title });
      return id;
    });
  },
});
