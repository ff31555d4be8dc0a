import { addDays, dayOf, sayDay } from '../plan/civil';
import { sayCount } from '../quantity/say';
import type { Ingredient } from '../reference/reference';
import { ripeningDays } from '../reference/waiting';
import { AVOIDANCES, avoidanceLabel, blockersOf, holdingsOf } from '../safety/avoidances';
import { isNamed } from '../safety/products-named';
import type { BuyingCase, BuyingProduct, StockLot } from './case';
import type { FoodNeed } from './needs';

/** A day on which a shop could be visited, and what going there costs in minor units. */
export interface Visit {
  readonly shopId: string;
  readonly day: string;
  readonly cost: number;
}

/** What a product costs in a shop. By weight: for a kilogram. */
export interface ShelfPrice {
  readonly shopId: string;
  readonly productId: string;
  readonly soldBy: SoldBy;
  readonly price: number;
  /** An offer holds on these days; a usual price always. */
  readonly from?: string;
  readonly to?: string;
  /** An offer may ask for so many packs at once. */
  readonly least?: number;
}

export const SOLD_BY = ['pack', 'bunch', 'piece', 'weight'] as const;
export type SoldBy = (typeof SOLD_BY)[number];

/** A product as buying sees it. */
export interface Buyable {
  readonly id: string;
  readonly ingredient: string;
  readonly name: string;
  readonly packGrams: number;
  /** Codes of its label; null while nobody has read it. */
  readonly label: readonly string[] | null;
}

/** What stands on a shelf. */
export interface OnShelf {
  readonly lotId: string;
  readonly ingredient: string;
  readonly product: string;
  readonly label: readonly string[] | null;
  readonly packs: number;
  readonly packGrams: number | null;
  readonly loose: number;
  readonly last: string;
  readonly lastOpen: string;
}

/** What the coordinator wants of the plan. */
export interface BuyingWishes {
  /** By food: the one product that is bought of it. */
  readonly pins?: Readonly<Record<string, string>>;
  /** Shops that are not visited, and single visits that are not made: "shop day". */
  readonly noShops?: readonly string[];
  readonly noVisits?: readonly string[];
  /** Minor units. */
  readonly budget?: number;
}

export interface BuyingWorld {
  readonly today: string;
  readonly needs: readonly FoodNeed[];
  readonly visits: readonly Visit[];
  readonly prices: readonly ShelfPrice[];
  readonly products: readonly Buyable[];
  readonly stock: readonly OnShelf[];
  /** What is on trips that somebody makes already: it comes on that day, and costs nothing more. */
  readonly coming?: readonly (Omit<OnShelf, 'last' | 'lastOpen'> & Visit)[];
  readonly foodOf: (name: string) => Ingredient | undefined;
  readonly wishes?: BuyingWishes;
  /** ISO 4217, for what is said of money. */
  readonly currency?: string;
}

/** What is sold by weight is taken in steps of so many grams; coins are counted in tenths, so that a step's price is whole. */
const STEP_GRAMS = 100;
const STEPS_OF_KILOGRAM = 1000 / STEP_GRAMS;
const TENTHS = 10;

/** Tells visits apart: a shop and a day. */
export const visitKey = ({ shopId, day }: Pick<Visit, 'shopId' | 'day'>) => `${shopId} ${day}`;
const ALLERGENS = AVOIDANCES.filter(({ kind }) => kind === 'allergen').map(({ code }) => code);
/** Where products were named for a need, it is met by no other: all others hold this. */
const otherThan = (name: string) => `other than ${name}`;

/** Allergens for which a product must not go into a kit: of its label, or of all its food may hold while that is unread. */
function blocked(food: Ingredient | undefined, label: readonly string[] | null): string[] {
  return food ? blockersOf(holdingsOf(food, label ?? undefined), ALLERGENS) : [];
}

/** The visits that may be made, in the order of their days and shops. */
export function visitsOf({ visits, wishes = {} }: Pick<BuyingWorld, 'visits' | 'wishes'>): Visit[] {
  const { noShops = [], noVisits = [] } = wishes;
  return visits
    .filter((visit) => !noShops.includes(visit.shopId) && !noVisits.includes(visitKey(visit)))
    .sort((a, b) => a.day.localeCompare(b.day) || a.shopId.localeCompare(b.shopId));
}

