import {
  add,
  ceil,
  compare,
  divide,
  floor,
  multiply,
  type Rational,
  rational,
  sign,
  subtract,
  toInteger,
  ZERO,
} from '../../quantity/rational';
import { bestOf, type Product } from '../../recipes/recipe/cost';
import type { Component } from '../component';
import type { KitSheet, Variant } from '../sheet/sheet';

/** Grams as bought of each food that was counted; a food left out is bought anyway and limits nothing. */
export type Stock = ReadonlyMap<string, Rational>;

/** A food that does not suffice for all kits. */
export interface Shortage {
  readonly ingredient: string;
  /** Kits that it alone would make. */
  readonly kits: number;
  /** Grams as bought that are missing for all kits, exact. */
  readonly missing: Rational;
  /** Whole packs that cover it and what they cost, where a product with a price is known. */
  readonly packs: number | undefined;
  readonly product: string | undefined;
  readonly cost: number | undefined;
  /** Kits that could be made if only this were bought. */
  readonly kitsWithIt: number;
}

/** What a stock makes of the kits of a sheet. */
export interface StockOutcome {
  readonly kits: number;
  readonly of: number;
  /** By variant, in the order they are packed: those made without something first. */
  readonly variants: readonly { readonly letter: string; readonly kits: number; readonly of: number }[];
  /** No more kits can be made. Else the search was cut short, and this many can be made for sure. */
  readonly isMost: boolean;
  /** What runs out, first what runs out first. */
  readonly shortages: readonly Shortage[];
  /** What it costs to buy all that is missing; undefined while a price is missing. */
  readonly rescue: number | undefined;
}

/** More ways of sharing a stock among variants than this are not tried. */
const MOST_TRIED = 20_000;

/** A variant as a stock sees it: how many are wanted, and grams as bought for one, of the counted foods. */
interface Wanted {
  readonly variant: Variant;
  readonly count: number;
  readonly uses: ReadonlyMap<string, Rational>;
}

/** As-purchased grams of a component: what is trimmed away is bought too. Spare is not counted: what is there, is used. */
function boughtOf({ item, portion }: Component): Rational {
  return item.sealedGrams ? portion.grams : divide(portion.grams, item.yieldPortion);
}

function usesOf(components: readonly Component[], stock: Stock): Map<string, Rational> {
  const uses = new Map<string, Rational>();
  for (const component of components) {
    const food = component.item.ingredient.name;
    if (component.from || !stock.has(food)) continue;
    uses.set(food, add(uses.get(food) ?? ZERO, boughtOf(component)));
  }
  return uses;
}

/**
 * How many kits of a sheet a stock makes, what runs out first, and what rescues the rest. The most kits are looked for,
 * whatever their variant: a kit is a child who cooks.
 */
export function whatItMakes(sheet: KitSheet, stock: Stock, products: readonly Product[]): StockOutcome {
  const wanted = sheet.variants
    .filter(({ components }) => components)
    .map(
      (variant): Wanted => ({
        variant,
        count: variant.participants.length,
        uses: usesOf(variant.components ?? [], stock),
      }),
    )
    .sort((a, b) => Number(b.variant.avoids.length > 0) - Number(a.variant.avoids.length > 0));
  const all = wanted.reduce((sum, { count }) => sum + count, 0);
  const { made, isMost } = mostKits(wanted, stock);
  const shortages = [...stock].flatMap(([ingredient, there]): Shortage[] => {
    const needed = wanted.reduce(
      (sum, { count, uses }) => add(sum, multiply(uses.get(ingredient) ?? ZERO, rational(count))),
      ZERO,
    );
    const missing = subtract(needed, there);
    if (sign(missing) <= 0) return [];
    const alone = mostKits(wanted, new Map([[ingredient, there]])).made;
    const others = new Map([...stock].filter(([food]) => food !== ingredient));
    const best = bestOf(products.filter((each) => each.ingredient === ingredient));
    const packs = best && toInteger(ceil(divide(missing, best.packGrams)));
    return [
      {
        ingredient,
        kits: total(alone),
        missing,
        packs,
        product: best?.name,
        cost: best?.price === undefined || packs === undefined ? undefined : best.price * packs,
        kitsWithIt: total(mostKits(wanted, others).made),
      },
    ];
  });
  shortages.sort((a, b) => a.kits - b.kits || (a.ingredient < b.ingredient ? -1 : 1));
  const costs = shortages.map(({ cost }) => cost);
  return {
    kits: total(made),
    of: all,
    variants: wanted.map(({ variant, count }, at) => ({ letter: variant.letter, kits: made[at] ?? 0, of: count })),
    isMost,
    shortages,
    rescue: costs.includes(undefined) ? undefined : costs.reduce<number>((sum, cost) => sum + (cost ?? 0), 0),
  };
}

const total = (made: readonly number[]) => made.reduce((sum, count) => sum + count, 0);

/** The most kits within a stock, by variant: every split that could make more is tried, up to a limit. */
function mostKits(wanted: readonly Wanted[], stock: Stock): { made: readonly number[]; isMost: boolean } {
  let best: readonly number[] = wanted.map(() => 0);
  let tried = 0;
  const place = (at: number, made: readonly number[], left: Stock): void => {
    if (tried > MOST_TRIED) return;
    if (at === wanted.length) {
      if (total(made) > total(best)) best = made;
      return;
    }
    const { uses, count } = wanted[at] as Wanted;
    for (let kits = atMost(uses, count, left); kits >= 0; kits--) {
      tried += 1;
      const rest = less(left, uses, kits);
      if (total(made) + kits + bound(wanted.slice(at + 1), rest) <= total(best)) {
        // Fewer of this one free something for the others, unless they have all they want already.
        if (bound(wanted.slice(at + 1), left) + total(made) + kits <= total(best)) return;
        continue;
      }
      place(at + 1, [...made, kits], rest);
    }
  };
  place(0, [], stock);
  return { made: best, isMost: tried <= MOST_TRIED };
}

/** Kits of one variant that a stock allows. */
const atMost = (uses: ReadonlyMap<string, Rational>, count: number, left: Stock): number =>
  Math.min(
    count,
    ...[...uses].flatMap(([food, each]) => {
      const there = left.get(food);
      return there && sign(each) > 0 ? [toInteger(floor(divide(there, each)))] : [];
    }),
  );

const less = (left: Stock, uses: ReadonlyMap<string, Rational>, kits: number): Stock =>
  new Map([...left].map(([food, there]) => [food, subtract(there, multiply(uses.get(food) ?? ZERO, rational(kits)))]));

/** No more kits than this: of each food alone, those that need least of it first. */
function bound(wanted: readonly Wanted[], left: Stock): number {
  let most = wanted.reduce((sum, { count }) => sum + count, 0);
  for (const [food, there] of left) {
    const sorted = wanted
      .map(({ count, uses }) => ({ count, each: uses.get(food) ?? ZERO }))
      .sort((a, b) => compare(a.each, b.each));
    let rest = there;
    let kits = 0;
    for (const { count, each } of sorted) {
      const fits = sign(each) > 0 ? Math.min(count, toInteger(floor(divide(rest, each)))) : count;
      kits += fits;
      rest = subtract(rest, multiply(each, rational(fits)));
      if (fits < count) break;
    }
    most = Math.min(most, kits);
  }
  return most;
}
