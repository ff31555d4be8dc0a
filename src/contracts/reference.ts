import { z } from 'zod';
import { WEIGHABLE } from '@/core/quantity/units';
import { AISLES, MEASURES, PERISHABLES, PLATE_GROUPS, STORAGES } from '@/core/reference/food-words';
import { AVOIDANCES, isLabelCode } from '@/core/safety/avoidances';

const codes = (kind: 'allergen' | 'diet') =>
  z
    .array(z.enum(AVOIDANCES.filter((each) => each.kind === kind).map(({ code }) => code) as [string, ...string[]]))
    .default([]);

/** What a label says: allergens that it names, and what the product is said to be without. */
export const labelCodes = z
  .array(z.string().max(20).refine(isLabelCode, 'This is no allergen that we know.'))
  .max(60)
  .default([]);

const days = z.coerce.number('Write a number of days.').int('Whole days.').min(0).max(3650, 'At most ten years.');
const grams = z
  .string()
  .trim()
  .transform((text) => text.replace(',', '.'))
  .refine(
    (text) => /^\d{1,5}(\.\d{1,2})?$/.test(text) && Number(text) > 0,
    'Write the grams as a number, such as 125 or 4.6.',
  );
const preparation = z.string().trim().toLowerCase().max(80).default('');
const measure = z.enum(MEASURES, `Choose one of: ${MEASURES.join(', ')}.`);

export const newFood = z.object({
  name: z
    .string()
    .trim()
    .toLowerCase()
    .min(2, 'The food needs a name.')
    .max(60, 'At most 60 characters.')
    .regex(/^\p{L}[\p{L}\p{M} '’-]*$/u, 'Letters and spaces only.'),
  aisle: z.enum(AISLES, 'Choose an aisle.'),
  contains: codes('allergen'),
  diet: codes('diet'),
  /** The label was read, or it is a plain food: nothing but what is said is in it. */
  labelRead: z.boolean().default(false),
  plateGroup: z.enum(PLATE_GROUPS).default('other'),
  vegetableFamily: z.string().max(40).default(''),
  storage: z.enum(STORAGES, 'Say how it is kept.'),
  daysWhole: days,
  daysOpened: days,
  perishable: z.enum(PERISHABLES).default('never'),
  measure: measure.default('cup'),
  preparation,
  /** What one measure weighs; null when it is only ever weighed. */
  grams: z.preprocess((value) => (value === '' || value === undefined ? null : value), grams.nullable()),
});

export const newWeighing = z.object({
  name: z.string().min(1).max(80),
  preparation,
  /** Any measure that a food of the table may have: "bunch" and "leaf" too. */
  measure: z.enum(WEIGHABLE, 'Choose a spoon, a cup or a piece.'),
  count: z.coerce
    .number('Write how many.')
    .int('Whole ones.')
    .min(1, 'At least one.')
    .max(100, 'At most 100.')
    .default(1),
  grams,
});

/** A whole number that may be left open. */
const open = (most: number, say: string) =>
  z.preprocess(
    (value) => (value === '' || value === undefined ? null : value),
    z.coerce.number('Write a number.').int('Whole numbers only.').min(0, 'Not less than 0.').max(most, say).nullable(),
  );

/** A price as it is written, "2.49" or "2,49"; minor units of money, null when left open. */
export const price = z.preprocess(
  (value) => (typeof value === 'string' ? value.trim().replace(',', '.') : (value ?? '')),
  z
    .string()
    .regex(/^(?:\d{1,6}(?:\.\d{1,2})?)?$/, 'Write the price as 2.49.')
    .transform((text) => {
      if (text === '') return null;
      const [whole = '0', part = ''] = text.split('.');
      return Number(whole) * 100 + Number(part.padEnd(2, '0'));
    }),
);

export const newProduct = z.object({
  ingredient: z.string().min(1).max(80),
  name: z.string().trim().min(1, 'The product needs a name.').max(120, 'At most 120 characters.'),
  packGrams: grams,
  price,
  /** The label was read: what is in it is what is ticked, and nothing else. */
  labelRead: z.boolean().default(false),
  allergens: labelCodes,
  saltMg: open(100_000, 'At most 100 g of salt in 100 g.'),
  energyKj: open(3800, 'At most 3,800 kJ: nothing holds more than fat.'),
});

export const keepingLimit = z.object({
  ingredient: z.string().min(1).max(80),
  daysWhole: open(3650, 'At most ten years.'),
  daysOpened: open(3650, 'At most ten years.'),
});