/**
 * Needs with only those allergens that some product or shelf of the food holds or may hold, taken together where they then ask for
 * the same: apples are apples for everybody.
 */
export function mergedNeeds({
  needs,
  products,
  stock,
  foodOf,
}: Pick<BuyingWorld, 'needs' | 'products' | 'stock' | 'foodOf'>): FoodNeed[] {
  const told = new Map<string, Set<string>>();
  for (const { ingredient, label } of [...products, ...stock]) {
    const codes = told.get(ingredient) ?? new Set(blocked(foodOf(ingredient), null));
    told.set(ingredient, codes);
    for (const code of blocked(foodOf(ingredient), label)) codes.add(code);
  }
  const merged = new Map<string, FoodNeed>();
  for (const need of needs) {
    const codes = told.get(need.ingredient) ?? new Set(blocked(foodOf(need.ingredient), null));
    const without = need.without.filter((code) => codes.has(code));
    const { sessionId, ingredient, grams, units, sealedGrams = 0, product = '' } = need;
    const id = [sessionId, ingredient, units === undefined ? 'g' : `u${sealedGrams}`, product, ...without]
      .join(' ')
      .trim();
    const same = merged.get(id);
    merged.set(id, {
      ...need,
      id,
      without,
      letters: [...new Set([...(same?.letters ?? []), ...need.letters])],
      eaters: [...(same?.eaters ?? []), ...need.eaters],
      ...(grams === undefined ? {} : { grams: grams + (same?.grams ?? 0) }),
      ...(units === undefined ? {} : { units: units + (same?.units ?? 0) }),
    });
  }
  return [...merged.values()];
}

/** Why a need cannot be met, in words, with what would help. */
export function whyShort(need: FoodNeed, world: BuyingWorld): string {
  const { products, prices, foodOf } = world;
  const priced = products.filter(
    ({ id, ingredient }) => ingredient === need.ingredient && prices.some(({ productId }) => productId === id),
  );
  if (need.product && !priced.some(({ name }) => isNamed(need.product, name)))
    return `Kits are made with “${need.product}”, and it has no price in any shop: write one down, or read the label of another.`;
  const suits = priced.filter(
    ({ label }) => blockersOf(holdingsOf(food(foodOf, need), label ?? undefined), need.without).length === 0,
  );
  if (need.without.length > 0 && suits.length === 0) {
    const unread = priced.find(({ label }) => label === null);
    const said = need.without.map(avoidanceLabel).join(', ');
    return unread
      ? `It must be without ${said}, and nobody has read the label of ${unread.name} yet: read it in the reference table.`
      : `It must be without ${said}, and no product with a price is.`;
  }
  if (need.units !== undefined && !suits.some(({ packGrams }) => isAround(packGrams, need.sealedGrams ?? 1)))
    return `Each kit gets a sealed one of ${need.sealedGrams} g, and none of that size has a price.`;
  const { daysWhole: keeps = 0, daysOpened = 0 } = foodOf(need.ingredient) ?? {};
  const stands = dayOf(need.until) - dayOf(need.day);
  if (stands > daysOpened)
    return `Once opened it keeps ${sayDays(daysOpened)}, and from taking it up to eating it there are ${stands}: pack it nearer to the day, or give a sealed one.`;
  return `No visit comes soon enough: it keeps ${sayDays(keeps)}, and is eaten by ${sayDay(need.until)}. Add a day to a shop.`;
}

const sayDays = (days: number) => sayCount(days, 'day');

const food = (foodOf: BuyingWorld['foodOf'], { ingredient }: FoodNeed): Ingredient =>
  foodOf(ingredient) ??
  ({ name: ingredient, contains: [], mayContain: [], diet: [], dietCheck: [] } as unknown as Ingredient);

