import { type MeasureSystem, sayCount, sayGrams, sayPieces, sayScoops, sayWeight } from '../../quantity/say';
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
