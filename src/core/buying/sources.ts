import { type BuyingCase, type BuyingProduct, type Need, type StockLot, suits } from './case';

/** Packs that may be opened on a day, with the needs that they then serve: alike however they were bought. */
export interface Opening {
  readonly product?: BuyingProduct;
  readonly lot?: StockLot;
  readonly pack: number;
  readonly price: number;
  /** The day on which it is bought; absent for stock. */
  readonly bought?: number;
  readonly opened: number;
  /** Places of the needs it reaches, rising. */
  readonly reaches: readonly number[];
}

/** Whole unopened packs for a need. */
export interface Whole {
  readonly product?: BuyingProduct;
  readonly lot?: StockLot;
  readonly pack: number;
  readonly price: number;
  readonly bought?: number;
  readonly need: number;
}

/** Loose stock, with the needs it reaches. */
export interface Loose {
  readonly lot: StockLot;
  readonly grams: number;
  readonly reaches: readonly number[];
}

/** One food of a case: what is needed of it, and all that could serve it, whichever trips are made. */
export interface FoodCase {
  readonly food: string;
  readonly days: number;
  readonly needs: readonly Need[];
  readonly products: readonly BuyingProduct[];
  readonly stock: readonly StockLot[];
}

/** A case by food: only trips are shared. */
export function foodsOf({ days, products = [], stock = [], needs = [] }: BuyingCase): FoodCase[] {
  const foods = [...new Set(needs.map(({ food }) => food))];
  const of = <Row extends { readonly food: string }>(rows: readonly Row[], food: string) =>
    rows.filter((row) => row.food === food);
  return foods.map((food) => ({
    food,
    days,
    needs: of(needs, food),
    products: of(products, food),
    stock: of(stock, food),
  }));
}

const gramNeeds = ({ needs }: FoodCase) => needs.flatMap((need, at) => (need.grams === undefined ? [] : [at]));

/** The day on which it is eaten. */
const lastOf = ({ day, until = day }: Need): number => Math.max(day, until);

/** Needs that a pack serves which is opened on a day and used until another. */
const reached = (food: FoodCase, holds: readonly string[] | undefined, from: number, to: number): number[] =>
  gramNeeds(food).filter((at) => {
    const need = food.needs[at] as Need;
    return need.day >= from && lastOf(need) <= to && suits(holds, need);
  });

/**
 * All openings of a food on some trips. A pack is opened on the day of a need: earlier it would only keep less long. Of openings
 * of one product those whose needs are all reached by another are left out, unless so few packs may be bought that it matters.
 *
 * @param days days on which the shop is visited, rising
 */
export function openingsOf(food: FoodCase, days: readonly number[]): Opening[] {
  const dates = [...new Set(gramNeeds(food).map((at) => (food.needs[at] as Need).day))].sort((a, b) => a - b);
  const bought = food.products.flatMap((product) => {
    const all = days
      .filter((day) => !product.days || product.days.includes(day))
      .flatMap((day) =>
        dates.flatMap((opened): Opening[] => {
          const last = day + product.keeps;
          if (opened < day + (product.ready ?? 0) || opened > last) return [];
          const until = Math.min(last, opened + (product.opened ?? product.keeps));
          const reaches = reached(food, product.holds, opened, until);
          if (reaches.length === 0) return [];
          return [{ product, pack: product.pack, price: product.price, bought: day, opened, reaches }];
        }),
      );
    // Packs that are bought only because an offer asks for so many stay closed: nothing of them is lost.
    const closed = days
      .filter((day) => product.least !== undefined && (!product.days || product.days.includes(day)))
      .map((day) => ({ product, pack: product.pack, price: product.price, bought: day, opened: day, reaches: [] }));
    return isCounted(product) ? [...all, ...closed] : widest(all);
  });
  const there = food.stock.flatMap((lot) => {
    const { pack, count = 0, last, opened: keeps, holds } = lot;
    if (pack === undefined || count === 0) return [];
    const all = dates.flatMap((opened): Opening[] => {
      if (opened > last) return [];
      const reaches = reached(food, holds, opened, Math.min(last, opened + (keeps ?? last)));
      return reaches.length > 0 ? [{ lot, pack, price: 0, opened, reaches }] : [];
    });
    return widest(all);
  });
  return [...bought, ...there];
}

/** How many are bought on one trip matters. */
export const isCounted = ({ most, least }: BuyingProduct): boolean => most !== undefined || least !== undefined;

/** Openings that reach something which no other reaches with all the rest of theirs; the first of those that are alike. */
function widest(openings: readonly Opening[]): Opening[] {
  const within = (a: Opening, b: Opening) => a.reaches.every((need) => b.reaches.includes(need));
  return openings.filter(
    (one, at) =>
      !openings.some(
        (other, place) =>
          place !== at && within(one, other) && (other.reaches.length > one.reaches.length || place < at),
      ),
  );
}

/** All ways to serve needs of whole packs on some trips; of trips that do the same, the last. */
export function wholesOf(food: FoodCase, days: readonly number[]): Whole[] {
  return food.needs.flatMap((need, at): Whole[] => {
    if (need.units === undefined) return [];
    const [least, most] = need.pack ?? [0, Number.POSITIVE_INFINITY];
    const fits = (pack: number | undefined, holds: readonly string[] | undefined): pack is number =>
      pack !== undefined && pack >= least && pack <= most && suits(holds, need);
    const bought = food.products.flatMap((product): Whole[] => {
      if (!fits(product.pack, product.holds)) return [];
      const on = days.filter(
        (day) =>
          day + (product.ready ?? 0) <= need.day &&
          lastOf(need) <= day + product.keeps &&
          (!product.days || product.days.includes(day)),
      );
      return (isCounted(product) ? on : on.slice(-1)).map((day) => ({
        product,
        pack: product.pack,
        price: product.price,
        bought: day,
        need: at,
      }));
    });
    const there = food.stock.flatMap((lot): Whole[] =>
      fits(lot.pack, lot.holds) && lastOf(need) <= lot.last ? [{ lot, pack: lot.pack, price: 0, need: at }] : [],
    );
    return [...bought, ...there];
  });
}

/** Loose stock of a food that any need reaches. */
export const looseOf = (food: FoodCase): Loose[] =>
  food.stock.flatMap((lot): Loose[] => {
    if (lot.grams === undefined) return [];
    return [{ lot, grams: lot.grams, reaches: reached(food, lot.holds, 0, lot.last) }];
  });