/** A case of whole numbers, with what its ids stand for. */
export interface AsCase {
  readonly given: BuyingCase;
  /** Foods that nothing could be bought or taken of: no product has a price anywhere, and nothing stands on a shelf. */
  readonly holes: readonly string[];
  readonly offers: ReadonlyMap<string, { readonly product: Buyable; readonly price: ShelfPrice }>;
  /** A visit by the time of the case, and back. */
  visitAt(time: number): Visit | undefined;
  /** The civil day of a time. */
  dayAt(time: number): string;
}

/** The prices that count on a day: the least of those that hold for one pack, and each offer for several that is cheaper still. */
function pricesOn(prices: readonly ShelfPrice[], day: string): ShelfPrice[] {
  const now = prices.filter(({ from = '', to = '9999' }) => from <= day && day <= to);
  const cheapest = (all: readonly ShelfPrice[]) =>
    all.reduce<ShelfPrice | undefined>((best, each) => (best && best.price <= each.price ? best : each), undefined);
  const single = cheapest(now.filter(({ least = 1 }) => least <= 1));
  const several = [...new Set(now.map(({ least = 1 }) => least))].flatMap((least) =>
    least > 1 ? (cheapest(now.filter((each) => each.least === least)) ?? []) : [],
  );
  return [...(single ? [single] : []), ...several.filter(({ price }) => !single || price < single.price)];
}

/**
 * What has to be bought, as a case for the solver. Each shop has its own time on a day, so that two shops may be visited on one
 * day; food that is bought on a day may be used on that day, and until the end of its last.
 */
