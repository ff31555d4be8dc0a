import { parseAmount } from '../../quantity/amount';
import { sayAmount, sayGrams } from '../../quantity/say';
import { readUnit } from '../../quantity/units';
import type { WrittenItem } from './recipe';

/** A written ingredient as a cook says it: "1½ cups carrot, grated". */
export const sayItem = ({ amount, unit, ingredient, preparation }: WrittenItem): string =>
  `${sayAmount(parseAmount(amount), readUnit(unit))} ${ingredient}${preparation ? `, ${preparation}` : ''}`;

/** What one sealed unit holds, said: "425 g". */
export const saySealed = (grams: string): string => sayGrams(parseAmount(grams));
