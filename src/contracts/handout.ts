import { z } from 'zod';
import { HANDINGS } from '@/core/handout/handing';

/** What a phone says of kits: each with an id it made, so that sending again changes nothing. */
export const sentHandings = z.object({
  sessionId: z.uuid(),
  events: z
    .array(
      z.object({
        id: z.uuid('Each needs an id of its own (a UUID).'),
        kitId: z.uuid(),
        what: z.enum(HANDINGS),
        who: z.string().trim().max(120, 'At most 120 characters.').default(''),
        item: z.string().trim().max(120, 'At most 120 characters.').default(''),
        /** When it happened, by the phone’s clock. */
        at: z.iso.datetime('Say when it happened, as 2026-03-02T16:05:00Z.'),
        /** The phone had no network then: it could not know what others did. */
        wasAway: z.boolean().default(false),
      }),
    )
    .min(1)
    .max(200, 'At most 200 at once.'),
});
export type SentHanding = z.output<typeof sentHandings>['events'][number];
