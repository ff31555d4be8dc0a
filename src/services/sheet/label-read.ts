import type { Ingredient } from '@/core/reference/reference';
import { avoidanceLabel, labelGaps } from '@/core/safety/avoidances';
import { ServiceError } from '../errors';

/**
 * A label as it is kept.
 *
 * @throws ServiceError when it neither names nor denies what the food is made of: an empty label of tofu was not read
 */
export function labelOf(food: Ingredient, ticked: readonly string[]): readonly string[] {
  const gaps = labelGaps(food, ticked).map(avoidanceLabel);
  if (gaps.length > 0)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      {
        where: 'allergens',
        message: `${food.name} usually contains ${gaps.join(', ')}. Tick what the label names, or that this very product is without it.`,
      },
    ]);
  return ticked;
}
