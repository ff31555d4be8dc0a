import { divide, multiply, type Rational, rational, roundHalfEven, toNumber } from '../../quantity/rational';
import { type MeasureSystem, sayCount, sayGrams, sayNumber, sayPieces, sayScoops, sayWeight } from '../../quantity/say';
import type { Item } from '../../recipes/recipe/recipe';
import type { Component } from '../component';

/** An item's name with its preparation: "carrot, grated". */
export const itemName = (item: Item): string =>
  item.preparation ? `${item.ingredient.name}, ${item.preparation}` : item.ingredient.name;

/** What a kit holds of a component, as a cook says it: "1⅓ cups", "2 cloves", "120 g", "1 sealed unit of 400 g". */
export function sayPortion({ item, portion }: Pick<Component, 'item' | 'portion'>, system: MeasureSystem): string {
  if (item.sealedGrams && portion.sealedUnits !== undefined) {
    return `${sayCount(portion.sealedUnits, 'sealed unit')} of ${sayGrams(item.sealedGrams)}`;
  }
  if (portion.scoops) return sayScoops(portion.scoops, system);
  if (item.unit.dimension === 'mass') return sayWeight(portion.grams, system);
  return sayPieces(portion.packed, item.unit);
}

/** Parts of a unit as a cook takes them. */
const PARTS: readonly (readonly [part: Rational, say: string])[] = [
  [rational(1, 8), 'an eighth'],
  [rational(1, 6), 'a sixth'],
  [rational(1, 4), 'a quarter'],
  [rational(1, 3), 'a third'],
  [rational(1, 2), 'half'],
  [rational(2, 3), 'two thirds'],
  [rational(3, 4), 'three quarters'],
];

/**
 * How much of whole units the recipe asks for, to the nearest part that a cook can cut or spoon out.
 *
 * @param used in units
 * @param units that the kit holds
 * @example
 * sayUse(rational(1, 4), 1) //=> 'use a quarter of it'
 * sayUse(rational(5, 4), 2) //=> 'use 1¼ of the 2'
 */
export function sayUse(used: Rational, units: number): string {
  if (units > 1)
    return `use ${sayNumber(divide(roundHalfEven(multiply(used, rational(4))), rational(4)))} of the ${units}`;
  const off = (part: Rational) => Math.abs(toNumber(used) - toNumber(part));
  const [, say] = PARTS.reduce((best, each) => (off(each[0]) < off(best[0]) ? each : best));
  return `use ${say} of it`;
}
