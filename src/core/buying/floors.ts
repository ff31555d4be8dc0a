import type { MilpRow } from '../solver/milp';
import type { Need } from './case';
import type { FoodCase, Loose, Opening } from './sources';

/** Above so many steps a floor by price is taken from the best price by weight: as true, less tight. */
const MOST_STEPS = 200_000;

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/**
 * Rows that every plan of a food holds, and that a relaxed one need not: for each span of days, the packs that can serve it weigh
 * at least what it needs, rounded up to what packs can come to; and what is bought for it costs at least what the cheapest set of
 * packs does that weighs as much, whenever it is opened. They change no plan, and spare the solver most of its search.
 *
 * @param openings columns 0 to n of the model
 */
export function floorsOf(food: FoodCase, openings: readonly Opening[], loose: readonly Loose[]): MilpRow[] {
  const needs = food.needs.map((need, at) => ({ need, at })).filter(({ need }) => (need.grams ?? 0) > 0);
  const dates = [...new Set(needs.map(({ need }) => need.day))].sort((a, b) => a - b);
  const prices = new Map<string, Cheapest>();
  const rows = new Map<string, MilpRow>();
  for (const without of withoutsOf(needs.map(({ need }) => need))) {
    const own = needs.filter(({ need }) => without.every((code) => need.without?.includes(code)));
    for (const [first, from] of dates.entries())
      for (const to of dates.slice(first)) {
        const within = own.filter(({ need }) => need.day >= from && need.day <= to);
        const wanted = new Set(within.map(({ at }) => at));
        const reaches = (each: { readonly reaches: readonly number[] }) => each.reaches.some((at) => wanted.has(at));
        const serving = openings.flatMap((opening, column) => (reaches(opening) ? [{ opening, column }] : []));
        const there = loose.filter(reaches).reduce((sum, { grams }) => sum + grams, 0);
        const demand = within.reduce((sum, { need }) => sum + (need.grams ?? 0), 0) - there;
        if (demand <= 0 || serving.length === 0) continue;
        const step = serving.reduce((least, { opening }) => gcd(least, opening.pack), 0);
        const key = serving.map(({ column }) => column).join(' ');
        add(rows, `grams ${key}`, {
          least: Math.ceil(demand / step) * step,
          terms: serving.map(({ opening, column }) => [column, opening.pack]),
        });
        const lots = [...new Set(serving.flatMap(({ opening }) => opening.lot ?? []))];
        const packed = lots.reduce((sum, { pack = 0, count = 0 }) => sum + pack * count, 0);
        const bought = serving.filter(({ opening }) => opening.product);
        const products = [...new Set(bought.map(({ opening }) => opening.product as NonNullable<Opening['product']>))];
        if (demand <= packed || products.length === 0) continue;
        const names = products.map(({ id }) => id).join(' ');
        const cheapest = prices.get(names) ?? cheapestPacks(products);
        prices.set(names, cheapest);
        add(rows, `price ${key}`, {
          least: cheapest(demand - packed),
          terms: bought.map(({ opening, column }) => [column, opening.price]),
        });
      }
  }
  return [...rows.values()];
}

/** Of rows about the same columns the one that asks for most. */
function add(rows: Map<string, MilpRow>, key: string, row: MilpRow): void {
  if ((rows.get(key)?.least ?? 0) < (row.least ?? 0)) rows.set(key, row);
}

/** Nothing, and each set of allergens that some need must be without. */
function withoutsOf(needs: readonly Need[]): (readonly string[])[] {
  const sets = new Map(needs.map(({ without = [] }) => [[...without].sort().join(' '), without]));
  return [[], ...[...sets.values()].filter(({ length }) => length > 0)];
}

/** What the cheapest set of packs costs that weighs at least so much. */
type Cheapest = (grams: number) => number;

function cheapestPacks(packs: readonly { readonly pack: number; readonly price: number }[]): Cheapest {
  const step = packs.reduce((least, { pack }) => gcd(least, pack), 0);
  const costs = [0];
  return (grams) => {
    const steps = Math.ceil(grams / step);
    if (steps > MOST_STEPS) return Math.floor(Math.min(...packs.map(({ pack, price }) => (price * grams) / pack)));
    for (let at = costs.length; at <= steps; at++) {
      let least = Number.POSITIVE_INFINITY;
      for (const { pack, price } of packs)
        least = Math.min(least, price + (costs[Math.max(0, at - pack / step)] as number));
      costs.push(least);
    }
    return costs[steps] as number;
  };
}
