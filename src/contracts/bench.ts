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
        action: z.enum(['packed', 'undone']),
      }),
    )
    .min(1)
    .max(1000),
});

export type SentTick = z.infer<typeof sentTicks>['ticks'][number];
