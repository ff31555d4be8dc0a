import { z } from 'zod';
import { SOLD_BY } from '@/core/buying/plan-case';
import { DATE_KINDS, LOSS_REASONS, MOVES, ORIGINS, STORAGES } from '@/core/buying/stock';
import { AISLES } from '@/core/reference/food-words';
import { civilDate } from './plan';
import { labelCodes, price } from './reference';

/** A number of a form; nothing where it is left empty. */
const empty = (value: unknown) => (value === '' || value === undefined ? null : value);
const maybeDay = z.preprocess(empty, civilDate.nullable());
const maybeId = z.preprocess(empty, z.uuid().nullable());
const count = (say: string, least = 0, most = 100_000) =>
  z.coerce.number(say).int('Whole numbers only.').min(least, `At least ${least}.`).max(most, `At most ${most}.`);

export const shopFields = z.object({
  name: z.string().trim().min(1, 'The shop needs a name.').max(120, 'At most 120 characters.'),
  /** Days on which it is visited, Monday is 1. */
  weekdays: z
    .array(z.coerce.number().int().min(1).max(7))
    .min(1, 'Choose at least one day on which you go there.')
    .max(7)
    .transform((days) => [...new Set(days)].sort() as (1 | 2 | 3 | 4 | 5 | 6 | 7)[]),
  aisles: z.array(z.enum(AISLES)).max(AISLES.length).default([]),
  tripCost: price.transform((cents) => cents ?? 0),
});

export const newPrice = z
  .object({
    shopId: z.uuid(),
    productId: z.uuid(),
    soldBy: z.enum(SOLD_BY, 'Say how it is sold.').default('pack'),
    price: price.refine(
      (cents) => cents === null || cents > 0,
      'A price of 0 is no price: leave it open, or write what it costs.',
    ),
    fromDay: maybeDay.default(null),
    toDay: maybeDay.default(null),
    /** An offer may ask for so many packs at once. */
    least: count('Write a number of packs.', 1, 100).default(1),
  })
  .refine(({ fromDay, toDay }) => (fromDay === null) === (toDay === null), {
    path: ['toDay'],
    message: 'An offer has a first and a last day; a usual price has neither.',
  })
  .refine(({ fromDay, toDay }) => fromDay === null || toDay === null || fromDay <= toDay, {
    path: ['toDay'],
    message: 'The offer ends before it begins.',
  });

/** A product of a food that has none yet, with what it costs: one form, one tap. */
export const filledHole = z.object({
  ingredient: z.string().min(1).max(80),
  shopId: z.uuid('Choose a shop.'),
  name: z.string().trim().min(1, 'Name it as its pack does.').max(120),
  soldBy: z.enum(SOLD_BY).default('pack'),
  packGrams: count('Write the grams of a pack.', 1),
  price: price.refine((cents) => cents !== null && cents > 0, 'Write what it costs, such as 2.49.'),
});

const grams = count('Write a number of grams.', 0, 1_000_000);
const packs = count('Write a number of packs.', 0, 10_000);

export const newLot = z
  .object({
    id: z.uuid(),
    ingredient: z.string().trim().min(1, 'Which food is it?').max(80),
    productId: maybeId.default(null),
    name: z.string().trim().max(120, 'At most 120 characters.').default(''),
    /** Empty where it is loose. */
    packGrams: z.preprocess(empty, count('Write the grams of a pack.', 1, 1_000_000).nullable()).default(null),
    packs: packs.default(0),
    grams: grams.default(0),
    placeId: maybeId.default(null),
    storage: z.enum(STORAGES, 'Say where it stands.'),
    lastDay: civilDate,
    lastKind: z.enum(DATE_KINDS, 'Use by, or best before?'),
    origin: z.enum(ORIGINS),
    labelRead: z.boolean().default(false),
    allergens: labelCodes,
    price: price.default(null),
  })
  .refine(
    ({ packGrams, packs: whole, grams: loose }) => (packGrams === null ? whole === 0 : true) && whole + loose > 0,
    {
      path: ['packs'],
      message: 'Say how many packs and what one weighs, or how many grams there are loose.',
    },
  );

/** What a gift was looked at for, at the door. */
export const GIFT_CHECKS = ['sealed', 'labelled', 'in date', 'undamaged', 'not home-made'] as const;
export const TIN_CHECKS = ['no dent on a seam', 'not bulging', 'no rust', 'no leak'] as const;

export const gift = z.object({
  isTin: z.boolean().default(false),
  checks: z.array(z.enum([...GIFT_CHECKS, ...TIN_CHECKS])).default([]),
});

export const newMove = z.object({
  /** Made by the screen that sends it: sent twice, it is noted once. */
  id: z.uuid(),
  lotId: z.uuid(),
  kind: z.enum(MOVES),
  packs: packs.default(0),
  grams: grams.default(0),
  storage: z.enum(STORAGES).nullable().default(null),
  placeId: maybeId.default(null),
  reason: z.enum(['', ...LOSS_REASONS]).default(''),
});

export const countedShelf = z.object({
  moves: z
    .array(z.object({ id: z.uuid(), lotId: z.uuid(), packs, grams }))
    .min(1)
    .max(200, 'At most 200 at once.'),
});
