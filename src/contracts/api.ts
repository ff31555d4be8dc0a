import { z } from 'zod';

/** Shapes that the API answers with; its OpenAPI document is made from them, and tests hold answers against them. */

const id = z.uuid().meta({ description: 'UUIDv7' });
const civilDate = z.string().meta({ description: 'Civil date, YYYY-MM-DD', example: '2026-11-26' });
const civilTime = z.string().meta({ description: 'Civil time in the programme’s time zone, HH:MM', example: '16:00' });

export const problemDocument = z
  .object({
    type: z.string(),
    status: z.number().int(),
    title: z.string().meta({ description: 'What is wrong, and what to do' }),
    problems: z
      .array(z.object({ where: z.string().meta({ description: 'Field, path or line' }), message: z.string() }))
      .optional(),
  })
  .meta({ id: 'Problem', description: 'An error (RFC 9457)' });

export const created = z.object({ id }).meta({ id: 'Created' });
export const done = z.object({ done: z.literal(true) }).meta({ id: 'Done' });

export const recipeEntry = z
  .object({ id, title: z.string(), description: z.string(), servings: z.number().int(), lines: z.number().int() })
  .meta({ id: 'RecipeEntry' });

export const courseEntry = z.object({ id, title: z.string(), audience: z.string() }).meta({ id: 'Course' });

export const sessionEntry = z
  .object({
    id,
    courseId: id,
    number: z.number().int(),
    title: z.string(),
    date: civilDate,
    startsAt: civilTime,
    minutes: z.number().int(),
    place: z.string(),
    mode: z.string(),
    version: z.number().int().meta({ description: 'Sent back with a change: a stale one is refused' }),
  })
  .meta({ id: 'Session' });

export const report = z
  .object({
    title: z.string(),
    from: civilDate,
    to: civilDate,
    figures: z.array(
      z.object({
        key: z.string(),
        section: z.string(),
        label: z.string(),
        unit: z.enum(['count', 'percent', 'hours', 'money', 'kilograms']),
        value: z.number().nullable().meta({
          description:
            'Hours in minutes, money in minor units, weight in grams, a share in thousandths; null where nothing tells, or it would tell of a child',
        }),
        said: z.string().meta({ description: 'As it is read: “82 %”, “fewer than 5”' }),
        how: z.string(),
        parts: z
          .array(z.object({ sessionId: id, value: z.number(), of: z.number().optional() }))
          .optional()
          .meta({ description: 'What each session brings; a share is of sums' }),
      }),
    ),
    sessions: z.array(z.object({ id, date: civilDate, course: z.string(), title: z.string() })),
  })
  .meta({ id: 'Report', description: 'What past sessions came to; no name and no need is in it' });

export const rollPerson = z
  .object({
    id,
    name: z.string(),
    age: z.number().int().nullable(),
    servings: z.number().int(),
    avoids: z.array(
      z.object({
        asWritten: z.string(),
        codes: z.array(z.string()).nullable().meta({ description: 'Null: no meaning yet, blocks the kit' }),
      }),
    ),
    mode: z.string().nullable(),
    status: z.enum(['enrolled', 'withdrawn']),
    version: z.number().int(),
  })
  .meta({ id: 'RollPerson' });

export const broughtIn = z
  .object({
    saved: z.number().int().meta({ description: 'People who are on the roll now and were not before' }),
    updated: z.number().int().meta({ description: 'People of the roll whose data the file replaced' }),
    waiting: z.number().int().meta({ description: 'Of those saved: how many wait, because the course is full' }),
  })
  .meta({ id: 'BroughtIn' });

