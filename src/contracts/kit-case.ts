import { z } from 'zod';
import { servings, writtenRecipe } from './recipe';

/** What `POST /api/v1/compute/kits` takes. Anything else in the object, such as a name, is passed over. */
export const kitCaseRequest = z.object({
  name: z.string().max(200).optional(),
  recipe: writtenRecipe,
  kits: z
    .array(
      z.strictObject({
        count: z
          .number()
          .int('Counts are whole numbers.')
          .min(1, 'At least 1 kit.')
          .max(100_000, 'At most 100,000 kits.'),
        servings,
        avoids: z.array(z.string().trim().min(1).max(80)).max(60).optional(),
      }),
    )
    .min(1, 'Say at least one kind of kit.')
    .max(500, 'At most 500 kinds of kit in one case.'),
  /** Also give the working of each number. */
  working: z.boolean().optional(),
});
