import { parseAmount } from '../../quantity/amount';
import { foodCounted, plainSay } from '../../quantity/plain-words';
import { compare, rational } from '../../quantity/rational';
import { sayAmount, sayGrams } from '../../quantity/say';
import { readUnit } from '../../quantity/units';
import type { Scaling, WrittenItem } from './recipe';

/** A written ingredient as a cook says it: "1½ cups carrot, grated", "4 apples, medium". */
export function sayItem({ amount, unit, ingredient, preparation }: WrittenItem): string {
  const [count, measure] = [parseAmount(amount), readUnit(unit)];
  const isSeveral = measure.key === 'each' && compare(count, rational(1)) > 0;
  return `${plainSay(sayAmount(count, measure))} ${foodCounted(ingredient, isSeveral)}${preparation ? `, ${preparation}` : ''}`;
}

/** What one can or sachet holds, said: "425 g". */
export const saySealed = (grams: string): string => sayGrams(parseAmount(grams));

/** How the amount of each way of scaling goes with the servings. */
export const SCALING_SAID: Readonly<Record<Scaling, string>> = {
  linear: 'with the servings',
  whole: 'in whole pieces, up',
  damped: 'by less than the servings',
  'per batch': 'by the batch',
  'per kit': 'the same in every kit',
};
