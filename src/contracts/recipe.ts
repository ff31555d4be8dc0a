import { z } from 'zod';
import { MOST_SERVINGS } from '@/core/kits/figures/kit-case';
import {
  PRECISIONS,
  SCALINGS,
  SWAP_REASONS,
  type WrittenAlternative,
  type WrittenLine,
} from '@/core/recipes/recipe/recipe';
import type { SubRecipe } from '@/core/recipes/recipe/sub-recipes';
import { ADULT, HEATS, TOOLS } from '@/core/recipes/steps/step-plan';

/** An exact amount as text; a plain number is taken too, as people write JSON by hand. */
const amount = z.preprocess(
  (value) => (typeof value === 'number' && Number.isFinite(value) ? String(value) : value),
  z.string('Write the amount as text, such as "1 1/2".').max(40, 'An amount has at most 40 characters.'),
);
const code = z.string().trim().min(1).max(80);

const item = {
  ingredient: z.string().trim().min(1, 'Name the ingredient.').max(80),
  preparation: z.string().max(80).optional(),
  amount,
  unit: z.string().trim().min(1, 'Name the unit.').max(30),
  scaling: z.enum(SCALINGS as [string, ...string[]]).optional(),
  damping: amount.optional(),
  batch_servings: z.number().int().min(1).max(MOST_SERVINGS).optional(),
  precision: z.enum(PRECISIONS as [string, ...string[]]).optional(),
  sealed_grams: amount.optional(),
  yield_preparation: z.string().max(80).optional(),
  spare: amount.optional(),
  pack_grams: amount.optional(),
  label: z.array(code).max(40).optional(),
  range: z.strictObject({ least: amount, most: amount }).optional(),
  within: z.literal(true).optional(),
  reserved: z.literal(true).optional(),
  written: z.string().max(500).optional(),
};

/** An alternative leaves the line out with `omit: true` and nothing else, or is an item complete in itself. */
export const writtenAlternative = z
  .strictObject({
    omit: z.literal(true, 'omit can only be true.').optional(),
    ...z.strictObject(item).partial().shape,
    reason: z.enum(SWAP_REASONS).optional(),
    also: z.array(z.strictObject(item)).max(5, 'At most 5 further items.').optional(),
    step: z.string().max(500, 'At most 500 characters.').optional(),
    minutes: z.number().int('Whole minutes.').min(-240).max(240).optional(),
  })
  .superRefine((alternative, context) => {
    const { omit, ...rest } = alternative;
    if (omit && Object.keys(rest).length > 0) {
      context.addIssue({ code: 'custom', message: 'An alternative that omits the line says nothing else.' });
    }
    for (const field of ['ingredient', 'amount', 'unit'] as const) {
      if (!omit && alternative[field] === undefined) {
        context.addIssue({
          code: 'custom',
          path: [field],
          message: `Give the alternative its own ${field}, or { "omit": true }.`,
        });
      }
    }
  }) as unknown as z.ZodType<WrittenAlternative>;

export const writtenLine = z.strictObject({
  ...item,
  alternatives: z.array(writtenAlternative).max(10).optional(),
  slot: z.literal(true).optional(),
}) as unknown as z.ZodType<WrittenLine>;

export const servings = z
  .number()
  .int('Servings are a whole number.')
  .min(1, 'At least 1 serving.')
  .max(MOST_SERVINGS, `At most ${MOST_SERVINGS} servings.`);

export const writtenRecipe = z.object({
  servings,
  lines: z.array(writtenLine).min(1, 'A recipe needs at least one line.').max(200),
});

const minutes = z.coerce
  .number('Write the minutes as a number.')
  .int('Whole minutes.')
  .min(0, 'Not less than 0.')
  .max(2880, 'At most two days.');

/** How a person settled a step. */
export const settledStep = z.strictObject({
  text: z.string().max(2000),
  handsOn: minutes,
  handsOff: minutes,
  heat: z.enum(HEATS),
  tools: z.array(z.enum(TOOLS)).max(TOOLS.length),
  fromAge: z.coerce
    .number('Write the age as a number.')
    .int('Whole years.')
    .min(0, 'Not less than 0.')
    .max(ADULT, `${ADULT} is an adult.`),
  after: z.array(z.string().max(2000)).max(100),
  mayWait: z.preprocess((value) => (value === '' ? null : value), minutes.nullable()),
  done: z.string().trim().max(120, 'At most 120 characters.'),
  consumables: z.array(z.string().trim().min(1).max(40)).max(10, 'At most 10.'),
  ahead: z.boolean(),
  lastMinute: z.boolean(),
  /** Servings that the pan, tray or blender holds at once: more are cooked in turns; null when it holds any number. */
  batchServings: z
    .preprocess((value) => (value === '' ? null : value), z.coerce.number().int().min(1).max(500).nullable())
    .default(null),
});

