import { z } from 'zod';
import { PREP_ACTIONS } from '@/core/packing/prep/motion';
import { civilDate } from './plan';

/** What is said of motions of a prep day: each with an id its sender made. */
export const sentPrep = z.object({
  day: civilDate,
  events: z
    .array(
      z.object({
        id: z.uuid(),
        motion: z.string().min(1).max(190),
        cut: z.string().max(90).default(''),
        grams: z.number().int().min(0).max(10_000_000).default(0),
        action: z.enum(PREP_ACTIONS),
      }),
    )
    .min(1)
    .max(100),
});
export type SentPrep = z.output<typeof sentPrep>['events'][number];
