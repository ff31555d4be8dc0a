import { parseAmount } from '@/core/quantity/amount';
import { multiply, rational, toDecimal } from '@/core/quantity/rational';

/**
 * Things written a line each with how much of them there is: "carrot, 500 g", "zip bag 1 l". A thousand of the small unit are
 * one of the large.
 *
 * @param units the small unit, which an amount without a unit is in, and the large
 * @returns names, and amounts in the small unit; '' where none is written: the service that takes it says so
 */
export const amountLines = (
  text: string,
  [small, large]: readonly [string, string],
): { name: string; amount: string }[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => {
      const written = new RegExp(`^(.*?)[\\s,:]+(\\d+(?:\\.\\d+)?)\\s*(${large}|${small})?$`, 'i').exec(line);
      const [, name = line, amount = '', unit = small] = written ?? [];
      const isLarge = unit.toLowerCase() === large && amount !== '';
      return {
        name: name.trim(),
        amount: isLarge ? toDecimal(multiply(parseAmount(amount), rational(1000)), 6) : amount,
      };
    });
