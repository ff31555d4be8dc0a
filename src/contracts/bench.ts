import { z } from 'zod';

/** Ticks of one screen: each with an id its sender made, so that sending again changes nothing. */
export const sentTicks = z.object({
  sessionId: z.uuid(),
  ticks: z
    .array(
      z.object({
        id: z.uuid('Each tick needs an id of its own (a UUID).'),
        kitId: z.uuid(),
        component: z.string().min(1).max(255),
        action: z.enum(['packed', 'undone', 'checked']),
      }),
    )
    .min(1)
    .max(1000),
});

/** What the scale says: of a component of a kit, or of what is left of a food in its bowl. */
export const sentWeight = z.object({
  sessionId: z.uuid(),
  id: z.uuid(),
  kitId: z.uuid().nullable().default(null),
  component: z.string().max(255).default(''),
  food: z.string().max(190).default(''),
  grams: z.coerce.number('Write grams.').min(0, 'At least 0 g.').max(100_000),
});

export type SentTick = z.infer<typeof sentTicks>['ticks'][number];
