import type { SheetVariant } from '../kits/record/sheet-content';
import { add, divide, fromText, multiply, type Rational, rational, sign, ZERO } from '../quantity/rational';
import { sayGrams } from '../quantity/say';

/** Kits that can still be put right, with what they need of a food. */
export interface TopUp {
  /** Numbers of the kits that hold it, and have not gone. */
  readonly kits: readonly number[];
  /** To add to all of them, and to one on the average; '' where nobody said how much was short. */
  readonly more: string;
  readonly each: string;
}

/**
 * What kits that are still here need, where more of a food was needed in class than the recipe says.
 *
 * @param here kits that have not gone
 * @param percent of what the recipe says, that was needed beside it
 * @example
 * topUp([{ number: 1, variant: 'A' }], [{ letter: 'A', components: [{ ingredient: 'oats', grams: '80' }] }], 'oats', 25) //=> { kits: [1], more: '20 g', each: '20 g' }
 */
export function topUp(
  here: readonly { readonly number: number; readonly variant: string }[],
  variants: readonly Pick<SheetVariant, 'letter' | 'components'>[],
  food: string,
  percent: number,
): TopUp {
  const gramsIn = (letter: string): Rational =>
    (variants.find((variant) => variant.letter === letter)?.components ?? [])
      .filter(({ ingredient }) => ingredient === food)
      .reduce((sum, { grams }) => add(sum, fromText(grams)), ZERO);
  const holding = here.filter(({ variant }) => sign(gramsIn(variant)) > 0);
  const kits = holding.map(({ number }) => number).sort((a, b) => a - b);
  if (kits.length === 0 || percent <= 0) return { kits, more: '', each: '' };
  const all = holding.reduce((sum, { variant }) => add(sum, gramsIn(variant)), ZERO);
  const more = multiply(all, rational(percent, 100));
  return { kits, more: sayGrams(more), each: sayGrams(divide(more, rational(kits.length))) };
}
