import { z } from 'zod';
import { AISLES, MEASURES, PERISHABLES, PLATE_GROUPS, STORAGES } from '@/core/reference/food-words';
import { AVOIDANCES } from '@/core/safety/avoidances';

const codes = (kind: 'allergen' | 'diet') =>
  z
    .array(z.enum(AVOIDANCES.filter((each) => each.kind === kind).map(({ code }) => code) as [string, ...string[]]))
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
  measure,
  count: z.coerce
    .number('Write how many.')
    .int('Whole ones.')
    .min(1, 'At least one.')
    .max(100, 'At most 100.')
    .default(1),
  grams,
});
