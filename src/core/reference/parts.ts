import { parseAmount } from '../quantity/amount';
import { divide, type Rational } from '../quantity/rational';
import facts from './facts/parts.json';
import { measuresOf, type Reference } from './reference';

/** Foods of which one purchase gives several parts: a lemon its juice and its zest, a beetroot its root and its leaves. */
interface Parts {
  readonly ingredients: readonly string[];
  readonly parts: readonly { readonly part: string; readonly words: readonly string[] }[];
  /** The part that is meant where nothing is said; without it, the whole food is. */
  readonly rest?: string;
}

const BY_FOOD = new Map(
  (facts as readonly Parts[]).flatMap((row) => row.ingredients.map((name) => [name, row] as const)),
);

/**
 * The part of a food that a preparation uses; undefined when it takes the whole.
 *
 * @example partOf('lemon', 'zest of one') //=> 'zest'
 */
export function partOf(ingredient: string, preparation: string): string | undefined {
  const row = BY_FOOD.get(ingredient);
  if (!row) return undefined;
  const said = preparation.toLowerCase().split(/[^\p{L}]+/u);
  return row.parts.find(({ words }) => words.some((word) => said.includes(word)))?.part ?? row.rest;
}

/**
 * How much of one whole piece of a food, as it is bought, a part of it weighs: 48 ÷ 108 for the juice of a lemon; undefined
 * where the table weighs no such piece.
 */
export function partPortion(reference: Reference, ingredient: string, part: string): Rational | undefined {
  const pieces = measuresOf(reference, ingredient).filter(({ measure }) => measure === 'each');
  const own = pieces.find(({ preparation }) => partOf(ingredient, preparation) === part);
  const whole = pieces.find(({ preparation }) => partOf(ingredient, preparation) === undefined);
  if (!own || !whole) return undefined;
  // An orange is weighed peeled, and bought with its peel: 131 g of one of 185 g.
  const peeled = /\b(?:peeled|flesh)\b/.exec(whole.preparation)?.[0];
  const left = peeled && reference.yields.find((row) => row.ingredient === ingredient && row.preparation === peeled);
  const bought = left ? divide(parseAmount(whole.grams), parseAmount(left.ediblePortion)) : parseAmount(whole.grams);
  return divide(parseAmount(own.grams), bought);
}