export const kitSheetDocument = z
  .object({
    sessionId: id,
    revision: z.number().int().meta({ description: 'Of the locked sheet; 0 while nothing is locked' }),
    fingerprint: z.string().nullable().meta({ description: 'SHA-256 of the locked sheet' }),
    basis: z.string().meta({ description: 'Names the present calculation: what is locked is what was looked at' }),
    refusedKits: z.number().int(),
    differences: z.array(
      z.object({
        kind: z.enum(['added', 'removed', 'changed']),
        names: z.array(z.string()),
        what: z.array(z.string()),
      }),
    ),
    variants: z.array(
      z.object({
        letter: z.string(),
        servings: z.number().int(),
        madeWithout: z.array(z.string()),
        kits: z.number().int(),
        refused: z.array(z.string()).meta({ description: 'Why these kits cannot be made; empty when they can' }),
        components: z.array(
          z.object({
            key: z.string().meta({ description: 'Names the component in ticks' }),
            name: z.string(),
            say: z.string().meta({ description: 'As a cook says it', example: '1⅓ cups' }),
            packed: z.string().meta({ description: 'Exact, as a fraction' }),
            unit: z.string(),
            grams: z.string().meta({ description: 'Exact, as a fraction' }),
            product: z
              .string()
              .optional()
              .meta({ description: 'The one product whose label was read: no other goes in' }),
          }),
        ),
      }),
    ),
    kits: z.array(
      z.object({
        id,
        number: z.number().int(),
        variant: z.string(),
        calledBack: z.boolean().meta({ description: 'No longer safe for whom it is: not handed out' }),
      }),
    ),
  })
  .meta({ id: 'KitSheet', description: 'The locked sheet, or the present calculation while nothing is locked' });

export const lockedSheet = z.object({ revision: z.number().int(), fingerprint: z.string() }).meta({ id: 'Locked' });

export const packEvents = z
  .object({
    revision: z.number().int(),
    events: z.array(
      z.object({
        id,
        kitId: id,
        component: z.string(),
        action: z.enum(['packed', 'undone', 'called back', 'let go on']),
        seq: z.number().int().meta({ description: 'Order of the events of a session, from 1, without gaps' }),
      }),
    ),
  })
  .meta({ id: 'PackEvents' });

export const takenIn = z.object({ added: z.number().int(), revision: z.number().int() }).meta({ id: 'TakenIn' });

export const shoppingListDocument = z
  .object({
    aisles: z.array(
      z.object({
        aisle: z.string(),
        title: z.string(),
        items: z.array(z.object({ ingredient: z.string(), buy: z.string(), need: z.string(), left: z.string() })),
      }),
    ),
    done: z.boolean(),
  })
  .meta({ id: 'ShoppingList' });

const working = z.unknown().optional().meta({ description: 'When asked for: what, value, because, and from' });

export const caseResult = z
  .object({
    variants: z.array(
      z.object({
        servings: z.number().int(),
        count: z.number().int(),
        avoids: z.array(z.string()).optional(),
        components: z
          .array(
            z.object({
              ingredient: z.string(),
              exact: z.string().meta({ description: 'Exact, as a fraction' }),
              unit: z.string(),
              scoops_tsp: z.array(z.string()).optional(),
              packed: z.string().optional(),
              sealed_units: z.number().int().optional(),
              grams: z.number(),
              working,
            }),
          )
          .optional(),
        refused: z
          .array(z.object({ line: z.number().int(), ingredient: z.string(), blocked_by: z.array(z.string()) }))
          .optional(),
      }),
    ),
    totals: z.record(
      z.string(),
      z.object({
        edible_grams: z.number(),
        purchase_grams: z.number().optional(),
        packs: z.number().int().optional(),
        working,
      }),
    ),
  })
  .meta({ id: 'CaseResult' });

export const jobDocument = z
  .object({
    id,
    kind: z.string(),
    state: z.enum(['waiting', 'running', 'done', 'failed', 'cancelled']),
    progress: z.number().int().meta({ description: 'Percent' }),
    attempts: z.number().int(),
    result: z.unknown().meta({ description: 'What came of it; why, when it failed' }),
  })
  .meta({ id: 'Job' });

/** A page of a list: what is on it, and the address of the next. */
export const pageOf = <T extends z.ZodType>(item: T) =>
  z.object({ items: z.array(item), next: z.string().nullable().meta({ description: 'Where the next page is' }) });

export const paging = z.object({
  after: z.string().max(60).optional().meta({ description: 'Id of the last item of the page before' }),
  limit: z.coerce
    .number('The limit is a number.')
    .int('The limit is a whole number.')
    .min(1, 'At least 1.')
    .max(200, 'At most 200.')
    .default(50),
});