export function asCase(world: BuyingWorld): AsCase {
  const { today, needs, products, prices, stock, foodOf, wishes = {} } = world;
  const { pins = {} } = wishes;
  const visits = visitsOf(world);
  const shops = [...new Set(visits.map(({ shopId }) => shopId))].sort();
  const perDay = Math.max(1, shops.length);
  const dayNumber = (day: string) => dayOf(day) - dayOf(today);
  const endOf = (day: string) => dayNumber(day) * perDay + perDay - 1;
  const timeOf = ({ shopId, day }: Visit) => dayNumber(day) * perDay + shops.indexOf(shopId);
  const named = new Map(
    needs.flatMap(({ ingredient, product }) => (product ? [[`${ingredient} ${product}`, product] as const] : [])),
  );
  const holdsOf = (ingredient: string, name: string, label: readonly string[] | null, id?: string): string[] => [
    ...blocked(foodOf(ingredient), label),
    ...[...named].flatMap(([key, product]) =>
      key === `${ingredient} ${product}` && !isNamed(product, name) ? [otherThan(product)] : [],
    ),
    ...(pins[ingredient] !== undefined && pins[ingredient] !== id ? [otherThan(pins[ingredient])] : []),
  ];

  /** Bought hard where some visit leaves time for it to ripen before each need; else it must be bought ripe. */
  const ripeningOf = (ingredient: string): number => {
    const days = ripeningDays(ingredient);
    const first = needs.reduce(
      (day, need) => (need.ingredient === ingredient && need.day < day ? need.day : day),
      '9999',
    );
    return days > 0 && visits.some(({ day }) => addDays(day, days) <= first) ? days : 0;
  };

  const offers = new Map<string, { product: Buyable; price: ShelfPrice }>();
  const buyable = products.flatMap((product) => {
    const food = foodOf(product.ingredient);
    if (!needs.some(({ ingredient }) => ingredient === product.ingredient) || !food) return [];
    const ripens = ripeningOf(product.ingredient);
    const byPrice = new Map<string, { price: ShelfPrice; visits: Visit[] }>();
    for (const visit of visits) {
      const here = prices.filter(({ shopId, productId }) => shopId === visit.shopId && productId === product.id);
      for (const price of pricesOn(here, visit.day)) {
        const key = `${product.id} ${visit.shopId} ${price.price} ${price.least ?? 1}`;
        const same = byPrice.get(key) ?? { price, visits: [] };
        byPrice.set(key, { price, visits: [...same.visits, visit] });
      }
    }
    return [...byPrice].map(([id, { price, visits: days }]): BuyingProduct => {
      offers.set(id, { product, price });
      const isWeighed = price.soldBy === 'weight';
      return {
        id,
        food: product.ingredient,
        pack: isWeighed ? STEP_GRAMS : Math.max(1, Math.round(product.packGrams)),
        // By weight: a kilogram's price in coins is that of 100 g in tenths of one.
        price: isWeighed ? price.price : price.price * TENTHS,
        keeps: (food.daysWhole + ripens) * perDay + (perDay - 1 - shops.indexOf(price.shopId)),
        opened: food.daysOpened * perDay,
        ...(ripens > 0 ? { ready: ripens * perDay } : {}),
        holds: holdsOf(product.ingredient, product.name, product.label, product.id),
        days: days.map(timeOf),
        // By weight, an offer asks for so many kilograms.
        ...((price.least ?? 1) > 1 ? { least: (price.least ?? 1) * (isWeighed ? STEPS_OF_KILOGRAM : 1) } : {}),
      };
    });
  });
  const onTheWay = (world.coming ?? []).flatMap((line): BuyingProduct[] => {
    const visit = visits.find((each) => visitKey(each) === visitKey(line));
    const food = foodOf(line.ingredient);
    if (!visit || !food || !line.packGrams) return [];
    return [
      {
        id: line.lotId,
        food: line.ingredient,
        pack: Math.round(line.packGrams),
        price: 0,
        keeps: food.daysWhole * perDay + (perDay - 1 - shops.indexOf(line.shopId)),
        opened: food.daysOpened * perDay,
        holds: holdsOf(line.ingredient, line.product, line.label),
        days: [timeOf(visit)],
        most: line.packs,
      },
    ];
  });
  // Past its day nothing is proposed; it stays on the shelf until somebody writes it off.
  const there = stock
    .filter(({ last }) => last >= today)
    .flatMap((lot): StockLot[] => {
      const { lotId, ingredient: food, packs, packGrams, loose, last, lastOpen } = lot;
      const holds = holdsOf(food, lot.product, lot.label);
      const opened = (foodOf(food)?.daysOpened ?? 1) * perDay;
      return [
        ...(packs > 0 && packGrams
          ? [{ id: lotId, food, last: endOf(last), holds, pack: Math.round(packGrams), count: packs, opened }]
          : []),
        ...(loose > 0 && lastOpen >= today
          ? [{ id: `${lotId} open`, food, last: endOf(lastOpen), holds, grams: loose }]
          : []),
      ];
    });
  const sources = new Set([...buyable, ...onTheWay, ...there].map(({ food }) => food));
  const holes = [...new Set(needs.map(({ ingredient }) => ingredient))].filter((food) => !sources.has(food)).sort();
  const met = needs.filter(({ ingredient }) => sources.has(ingredient));
  const last = [today, ...met.map(({ until }) => until)].sort().at(-1) ?? today;
  return {
    holes,
    offers,
    dayAt: (time) => addDays(today, Math.floor(time / perDay)),
    visitAt: (time) => visits.find((visit) => timeOf(visit) === time),
    given: {
      days: (dayNumber(last) + 1) * perDay,
      trips: visits.map((visit) => ({ day: timeOf(visit), cost: visit.cost * TENTHS })),
      products: [...buyable, ...onTheWay],
      stock: there,
      needs: met.map((need) => ({
        id: need.id,
        food: need.ingredient,
        day: endOf(need.day),
        until: endOf(need.until),
        ...(need.units === undefined
          ? { grams: need.grams ?? 0 }
          : { units: need.units, pack: around(need.sealedGrams ?? 1) }),
        without: [
          ...need.without.filter((code) => ALLERGENS.includes(code)),
          ...(need.product ? [otherThan(need.product)] : []),
          ...(pins[need.ingredient] === undefined ? [] : [otherThan(pins[need.ingredient] as string)]),
        ],
      })),
    },
  };
}

/** Packs that pass for a sealed unit of a size: within 5 %. */
const around = (grams: number): [number, number] => [Math.floor(grams * 0.95), Math.ceil(grams * 1.05)];
/** Whether a pack passes for a sealed unit of a size. */
export const isAround = (pack: number, grams: number): boolean => pack >= around(grams)[0] && pack <= around(grams)[1];

/** Coins, from the tenths that a case counts in. */
export const coins = (tenths: number): number => Math.ceil(tenths / TENTHS);
