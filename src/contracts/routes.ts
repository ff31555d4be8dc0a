import { z } from 'zod';

const id = z.string().min(1).max(120);
const minute = z.number().int('Whole minutes.').min(0, 'Minutes of a day count from 0.').max(2880, 'At most two days.');
const litres = z.number().int('Whole litres.').min(0).max(100_000).optional();
const way = z.number().int('Whole minutes.').min(0, 'Not less than nothing.').max(1440, 'At most a day.');

/** Doors, drivers and the minutes between places, as `POST /compute/routes` takes them. */
export const routesCase = z
  .object({
    kind: z.literal('routes').optional(),
    places: z.array(id).min(1, 'The first place is the kitchen.').max(121, 'At most 120 doors.'),
    minutes: z.array(z.array(way)).max(121),
    drivers: z
      .array(z.object({ id, from: minute, to: minute, litres, home: z.boolean().optional() }))
      .max(12, 'At most 12 drivers.')
      .optional(),
    stops: z
      .array(
        z.object({
          at: id,
          window: z.tuple([minute, minute]).refine(([from, to]) => from <= to, 'It ends before it begins.'),
          minutes: minute,
          litres,
          cold: minute.optional(),
        }),
      )
      .max(120, 'At most 120 doors.')
      .optional(),
    seconds: z.number().min(0.1).max(60, 'At most 60 seconds.').optional(),
  })
  .superRefine(({ places, minutes, drivers = [], stops = [] }, context) => {
    const say = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
    if (new Set(places).size < places.length) say(['places'], 'Two places have the same name.');
    if (minutes.length !== places.length || minutes.some((row) => row.length !== places.length))
      say(['minutes'], 'The table needs a row and a column for each place, in their order.');
    if (new Set(drivers.map((driver) => driver.id)).size < drivers.length)
      say(['drivers'], 'Two drivers have the same id.');
    const known = new Set(places.slice(1));
    const seen = new Set<string>();
    for (const [at, stop] of stops.entries()) {
      if (!known.has(stop.at)) say(['stops', at, 'at'], 'There is no such place, or it is the kitchen.');
      if (seen.has(stop.at)) say(['stops', at, 'at'], 'A place occurs once.');
      seen.add(stop.at);
    }
  })
  .meta({ id: 'RoutesCase', description: 'Doors, drivers and the minutes between places: see docs/api.md' });

const whole = z.number().int();
const FIGURES = { missed: whole, driving: whole, last: whole };

/** What is answered: rounds, and why doors are missed. */
export const routesAnswer = z
  .object({
    ...FIGURES,
    proven: z.object({ missed: z.boolean(), driving: z.boolean(), last: z.boolean() }),
    bound: z.object(FIGURES).partial().optional(),
    routes: z.array(
      z.object({
        driver: z.string(),
        leaves: whole,
        stops: z.array(z.object({ at: z.string(), begins: whole })),
      }),
    ),
    why: z.array(z.object({ at: z.string(), because: z.string() })),
  })
  .meta({ id: 'Routes' });
