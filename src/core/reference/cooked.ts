import { parseAmount } from '../quantity/amount';
import type { Rational } from '../quantity/rational';
import facts from './facts/cooked.json';

/**
 * What a food weighs cooked for each gram dry or raw: 11/4 for rice. Typical kitchen yields, rounded to a quarter; they
 * differ with the pot, the time and the brand, and are told wherever they are used.
 */
const FACTORS: ReadonlyMap<string, Rational> = new Map(
  facts.flatMap(({ ingredients, factor }) => ingredients.map((name) => [name, parseAmount(factor)] as const)),
);

/** Cooked grams for each gram dry or raw; undefined where it is not known. */
export const cookedFactor = (ingredient: string): Rational | undefined => FACTORS.get(ingredient);
