import type { Milp, MilpAnswer, MilpRow, SolveMilp } from '../solver/milp';
import { assign } from './assign';
import type { Need, Unmet, Use } from './case';
import { dayByDay } from './day-by-day';
import { floorsOf } from './floors';
import { type FoodCase, type Loose, looseOf, type Opening, openingsOf, type Whole, wholesOf } from './sources';

/** The cheapest way to get one food on some trips. */
export interface FoodPlan {
  readonly cost: number;
  /** Grams; the least among the cheapest where it is said to be `settled`. */
  readonly waste: number;
  readonly proven: { readonly cost: boolean; readonly waste: boolean };
  /** No way costs less; and none as cheap loses less. */
  readonly bound: number;
  readonly leastWaste: number;
  /** Days on which something of it is bought. */
  readonly bought: readonly number[];
  readonly buy: readonly { readonly product: string; readonly day: number; readonly packs: number }[];
  readonly use: readonly Use[];
}

/** What may be decided about a food, as columns of a model. */
interface Model {
  readonly food: FoodCase;
  readonly openings: readonly Opening[];
  readonly wholes: readonly Whole[];
  readonly loose: readonly Loose[];
  /** Where the columns of what is used begin: first of the openings, then of what is loose; then whether an offer is taken. */
  readonly columns: { readonly use: number; readonly loose: number; readonly offer: number; readonly all: number };
  readonly uses: readonly (readonly [opening: number, need: number])[];
  readonly looseUses: readonly (readonly [loose: number, need: number])[];
  readonly rows: readonly MilpRow[];
}

/** @param isMet whether all needs are met: rows that only hold then spare the solver much */
function modelOf(food: FoodCase, days: readonly number[], isMet = true): Model {
  const openings = openingsOf(food, days);
  const wholes = wholesOf(food, days);
  const loose = looseOf(food);
  const uses = openings.flatMap(({ reaches }, at) => reaches.map((need) => [at, need] as const));
  const looseUses = loose.flatMap(({ reaches }, at) => reaches.map((need) => [at, need] as const));
  const use = openings.length + wholes.length;
  const offers = offersOf(food, [...openings, ...wholes]);
  const offer = use + uses.length + looseUses.length;
  const columns = { use, loose: use + uses.length, offer, all: offer + offers.length };
  const whole = (at: number) => openings.length + at;
  const served = (need: number) => [
    ...uses.flatMap(([, to], at) => (to === need ? [[use + at, 1] as const] : [])),
    ...looseUses.flatMap(([, to], at) => (to === need ? [[columns.loose + at, 1] as const] : [])),
  ];
  const rows: MilpRow[] = [
    ...food.needs.map(
      (need, at): MilpRow =>
        need.units === undefined
          ? { least: need.grams ?? 0, terms: served(at) }
          : {
              least: need.units,
              most: need.units,
              terms: wholes.flatMap((each, place) => (each.need === at ? [[whole(place), 1] as const] : [])),
            },
    ),
    // What is used out of opened packs is in them.
    ...openings.map(
      ({ pack }, at): MilpRow => ({
        least: 0,
        terms: [
          [at, pack] as const,
          ...uses.flatMap(([from], place) => (from === at ? [[use + place, -1] as const] : [])),
        ],
      }),
    ),
    ...loose.map(
      ({ grams }, at): MilpRow => ({
        most: grams,
        terms: looseUses.flatMap(([from], place) => (from === at ? [[columns.loose + place, 1] as const] : [])),
      }),
    ),
    ...limits(food, openings, wholes, whole),
    ...offers.flatMap(({ terms, least, most }, at): MilpRow[] => [
      { least: 0, terms: [...terms, [offer + at, -least]] },
      { most: 0, terms: [...terms, [offer + at, -most]] },
    ]),
    ...(isMet ? floorsOf(food, openings, loose) : []),
  ];
  return { food, openings, wholes, loose, uses, looseUses, columns, rows };
}

/** By product and trip that asks for so many packs at once: the columns of its packs, and the most that any plan buys. */
function offersOf(food: FoodCase, columns: readonly (Opening | Whole)[]) {
  return food.products.flatMap((product) => {
    const { least, pack } = product;
    if (least === undefined) return [];
    const days = [...new Set(columns.flatMap((each) => (each.product === product ? (each.bought ?? []) : [])))];
    const most = least + food.needs.reduce((sum, { grams = 0, units = 0 }) => sum + Math.ceil(grams / pack) + units, 0);
    return days.map((day) => ({
      least,
      most,
      terms: columns.flatMap((each, at) => (each.product === product && each.bought === day ? [[at, 1] as const] : [])),
    }));
  });
}

