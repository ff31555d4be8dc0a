import { z } from 'zod';
import { CONSUMED_PER } from '@/core/kits/figures/consumables';
import { SUPPLY_KINDS } from '@/core/kits/supply/series';
import { WAYS } from '@/core/kits/supply/supplied';
import { parsePositiveAmount } from '@/core/quantity/amount';
import { AmountError } from '@/core/quantity/rational';
import { civilDate } from './plan';

/** A weight as people write it, kept as the exact decimal. */
export const writtenGrams = z
  .string()
  .trim()
  .max(12)
  .refine(
    (text) => {
      try {
        return Number(text) <= 100_000 && Boolean(parsePositiveAmount(text));
      } catch (error) {
        if (error instanceof AmountError) return false;
        throw error;
      }
    },
    { error: 'Write grams above 0, such as 250.' },
  );

const name = z.string().trim().min(1, 'Give it a name.').max(80, 'At most 80 characters.');
const sessionNumber = z.coerce.number().int('Use a whole number.').min(1, 'Sessions count from 1.').max(500);

/** A supply of a course as it is written down. */
export const courseSupply = z
  .object({
    id: z.string().min(1).max(40),
    kind: z.enum(SUPPLY_KINDS),
    name,
    grams: writtenGrams.optional(),
    count: z.coerce.number().int().min(1, 'At least one.').max(50, 'At most 50.').optional(),
    from: sessionNumber.default(1),
    until: sessionNumber.optional(),
  })
  .superRefine((supply, check) => {
    if (supply.kind === 'jar' && !supply.grams)
      check.addIssue({ code: 'custom', path: ['grams'], message: 'Say how many grams one jar holds.' });
    if (supply.until !== undefined && supply.until < supply.from)
      check.addIssue({
        code: 'custom',
        path: ['until'],
        message: 'The last session that needs it is before the first.',
      });
  });

/** A thing that is used up: counted from kits, servings, people or sessions. */
export const consumable = z.object({
  id: z.string().min(1).max(40),
  name,
  per: z.enum(CONSUMED_PER),
  count: z.coerce.number().int().min(1, 'At least one.').max(50, 'At most 50.').default(1),
  pack: z.coerce.number().int().min(1).max(10_000).optional(),
});

export const kitRules = z.object({
  /** Whoever is this old cuts at class. */
  cutsFrom: z.coerce.number().int().min(3, 'From 3 years.').max(18, 'Up to 18 years.').optional(),
  /** What is made in class goes home in labelled bags. */
  goesHome: z.boolean().optional(),
  supplies: z.array(courseSupply).max(40, 'At most 40 supplies.').default([]),
  consumables: z.array(consumable).max(40, 'At most 40.').default([]),
});
export type KitRules = z.infer<typeof kitRules>;

/** How lines of a dish travel. */
export const lineWays = z.array(z.object({ ingredient: z.string().min(1).max(80), way: z.enum(WAYS) })).max(200);

export const HOME_HEAT = ['hob', 'oven', 'microwave', 'open fire'] as const;
export const HOME_TOOLS = ['measuring spoons', 'scale', 'thermometer', 'blender', 'sharp knife', 'grater'] as const;

/** What a family has and agreed to, as the coordinator was told; what is left out is not known. */
export const homeFacts = z.object({
  /** undefined: nobody has asked. */
  heat: z.array(z.enum(HOME_HEAT)).optional(),
  tools: z.array(z.enum(HOME_TOOLS)).optional(),
  /** Foods that they take from their own shelf. */
  staples: z.array(z.string().trim().min(1).max(80)).max(40, 'At most 40.').optional(),
  /** A box that they receive anyway, by edible grams of each food. */
  box: z
    .array(z.object({ ingredient: z.string().min(1).max(80), grams: writtenGrams }))
    .max(60, 'At most 60.')
    .optional(),
  language: z.string().trim().max(40, 'At most 40 characters.').optional(),
  /** Civil date on which the family agreed that the programme keeps what they avoid. */
  consent: civilDate.optional(),
  photos: z.boolean().optional(),
  /** Adults of the family who come along and help. */
  helpers: z.coerce.number().int().min(0).max(9, 'At most 9.').optional(),
  /** Who may fetch the kit beside the family, by name. */
  collectors: z.array(z.string().trim().min(1).max(80)).max(12, 'At most 12.').optional(),
});
export type HomeFacts = z.infer<typeof homeFacts>;

/** A size of container that the programme packs in. */
export const container = z.object({
  name,
  ml: z.coerce.number().int().min(5, 'At least 5 ml.').max(20_000, 'At most 20 litres.'),
});
export type Container = z.infer<typeof container>;
