import { dayOf } from '../plan/civil';
import type { FoodNeed } from './needs';
import type { ShelfLine } from './plan';
import type { DateKind, Storage } from './stock';

/** What stands there, with its end. */
export interface Leftover {
  readonly lotId: string;
  readonly name: string;
  readonly ingredient: string;
  readonly grams: number;
  /** Grams that are open, and their last day; the last day of the rest. */
  readonly loose: number;
  readonly lastOpen: string;
  readonly last: string;
  readonly lastKind: DateKind;
  readonly storage: Storage;
  /** Freezing does it no harm that anybody minds. */
  readonly freezes: boolean;
}

/** A way to use something up. */
export type WayToUse =
  | { readonly kind: 'planned'; readonly sessionId: string; readonly day: string; readonly grams: number }
  | { readonly kind: 'wanted'; readonly sessionId: string; readonly day: string; readonly grams: number }
  | { readonly kind: 'recipe'; readonly recipeId: string; readonly title: string }
  | { readonly kind: 'freeze' | 'give away' | 'write off' };

export interface Unused extends Leftover {
  /** Grams that nothing planned uses. */
  readonly unclaimed: number;
  /** Days until it ends; less than 0 where it is past. */
  readonly days: number;
  readonly ways: readonly WayToUse[];
}

/** Soon: what ends within so many days is shown though a session uses it. */
const SOON_DAYS = 7;
const MOST_RECIPES = 3;

/**
 * Everything that is open or ends soon, with what uses it up: the plan, a session that needs the food before it ends, a recipe of
 * the programme, freezing, giving away. What nothing uses comes first, and of that what ends soonest.
 *
 * @param needs what sessions need, planned or not
 * @param recipes titles of recipes by the foods they take
 */
export function nothingLost(
  leftovers: readonly Leftover[],
  shelf: readonly ShelfLine[],
  needs: readonly FoodNeed[],
  recipes: readonly { readonly id: string; readonly title: string; readonly foods: readonly string[] }[],
  today: string,
): Unused[] {
  return leftovers
    .map((lot): Unused => {
      const end = lot.loose > 0 ? lot.lastOpen : lot.last;
      const days = dayOf(end) - dayOf(today);
      const planned = shelf.filter(({ lotId }) => lotId === lot.lotId).flatMap(({ uses }) => uses);
      const isPast = days < 0;
      const used = planned.reduce((sum, { grams = 0, units = 0 }) => sum + (units > 0 ? lot.grams : grams), 0);
      const inPlan = new Set(planned.map(({ needId }) => needId));
      const wanted = needs.filter(
        ({ id, ingredient, day }) => ingredient === lot.ingredient && !inPlan.has(id) && day >= today && day <= end,
      );
      const fitting = recipes.filter(({ foods }) => foods.includes(lot.ingredient)).slice(0, MOST_RECIPES);
      const ways: WayToUse[] =
        isPast && lot.lastKind === 'use by'
          ? [{ kind: 'write off' }]
          : [
              ...planned.map(({ sessionId, day, grams = 0 }): WayToUse => ({ kind: 'planned', sessionId, day, grams })),
              ...wanted.map(({ sessionId, day, grams = 0 }): WayToUse => ({ kind: 'wanted', sessionId, day, grams })),
              ...(planned.length + wanted.length === 0
                ? fitting.map(({ id, title }): WayToUse => ({ kind: 'recipe', recipeId: id, title }))
                : []),
              ...(lot.freezes && lot.storage !== 'freezer' && !isPast ? [{ kind: 'freeze' } as const] : []),
              ...(lot.loose === 0 && !isPast ? [{ kind: 'give away' } as const] : []),
            ];
      return { ...lot, unclaimed: isPast ? lot.grams : Math.max(0, lot.grams - used), days, ways };
    })
    .filter(({ loose, days }) => loose > 0 || days <= SOON_DAYS)
    .sort((a, b) => Number(b.unclaimed > 0) - Number(a.unclaimed > 0) || a.days - b.days);
}

/** What was lost once. Money in minor units, null where nobody knows a price of it. */
export interface Loss {
  readonly month: string;
  readonly reason: string;
  readonly grams: number;
  readonly money: number | null;
}

/** Losses added up by month and reason, newest month first. */
export function lossesBy(losses: readonly Loss[]): Loss[] {
  const sums = new Map<string, Loss>();
  for (const loss of losses) {
    const key = `${loss.month} ${loss.reason}`;
    const same = sums.get(key);
    sums.set(key, {
      ...loss,
      grams: loss.grams + (same?.grams ?? 0),
      money: loss.money === null && !same?.money ? null : (loss.money ?? 0) + (same?.money ?? 0),
    });
  }
  return [...sums.values()].sort((a, b) => b.month.localeCompare(a.month) || b.grams - a.grams);
}

/** A price of a product of a food: of its pack, or of a kilogram. */
export interface FoodPrice {
  readonly ingredient: string;
  readonly packGrams: number;
  readonly price: number | null;
  readonly soldBy: string;
}

/**
 * The least that a kilogram of each food costs anywhere, in minor units: what a gift of it is worth. Foods without a price are not in it.
 *
 * @example
 * leastOfKilogram([{ ingredient: 'egg', packGrams: 500, price: 200, soldBy: 'pack' }]).get('egg') //=> 400
 */
export function leastOfKilogram(prices: readonly FoodPrice[]): ReadonlyMap<string, number> {
  const least = new Map<string, number>();
  for (const { ingredient, packGrams, price, soldBy } of prices) {
    if (price === null) continue;
    const kilogram = soldBy === 'weight' ? price : (price * 1000) / packGrams;
    least.set(ingredient, Math.min(least.get(ingredient) ?? kilogram, kilogram));
  }
  return least;
}

/** What grams of a lot are worth: by the price of its pack, or of a kilogram where it is loose; 0 where nobody knows. */
export const worth = (
  grams: number,
  { price, packGrams }: { price: number | null; packGrams: number | null },
): number => (price === null ? 0 : Math.round((grams * price) / (packGrams ?? 1000)));
