import { parseAmount } from '../quantity/amount';
import {
  AmountError,
  divide,
  multiply,
  type Rational,
  rational,
  roundHalfEven,
  sign,
  toNumber,
} from '../quantity/rational';
import { sayNumber } from '../quantity/say';

/** Amounts as cooks write them: small ones in quarters, larger ones in whole numbers, fives and tens. */
const STEPS: readonly (readonly [below: number, step: Rational])[] = [
  [2, rational(1, 4)],
  [10, rational(1, 2)],
  [50, rational(1)],
  [200, rational(5)],
  [Number.POSITIVE_INFINITY, rational(10)],
];

/**
 * A written amount changed by a part, as a cook would write it; undefined where it is no number.
 *
 * @param percent of what is written
 * @example scaledText('100', 125) //=> '125'
 * @example scaledText('1 1/2', 110) //=> '1¾'
 * @example scaledText('a pinch', 110) //=> undefined
 */
export function scaledText(amount: string, percent: number): string | undefined {
  try {
    const exact = multiply(parseAmount(amount), rational(percent, 100));
    const [, step] = STEPS.find(([below]) => toNumber(exact) < below) as (typeof STEPS)[number];
    const rounded = multiply(roundHalfEven(divide(exact, step)), step);
    return sayNumber(sign(rounded) > 0 ? rounded : step);
  } catch (error) {
    if (error instanceof AmountError) return undefined;
    throw error;
  }
}
