import { add, ceil, divide, multiply, ONE, type Rational, rational, toInteger, ZERO } from '../../quantity/rational';
import type { Item } from '../../recipes/recipe/recipe';
import type { Component } from '../component';
import type { Portion } from '../portion';
import { isEquipment } from '../supply/supplied';

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
  const counts = new Map<Portion, { readonly item: Item; kits: number }>();
  for (const { count, components } of variants) {
    if (count === 0) continue;
    for (const component of components) {
      const { item, portion, from } = component;
      // It comes with something else that is bought, or is no food.
      if (from || isEquipment(component)) continue;
      const own = counts.get(portion);
      if (own) own.kits += count;
      else counts.set(portion, { item, kits: count });
    }
  }
  const byItem = new Map<Item, Sum>();
  const byFood = new Map<string, Sum[]>();
  for (const [portion, { item, kits }] of counts) {
    let sum = byItem.get(item);
    if (!sum) {
      sum = { item, grams: ZERO, pieces: ZERO, units: 0, kits: 0 };
      byItem.set(item, sum);
      const items = byFood.get(item.ingredient.name);
      if (items) items.push(sum);
      else byFood.set(item.ingredient.name, [sum]);
    }
    const times = rational(kits);
    sum.grams = add(sum.grams, multiply(portion.grams, times));
    if (item.unit.dimension === 'count') sum.pieces = add(sum.pieces, multiply(portion.exact, times));
    sum.units += (portion.sealedUnits ?? 0) * kits;
    sum.kits += kits;
  }
  return [...byFood].map(([ingredient, items]) => totalOf(ingredient, items));
}

/** A total of an item while it is added up. */
type Sum = { -readonly [Field in keyof ItemTotal]: ItemTotal[Field] };

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
