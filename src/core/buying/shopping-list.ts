import type { SheetTotal } from '../kits/record/sheet-content';
import { parseAmount } from '../quantity/amount';
import { ceil, compare, divide, fromText, multiply, rational, subtract } from '../quantity/rational';
import { sayCount, sayGrams } from '../quantity/say';
import { AISLE_TITLES } from '../reference/food-words';

/** One food to buy. */
export interface ShoppingItem {
  readonly ingredient: string;
  /** The one product whose label was read: kits are safe, and labels true, with this one alone. */
  readonly product?: string;
  /** What to take from the shelf: "2 packs of 1000 g", "19 units of 400 g", "18 pieces", "at least 84 g". */
  readonly buy: string;
  /** Where packs are bought: what is needed, and what will be left of them. */
  readonly need: string;
  readonly left: string;
}

export interface Aisle {
  readonly aisle: string;
  readonly title: string;
  readonly items: readonly ShoppingItem[];
}

/** The way through a shop: dry goods first, cold and frozen last, so that they stay cold. */
const ROUTE = ['produce', 'bakery', 'dry', 'spices', 'cans', 'dairy', 'meat', 'frozen'];

/**
 * The shopping list of a sheet's totals, by aisle in the order of a walk through the shop.
 *
 * @param products the products whose labels were read, by food
 */
export function shoppingList(totals: readonly SheetTotal[], products: Readonly<Record<string, string>> = {}): Aisle[] {
  const aisles = new Map<string, ShoppingItem[]>();
  for (const total of [...totals].sort((a, b) => (a.ingredient < b.ingredient ? -1 : 1))) {
    const items = aisles.get(total.aisle) ?? [];
    const product = products[total.ingredient];
    items.push({ ...shoppingItem(total), ...(product ? { product } : {}) });
    aisles.set(total.aisle, items);
  }
  const rank = (aisle: string) => (ROUTE.includes(aisle) ? ROUTE.indexOf(aisle) : ROUTE.length);
  return [...aisles]
    .sort(([a], [b]) => rank(a) - rank(b))
    .map(([aisle, items]) => ({ aisle, title: AISLE_TITLES[aisle] ?? aisle, items }));
}

function shoppingItem(total: SheetTotal): ShoppingItem {
  const { ingredient, packs, packGrams, sealedGrams, purchaseGrams, pieces, pieceUnit } = total;
  const need = purchaseGrams ? `${total.sayPurchase} needed` : `${total.sayEdible} packed`;
  if (sealedGrams && packs !== undefined && !purchaseGrams) {
    return { ingredient, buy: `${packs} × ${sealedGrams} g, sealed`, need, left: '' };
  }
  if (packs !== undefined && packGrams && purchaseGrams) {
    const grams = parseAmount(packGrams);
    const sealedPart = sealedGrams ? ' (whole packs included)' : '';
    const bought = rational(BigInt(packs) * BigInt(grams.n), grams.d);
    const left = sealedGrams ? '' : `${sayGrams(subtract(bought, fromText(purchaseGrams)))} left over`;
    return { ingredient, buy: `${sayCount(packs, 'pack')} of ${packGrams} g${sealedPart}`, need, left };
  }
  if (pieces !== undefined) {
    const unit =
      pieceUnit === 'each' ? (pieces === 1 ? 'piece' : 'pieces') : pieces === 1 ? pieceUnit : `${pieceUnit}s`;
    return { ingredient, buy: `${pieces} ${unit}`, need: `about ${total.sayPurchase}`, left: '' };
  }
  return { ingredient, buy: `at least ${atLeast(purchaseGrams ?? total.edibleGrams)}`, need: '', left: '' };
}

/** Never less than needed: up to whole grams, from 10 kg up to whole 10 g. */
function atLeast(grams: string): string {
  const exact = fromText(grams);
  const step = compare(exact, rational(10_000)) < 0 ? rational(1) : rational(10);
  return sayGrams(multiply(ceil(divide(exact, step)), step));
}