/** No more packs than there are, and than may be bought on one trip. */
function limits(
  food: FoodCase,
  openings: readonly Opening[],
  wholes: readonly Whole[],
  whole: (at: number) => number,
): MilpRow[] {
  const terms = (fits: (each: Opening | Whole) => boolean) => [
    ...openings.flatMap((each, at) => (fits(each) ? [[at, 1] as const] : [])),
    ...wholes.flatMap((each, at) => (fits(each) ? [[whole(at), 1] as const] : [])),
  ];
  const trips = [...new Set([...openings, ...wholes].flatMap(({ bought }) => bought ?? []))];
  return [
    ...food.stock.flatMap((lot) =>
      lot.pack === undefined ? [] : [{ most: lot.count ?? 0, terms: terms((each) => each.lot === lot) }],
    ),
    ...food.products.flatMap((product) =>
      product.most === undefined
        ? []
        : trips.map((day) => ({
            most: product.most as number,
            terms: terms((each) => each.product === product && each.bought === day),
          })),
    ),
  ].filter((row) => row.terms.length > 0);
}

const priceOf =
  ({ openings, wholes }: Model) =>
  (column: number): number =>
    (openings[column] ?? wholes[column - openings.length])?.price ?? 0;

/** Grams lost with each pack opened and each gram used, beside what is lost whatever is done. */
function wasteOf({ food, openings, wholes, loose, looseUses, columns }: Model) {
  const isLost = (last: number) => last < food.days;
  const costs = new Map<number, number>();
  // A pack of the stock that would go off unopened is lost anyway: opened, it is lost no more than that.
  const isClosed = ({ reaches, product, bought = 0 }: Opening) =>
    reaches.length === 0 && !isLost(bought + (product?.keeps ?? 0));
  for (const [at, opening] of openings.entries())
    costs.set(at, isClosed(opening) || (opening.lot && isLost(opening.lot.last)) ? 0 : opening.pack);
  for (const [at, { pack, lot }] of wholes.entries())
    costs.set(openings.length + at, lot && isLost(lot.last) ? -pack : 0);
  // What is served from lasting stock is not served from what would be lost.
  for (const [at, [from]] of looseUses.entries())
    costs.set(columns.loose + at, isLost(loose[from]?.lot.last ?? 0) ? 0 : 1);
  const needed = food.needs.reduce((sum, { grams = 0 }) => sum + grams, 0);
  const lost = food.stock.reduce(
    (sum, { last, grams = 0, pack = 0, count = 0 }) => sum + (isLost(last) ? grams + pack * count : 0),
    0,
  );
  return { costs, always: lost - needed };
}

const asMilp = (model: Model, costOf: (column: number) => number, more: readonly MilpRow[] = []): Milp => ({
  columns: Array.from({ length: model.columns.all }, (_, column) => ({
    cost: costOf(column),
    ...(column < model.columns.use ? { isWhole: true as const } : {}),
    ...(column >= model.columns.offer ? { isWhole: true as const, most: 1 } : {}),
  })),
  rows: [...model.rows, ...more],
});

/** How long the solver may still take, in seconds. */
export type SecondsLeft = () => number;

/**
 * The cheapest way to get a food on some trips, whatever the trips themselves cost.
 *
 * @returns undefined when it cannot be got on these; 'time' when nothing was found before the time was up
 */
export function cheapestFood(
  food: FoodCase,
  days: readonly number[],
  solve: SolveMilp,
  left: SecondsLeft,
): FoodPlan | undefined | 'time' {
  const model = modelOf(food, days);
  const quickly = withoutSolver(model);
  if (quickly === 'impossible') return undefined;
  if (quickly) return planFrom(model, quickly, { cost: true, waste: true });
  const price = priceOf(model);
  const answer = solve(asMilp(model, price), left());
  if (answer.status === 'impossible') return undefined;
  if (!('values' in answer)) return 'time';
  return planFrom(model, answer, { cost: answer.status === 'optimal', waste: false });
}

/** Found without the solver, where any pack of the food may serve any need of it. */
function withoutSolver(model: Model): Found | 'impossible' | undefined {
  const { food, openings, columns } = model;
  const packs = dayByDay(food, openings);
  if (!packs || packs === 'impossible') return packs;
  const cost = packs.reduce((sum, count, column) => sum + count * (openings[column]?.price ?? 0), 0);
  const values = Array.from({ length: columns.all }, (_, column) => packs[column] ?? 0);
  return { status: 'optimal', cost, bound: cost, values };
}

/** The same, and of all such ways the one that loses least. */
export function leastWaste(
  food: FoodCase,
  days: readonly number[],
  cheapest: FoodPlan,
  solve: SolveMilp,
  left: SecondsLeft,
): FoodPlan {
  if (cheapest.proven.waste) return cheapest;
  const model = modelOf(food, days);
  const { costs } = wasteOf(model);
  const price = priceOf(model);
  const paid = Array.from({ length: model.columns.use }, (_, column) => [column, price(column)] as const);
  const asCheap: MilpRow = { most: cheapest.cost, terms: paid.filter(([, each]) => each > 0) };
  const answer = solve(
    asMilp(model, (column) => costs.get(column) ?? 0, [asCheap]),
    left(),
  );
  if (!('values' in answer)) return cheapest;
  const found = planFrom(model, answer, { cost: cheapest.proven.cost, waste: answer.status === 'optimal' });
  const least = Math.ceil(answer.bound - 1e-6) + wasteOf(model).always;
  const plan = { ...found, bound: cheapest.bound, leastWaste: found.proven.waste ? found.waste : Math.max(0, least) };
  return plan.waste <= cheapest.waste ? plan : { ...cheapest, leastWaste: plan.leastWaste };
}