/** A recipe that is made for another, as it was when it was taken in: its lines with those of the recipes in it. */
const subRecipe = z.strictObject({
  recipeId: z.uuid(),
  version: z.number().int().min(1),
  title: z.string().max(120),
  /** Servings of it that the other needs, and for how many it is written. */
  servings,
  of: servings,
  lines: z.array(writtenLine).max(200),
  steps: z.array(z.string().max(2000)).max(100),
  planned: z.array(settledStep).max(100).optional(),
  /** Recipes in it, however deep. */
  within: z.array(z.strictObject({ recipeId: z.uuid(), title: z.string().max(120) })).max(50),
}) as unknown as z.ZodType<SubRecipe>;

/** A recipe as it is kept: what is computed from, and what is read by people. */
export const recipeBody = z.object({
  servings,
  lines: z.array(writtenLine).min(1).max(200),
  description: z.string().max(2000).optional(),
  steps: z.array(z.string().max(2000)).max(100),
  /** The servings were estimated, and nobody has confirmed them yet: kits are not locked before. */
  estimated: z.boolean().optional(),
  /** What looked like a slip and is right as it is: keys of slips. */
  right: z.array(z.string().max(400)).max(200).optional(),
  /** Steps whose plan somebody settled; the others are read from their words. */
  planned: z.array(settledStep).max(100).optional(),
  /** Recipes that it is made of beside its own lines. */
  subRecipes: z.array(subRecipe).max(6, 'At most 6 recipes in one.').optional(),
  /** What a finished batch weighed, on a civil date: what its servings were corrected by. */
  weighed: z.strictObject({ grams: z.number().int().min(1), on: z.iso.date(), by: z.string().max(120) }).optional(),
});

export type RecipeBody = z.infer<typeof recipeBody>;

/** How a line scales, is measured, bought and supplied: what its words do not say. Each left out is as usual. */
export const lineDetails = z.strictObject({
  scaling: item.scaling,
  damping: item.damping,
  batch_servings: item.batch_servings,
  precision: item.precision,
  sealed_grams: item.sealed_grams,
  yield_preparation: item.yield_preparation,
  spare: item.spare,
  pack_grams: item.pack_grams,
  within: item.within,
  reserved: item.reserved,
});

/** A line of a recipe that is being brought in or edited: its words, and what a person chose for it. */
export const draftedLine = z.object({
  text: z.string().max(500, 'A line has at most 500 characters.'),
  section: z.string().max(120).default(''),
  /** Settled by the file it came in. */
  settled: writtenLine.optional(),
  /** Nobody has said yet whether the labels that its file states are those of the products used here. */
  labelIsOpen: z.boolean().optional(),
  /** Foods chosen by hand, by their place in the line. */
  chosen: z.array(z.string().max(80).nullable()).max(10).default([]),
  /** Of a range, the end that kits use, or within it so that packs come out whole. */
  use: z.enum(['least', 'most', 'packs']).optional(),
  /** In place of what the line had; for the first food in it. */
  details: lineDetails.optional(),
  /** What may stand in where it must be avoided, in order of preference, in place of what the line had. */
  alternatives: z
    .array(
      z.object({
        text: z.string().max(200),
        settled: writtenAlternative.optional(),
        /** Why it stands in, how the steps differ with it, and by how many minutes. */
        reason: z.enum(SWAP_REASONS).optional(),
        step: z.string().trim().max(500, 'At most 500 characters.').optional(),
        minutes: z.number().int('Whole minutes.').min(-240).max(240).optional(),
      }),
    )
    .max(10, 'At most 10 alternatives.')
    .optional(),
});

/** A recipe that is being brought in or edited. */
export const draftedRecipe = z.object({
  estimated: z.boolean().default(false),
  /** What looked like a slip and is right as it is. */
  right: z.array(z.string().max(400)).max(200).default([]),
  planned: z.array(settledStep).max(100).default([]),
  /** Recipes of the programme that it is made of, and how many servings of each it needs. */
  subRecipes: z
    .array(z.object({ recipeId: z.uuid('Choose a recipe.'), servings: z.coerce.number().pipe(servings) }))
    .max(6, 'At most 6 recipes in one.')
    .default([]),
  title: z.string().trim().min(1, 'The recipe needs a name.').max(120, 'At most 120 characters.'),
  servings: z.coerce
    .number('Say how many servings it makes.')
    .int('Servings are a whole number.')
    .min(1, 'At least 1 serving.')
    .max(MOST_SERVINGS, `At most ${MOST_SERVINGS} servings.`),
  description: z.string().max(2000).default(''),
  lines: z.array(draftedLine).min(1, 'A recipe needs at least one line.').max(200, 'At most 200 lines.'),
  steps: z.array(z.string().max(2000)).max(100),
});
