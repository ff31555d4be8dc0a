import { z } from 'zod';

const id = z.string().min(1).max(80);
const day = z.number().int('Whole days.').min(0, 'Days count from 0.').max(5000, 'At most 5,000 days.');
const minute = z.number().int('Whole minutes.').min(0, 'Minutes of a day count from 0.').max(2880, 'At most two days.');
const limit = z.number().int().min(0, 'Not less than nothing.').max(1_000_000);
const span = { from: minute, to: minute };
const rightWay = ({ from, to }: { from: number; to: number }) => from <= to;

/** Each row of a list has an id of its own. */
const named = <Row extends z.ZodType<{ readonly id: string }>>(row: Row, most: number) =>
  z
    .array(row)
    .max(most, `At most ${most}.`)
    .refine((rows) => new Set(rows.map((each) => each.id)).size === rows.length, 'Two rows have the same id.')
    .optional();

const place = z.object({ duty: id, person: id });

/** Who is to do what, as `POST /compute/roster` takes it. */
export const rosterCase = z
  .object({
    kind: z.literal('roster').optional(),
    duties: named(
      z
        .object({
          id,
          day,
          ...span,
          place: id.optional(),
          people: limit.max(200, 'At most 200 places.').optional(),
          skills: z.array(id).max(30).optional(),
          weight: limit.optional(),
        })
        .refine(rightWay, 'It ends before it begins.'),
      600,
    ),
    people: named(
      z.object({
        id,
        skills: z.record(id, z.number().int()).optional(),
        free: z
          .array(z.tuple([day, minute, minute]).refine(([, from, to]) => from <= to, 'It ends before it begins.'))
          .max(2000)
          .optional(),
        most_duties: limit.optional(),
        most_minutes: limit.optional(),
        wishes: z
          .array(z.object({ duty: id, cost: z.number().int().min(-1_000_000).max(1_000_000) }))
          .max(1200)
          .optional(),
        apart: z.array(id).max(300).optional(),
      }),
      300,
    ),
    travel: z
      .array(z.object({ between: z.tuple([id, id]), minutes: minute }))
      .max(5000)
      .optional(),
    now: z.array(place).max(5000).optional(),
    seconds: z.number().min(0.1).max(60, 'At most 60 seconds.').optional(),
  })
  .meta({ id: 'RosterCase', description: 'Duties, people, and what was promised: see docs/api.md' });

const whole = z.number().int();
const FIGURES = { empty: whole, broken: whole, wishes: whole, evenness: whole };
const PROVEN = { empty: z.boolean(), broken: z.boolean(), wishes: z.boolean(), evenness: z.boolean() };

/** What is answered: the roster, and why places of it are empty. */
export const rosterAnswer = z
  .object({
    ...FIGURES,
    proven: z.object(PROVEN),
    bound: z.object(FIGURES).partial().optional(),
    places: z.array(place),
    why: z.array(
      z.object({
        duty: z.string(),
        missing: whole,
        because: z.array(z.object({ person: z.string(), rule: z.string() })),
        would: z.array(
          z.object({
            person: z.string(),
            rule: z.string(),
            skill: z.string().optional(),
            with: z.string().optional(),
            to: z.union([whole, z.tuple([whole, whole, whole])]).optional(),
          }),
        ),
      }),
    ),
  })
  .meta({ id: 'Roster' });