type Found = Extract<MilpAnswer, { values: readonly number[] }>;

/** The plan behind whole numbers of packs: what each serves is found anew, in whole grams. */
function planFrom(model: Model, { values, bound }: Found, proven: FoodPlan['proven']): FoodPlan {
  const { food, openings, wholes, loose } = model;
  const packs = openings.map((_, at) => Math.round(values[at] ?? 0));
  const units = wholes.map((_, at) => Math.round(values[openings.length + at] ?? 0));
  const served = assign(food, openings, packs, loose);
  const { costs, always } = wasteOf(model);
  const price = priceOf(model);
  const counts = [...packs, ...units];
  const cost = counts.reduce((sum, count, column) => sum + count * price(column), 0);
  const fromLoose = served.loose.reduce(
    (sum, { source, grams }) => sum + (loose[source] && loose[source].lot.last >= food.days ? grams : 0),
    0,
  );
  const waste = counts.reduce((sum, count, column) => sum + count * (costs.get(column) ?? 0), 0) + fromLoose + always;
  const bought = new Map<string, { product: string; day: number; packs: number }>();
  for (const [column, count] of counts.entries()) {
    const each = openings[column] ?? wholes[column - openings.length];
    if (!each?.product || each.bought === undefined || count === 0) continue;
    const key = `${each.product.id} ${each.bought}`;
    const same = bought.get(key) ?? { product: each.product.id, day: each.bought, packs: 0 };
    bought.set(key, { ...same, packs: same.packs + count });
  }
  const buy = [...bought.values()];
  const nameOf = (each: Opening | Whole) => (each.product ?? each.lot)?.id ?? '';
  const on = (each: Opening | Whole) => (each.bought === undefined ? {} : { bought: each.bought });
  const needId = (at: number) => (food.needs[at] as Need).id;
  return {
    cost,
    waste,
    proven,
    bound: Math.ceil(bound - 1e-6),
    leastWaste: proven.waste ? waste : 0,
    bought: [...new Set(buy.map(({ day }) => day))],
    buy,
    use: [
      ...served.opened.map(({ source, need, grams }): Use => {
        const each = openings[source] as Opening;
        return { need: needId(need), from: nameOf(each), ...on(each), opened: each.opened, grams };
      }),
      ...served.loose.map(
        ({ source, need, grams }): Use => ({ need: needId(need), from: loose[source]?.lot.id ?? '', grams }),
      ),
      ...units.flatMap((count, at): Use[] => {
        const each = wholes[at] as Whole;
        return count > 0 ? [{ need: needId(each.need), from: nameOf(each), ...on(each), units: count }] : [];
      }),
    ],
  };
}

/**
 * The fewest needs of a food without which all others can be met on these trips, and the least that is short of them.
 */
export function unmetOf(food: FoodCase, days: readonly number[], solve: SolveMilp, left: SecondsLeft): Unmet[] {
  const model = modelOf(food, days, false);
  const { all } = model.columns;
  const count = food.needs.length;
  const amount = (need: Need) => need.grams ?? need.units ?? 0;
  // For each need: whether it is given up, and what is then short of it.
  const rows = [
    ...model.rows.map(
      (row, at): MilpRow => (at < count ? { ...row, terms: [...row.terms, [all + count + at, 1]] } : row),
    ),
    ...food.needs.map(
      (need, at): MilpRow => ({
        most: 0,
        terms: [
          [all + count + at, 1],
          [all + at, -amount(need)],
        ],
      }),
    ),
  ];
  const milp = (cost: (column: number) => number, more: readonly MilpRow[]): Milp => ({
    columns: Array.from({ length: all + 2 * count }, (_, column) => ({
      cost: cost(column),
      ...(column >= all && column < all + count ? { most: 1, isWhole: true as const } : {}),
      ...(column < model.columns.use ? { isWhole: true as const } : {}),
      ...(column >= model.columns.offer && column < all ? { isWhole: true as const, most: 1 } : {}),
    })),
    rows: [...rows, ...more],
  });
  const isGivenUp = (column: number) => (column >= all && column < all + count ? 1 : 0);
  const fewest = solve(milp(isGivenUp, []), left());
  if (!('values' in fewest)) return [];
  const asFew: MilpRow = { most: Math.round(fewest.cost), terms: food.needs.map((_, at) => [all + at, 1]) };
  const least = solve(
    milp((column) => (column >= all + count ? 1 : 0), [asFew]),
    left(),
  );
  const { values } = 'values' in least ? least : fewest;
  return food.needs.flatMap((need, at): Unmet[] => {
    const missing = Math.round(values[all + count + at] ?? 0);
    return missing > 0 ? [{ need: need.id, because: { food: food.food, day: need.day, missing } }] : [];
  });
}
