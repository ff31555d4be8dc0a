import { add, ceil, divide, multiply, ONE, type Rational, rational, toInteger, ZERO } from '../quantity/rational';
import type { Item } from '../recipes/recipe';
import type { Portion } from './portion';
import { isEquipment } from './supplied';
import type { Component } from './variant';

/** What one item comes to over all kits. */
export interface ItemTotal {
  readonly item: Item;
  /** Edible grams packed over all kits. */
  readonly grams: Rational;
  /** Pieces packed over all kits, for items counted in pieces. */
  readonly pieces: Rational;
  /** Sealed units over all kits. */
  readonly units: number;
  /** How many kits hold it. */
  readonly kits: number;
}

/** What one food comes to over all kits, and what must be bought for it. */
export interface Total {
  readonly ingredient: string;
  readonly edible: Rational;
  /** As-purchased grams with spare; undefined when the food is only sealed. */
  readonly purchase: Rational | undefined;
  /** Whole packs or sealed units to buy; undefined where no pack is stated. */
  readonly packs: number | undefined;
  readonly items: readonly ItemTotal[];
}

/**
 * Adds up what is packed, by food, in the order the foods first appear.
 *
 * Purchase: edible ÷ edible portion × (1 + spare). Packs: purchase ÷ pack, rounded up; for sealed items,
 * units × (1 + spare), rounded up. One food on several lines is bought together, by the first pack stated.
 */
export function totalsOf(
  variants: Iterable<{ readonly count: number; readonly components: readonly Component[] }>,
): Total[] {
  // Kits of one size hold the very same portion of most items: counted first, multiplied once.
  const byItem = new Map<Item, Map<Portion, number>>();
  for (const { count, components } of variants) {
    if (count === 0) continue;
    for (const component of components) {
      const { item, portion, from } = component;
      // It comes with something else that is bought, or is no food.
      if (from || isEquipment(component)) continue;
      let portions = byItem.get(item);
      if (!portions) {
        portions = new Map();
        byItem.set(item, portions);
      }
      portions.set(portion, (portions.get(portion) ?? 0) + count);
    }
  }
  const byFood = new Map<string, ItemTotal[]>();
  for (const [item, portions] of byItem) {
    const sum = { item, grams: ZERO, pieces: ZERO, units: 0, kits: 0 };
    for (const [portion, count] of portions) {
      const times = rational(count);
      sum.grams = add(sum.grams, multiply(portion.grams, times));
      if (item.unit.dimension === 'count') sum.pieces = add(sum.pieces, multiply(portion.exact, times));
      sum.units += (portion.sealedUnits ?? 0) * count;
      sum.kits += count;
    }
    const items = byFood.get(item.ingredient.name);
    if (items) items.push(sum);
    else byFood.set(item.ingredient.name, [sum]);
  }
  return [...byFood].map(([ingredient, items]) => totalOf(ingredient, items));
}

function totalOf(ingredient: string, items: readonly ItemTotal[]): Total {
  const pooled = items.filter(({ item }) => !item.sealedGrams);
  const sealed = items.filter(({ item }) => item.sealedGrams);
  const purchase = pooled.length > 0 ? pooled.map(purchaseOf).reduce(add) : undefined;
  const packGrams = packOf(items);
  let packs: number | undefined;
  if (purchase && packGrams) packs = toInteger(ceil(divide(purchase, packGrams)));
  if (sealed.length > 0) packs = (packs ?? 0) + sealed.reduce((sum, total) => sum + sealedPacks(total), 0);
  return { ingredient, edible: items.map(({ grams }) => grams).reduce(add), purchase, packs, items };
}

/** As-purchased grams for one pooled item, with its spare. */
export const purchaseOf = ({ item, grams }: ItemTotal): Rational =>
  multiply(divide(grams, item.yieldPortion), add(ONE, item.spare));

/** Sealed units to buy for one item, with its spare. */
export const sealedPacks = ({ item, units }: ItemTotal): number =>
  toInteger(ceil(multiply(rational(units), add(ONE, item.spare))));

/** Grams in one pack of a food: the first stated on its pooled lines. */
export const packOf = (items: readonly ItemTotal[]): Rational | undefined =>
  items.find(({ item }) => !item.sealedGrams && item.packGrams)?.item.packGrams;

/** Whole pieces to buy for items counted in pieces, with their spare, rounded up. */
export const piecesToBuy = (items: readonly ItemTotal[]): number =>
  toInteger(ceil(items.map(({ item, pieces }) => multiply(pieces, add(ONE, item.spare))).reduce(add, ZERO)));
