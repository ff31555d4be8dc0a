import { z } from 'zod';
import { BATCH_FOODS, BATCH_KINDS } from '@/core/packing/made/batch';

const whole = (say: string, most: number) =>
  z.preprocess(
    (value) => (value === '' || value === undefined ? null : value),
    z.coerce.number(say).int('Whole numbers only.').min(1, 'At least 1.').max(most).nullable(),
  );

export const newBatch = z.object({
  sessionId: z.uuid(),
  /** Made by the screen that sends it: sent twice, it is one. */
  id: z.uuid(),
  name: z.string().trim().min(1, 'What is it?').max(190),
  food: z.enum(BATCH_FOODS).default('cooked'),
  kind: z.enum(BATCH_KINDS),
  grams: whole('Write grams.', 1_000_000),
  least: whole('Write minutes.', 10_080),
  most: whole('Write minutes.', 10_080),
});

export const newTemperature = z.object({
  sessionId: z.uuid(),
  batchId: z.uuid(),
  id: z.uuid(),
  /** In the programme’s degrees, as it is read: "41", "5.2"; empty: off the probe. */
  degrees: z.string().trim().max(8).default(''),
});

export const endedBatch = z.object({
  sessionId: z.uuid(),
  batchId: z.uuid(),
  version: z.coerce.number().int(),
  outcome: z.enum(['kept', 'served', 'thrown away', 'cooled anew']),
  /** Where it is kept. */
  storage: z.enum(['fridge', 'freezer']).default('fridge'),
  note: z.string().trim().max(200, 'At most 200 characters.').default(''),
});
