import {
  add,
  compare,
  divide,
  multiply,
  ONE,
  type Rational,
  rational,
  roundHalfEven,
  toInteger,
  ZERO,
} from '../../quantity/rational';
import type { Recipe } from './recipe';

/** A pack as it is bought, with what is on its label. */
export interface Product {
  readonly ingredient: string;
  readonly name: string;
  readonly packGrams: Rational;
  /** Price of the pack in minor units of money; undefined while nobody has written it. */
  readonly price: number | undefined;
  /** On the label, for 100 g: salt in milligrams, energy in kilojoules. */
  readonly saltMg: number | undefined;
  readonly energyKj: number | undefined;
}

/** A sum of what is known, of so many foods. */
export interface Known {
  /** For one serving, in the unit of what is summed. */
  readonly perServing: number;
  readonly known: number;
  readonly of: number;
}

/** What a recipe costs and holds for one serving, as far as products are known. */
export interface ServingFigures {
  /** Minor units of money. */
  readonly cost: Known;
  readonly saltMg: Known;
  readonly energyKj: Known;
}

/**
 * Cost, salt and energy of one serving as it is written: of each food the product with the best price by weight, and what
 * its label says. Cost counts what is bought (trimmings and spare with it, part packs by their part), salt and energy what
 * is eaten. A food without a product is not known, and said to be missing: never taken for nothing.
 */
export function servingFigures(recipe: Recipe, products: readonly Product[]): ServingFigures {
  const chosen = recipe.lines.map(({ written }) =>
    bestOf(products.filter((each) => each.ingredient === written.ingredient.name)),
  );
  const sum = (perGram: (product: Product) => Rational | undefined, weigh: 'eaten' | 'bought'): Known => {
    let total = ZERO;
    let known = 0;
    for (const [at, { written }] of recipe.lines.entries()) {
      const product = chosen[at];
      const each = product && perGram(product);
      if (!each) continue;
      const eaten = multiply(written.amount, written.weight.grams);
      const bought = multiply(divide(eaten, written.yieldPortion), add(ONE, written.spare));
      total = add(total, multiply(each, weigh === 'bought' ? bought : eaten));
      known += 1;
    }
    return {
      perServing: toInteger(roundHalfEven(divide(total, rational(recipe.servings)))),
      known,
      of: recipe.lines.length,
    };
  };
  const per100 = (value: number | undefined) => (value === undefined ? undefined : rational(value, 100));
  return {
    cost: sum(priceOfGram, 'bought'),
    saltMg: sum(({ saltMg }) => per100(saltMg), 'eaten'),
    energyKj: sum(({ energyKj }) => per100(energyKj), 'eaten'),
  };
}

/** What a gram of a product costs, in minor units; undefined while nobody has written its price. */
export const priceOfGram = ({ price, packGrams }: Product): Rational | undefined =>
  price === undefined ? undefined : divide(rational(price), packGrams);

/** The product that is cheapest by weight; without prices, the first. */
export function bestOf(products: readonly Product[]): Product | undefined {
  return products.reduce<Product | undefined>((best, next) => {
    const [now, then] = [best && priceOfGram(best), priceOfGram(next)];
    if (!best || (then && (!now || compare(then, now) < 0))) return next;
    return best;
  }, undefined);
}
