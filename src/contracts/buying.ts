import { z } from 'zod';

const id = z.string().min(1).max(80);
const day = z
  .number('Write a number of days, counted from 0.')
  .int('Whole days.')
  .min(0, 'Days count from 0.')
  .max(1000, 'At most 1,000 days.');
const grams = z.number('Write grams as a number.').int('Whole grams.').min(0, 'Not less than nothing.').max(10_000_000);
const packGrams = grams.min(1, 'A pack holds at least 1 g.');
const money = z.number().int('In the smallest coin.').min(0, 'Not less than nothing.').max(100_000_000);
const codes = z.array(z.string().min(1).max(90)).max(60).optional();
const packs = z.number().int().min(0).max(100_000);

/** Each row of a list has an id of its own. */
const named = <Row extends z.ZodType<{ readonly id: string }>>(row: Row, most: number) =>
  z
    .array(row)
    .max(most, `At most ${most}.`)
    .refine((rows) => new Set(rows.map((each) => each.id)).size === rows.length, 'Two rows have the same id.')
    .optional();

/** Buying for a whole plan, as `POST /compute/buying` takes it. */
export const buyingCase = z
  .object({
    kind: z.literal('buying').optional(),
    days: day.min(1, 'A plan is at least a day long.'),
    trips: z
      .array(z.object({ day, cost: money }))
      .max(30, 'At most 30 trips.')
      .refine((trips) => new Set(trips.map((trip) => trip.day)).size === trips.length, 'Two trips are on one day.')
      .optional(),
    products: named(
      z.object({
        id,
        food: id,
        pack: packGrams,
        price: money,
        keeps: day,
        opened: day.optional(),
        holds: codes,
        days: z.array(day).max(1000).optional(),
        most: packs.optional(),
      }),
      2000,
    ),
    stock: named(
      z
        .object({
          id,
          food: id,
          last: day,
          holds: codes,
          grams: grams.optional(),
          pack: packGrams.optional(),
          count: packs.optional(),
          opened: day.optional(),
        })
        .refine(
          ({ grams: loose, pack }) => (loose === undefined) !== (pack === undefined),
          'Either loose grams, or packs.',
        ),
      2000,
    ),
    needs: named(
      z
        .object({
          id,
          food: id,
          day,
          grams: grams.optional(),
          units: packs.optional(),
          pack: z.tuple([grams, grams]).optional(),
          without: codes,
        })
        .refine(
          ({ grams: loose, units }) => (loose === undefined) !== (units === undefined),
          'Either grams, or units.',
        ),
      2000,
    ),
    seconds: z.number().min(1).max(60, 'At most 60 seconds.').optional(),
  })
  .meta({ id: 'BuyingCase', description: 'What is needed when, what shops have, what is there: see docs/api.md' });

const figure = z.object({ cost: z.boolean(), waste: z.boolean() });

/** What is answered: a plan, or what cannot be met. */
export const buyingAnswer = z
  .union([
    z.object({
      cost: z.number().int(),
      waste: z.number().int(),
      proven: figure,
      bound: z.object({ cost: z.number().optional(), waste: z.number().optional() }).optional(),
      buy: z.array(z.object({ product: z.string(), day: z.number().int(), packs: z.number().int() })),
      use: z.array(
        z.object({
          need: z.string(),
          from: z.string(),
          bought: z.number().int().optional(),
          opened: z.number().int().optional(),
          grams: z.number().int().optional(),
          units: z.number().int().optional(),
        }),
      ),
    }),
    z.object({
      unmet: z.array(
        z.object({
          need: z.string(),
          because: z.object({ food: z.string(), day: z.number().int(), missing: z.number() }),
        }),
      ),
    }),
  ])
  .meta({ id: 'BuyingPlan' });
