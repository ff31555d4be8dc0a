import { dayOf, sayDay } from '../plan/civil';
import { sayMoney } from '../quantity/money';
import { rational } from '../quantity/rational';
import { sayCount, sayGrams } from '../quantity/say';
import { ripeningDays } from '../reference/waiting';
import type { BuyingPlan, Use } from './case';
import { type BuyingHelp, cheapestBuying } from './cheapest';
import type { BuyingSession, Eaters, FoodNeed } from './needs';
import {
  type AsCase,
  asCase,
  type Buyable,
  type BuyingWorld,
  coins,
  mergedNeeds,
  type ShelfPrice,
  type SoldBy,
  type Visit,
  visitsOf,
  whyShort,
} from './plan-case';

/** What something that is bought or stands there is for. */
export interface LineUse {
  readonly needId: string;
  readonly sessionId: string;
  readonly day: string;
  readonly grams?: number;
  readonly units?: number;
  readonly letters: readonly string[];
  /** What its label must not name, of what the products that are known hold. */
  readonly without: readonly string[];
  /** Who eats of it, with all they must be without: another product may hold anything. */
  readonly eaters: readonly Eaters[];
}

/** One product of a trip. */
export interface PlannedLine {
  readonly productId: string;
  readonly product: string;
  readonly ingredient: string;
  readonly aisle: string;
  readonly packs: number;
  readonly packGrams: number;
  readonly soldBy: SoldBy;
  /** Of one pack, bunch or piece; of a kilogram where it is sold by weight. Minor units. */
  readonly price: number;
  readonly cost: number;
  readonly uses: readonly LineUse[];
  /** Grams that no session of the plan uses. */
  readonly left: number;
  readonly why: string;
}

export interface PlannedTrip extends Visit {
  readonly lines: readonly PlannedLine[];
}

/** What is taken from a shelf. */
export interface ShelfLine {
  readonly lotId: string;
  readonly ingredient: string;
  readonly grams: number;
  readonly units: number;
  readonly uses: readonly LineUse[];
}

export interface Planned {
  readonly trips: readonly PlannedTrip[];
  readonly shelf: readonly ShelfLine[];
  /** Minor units, trips with it; grams that are lost. */
  readonly cost: number;
  readonly waste: number;
  readonly proven: { readonly cost: boolean; readonly waste: boolean };
  /** No plan costs less; only where that is not proven. */
  readonly bound?: number;
  /**
   * The same, each session bought by itself on the last visit before it: whole packs, and nothing goes on to the next. `spares` is
   * how many grams of what is bought would then be opened for nothing beside this plan.
   */
  readonly apart: { readonly cost: number; readonly spares: number; readonly sessions: number };
  /** What sessions need, each with only those allergens that tell its products apart. */
  readonly needs: readonly FoodNeed[];
  /** Needs that no visit, product and shelf can meet, how much is missing, and why. */
  readonly short: readonly { readonly needId: string; readonly missing: number; readonly why: string }[];
  /** Foods without any price or stock. */
  readonly holes: readonly string[];
  /** Sessions of which everything stands on a shelf already. */
  readonly ready: readonly string[];
}

/**
 * The cheapest right way to buy for all these sessions, with the reason of each line in words that were worked out.
 */
export function planBuying(
  given: BuyingWorld,
  sessions: readonly BuyingSession[],
  help: BuyingHelp,
  seconds: number,
): Planned {
  const world = { ...given, needs: mergedNeeds(given) };
  const made = asCase(world);
  const first = cheapestBuying({ ...made.given, seconds }, help);
  const missing = 'unmet' in first ? first.unmet : [];
  const without = new Set(missing.map(({ need }) => need));
  const needs = (made.given.needs ?? []).filter(({ id }) => !without.has(id));
  const answer = 'unmet' in first ? cheapestBuying({ ...made.given, needs, seconds }, help) : first;
  const plan: BuyingPlan =
    'unmet' in answer ? { cost: 0, waste: 0, proven: { cost: true, waste: true }, buy: [], use: [] } : answer;
  const needOf = new Map(world.needs.map((need) => [need.id, need]));
  const trips = tripsFrom(world, made, plan, needOf);
  // What the till and the way come to, line by line: what is weighed is rounded there.
  const cost = trips.reduce((sum, trip) => sum + trip.cost + trip.lines.reduce((all, line) => all + line.cost, 0), 0);
  return {
    trips,
    shelf: shelfFrom(plan, needOf),
    cost,
    waste: plan.waste,
    proven: plan.proven,
    ...(plan.bound?.cost === undefined ? {} : { bound: coins(plan.bound.cost) }),
    apart: boughtApart(world, sessions, plan, trips, help),
    needs: world.needs,
    short: missing.map(({ need, because }) => {
      const own = needOf.get(need);
      return { needId: need, missing: because.missing, why: own ? whyShort(own, world) : '' };
    }),
    holes: made.holes,
    ready: readyOf(world, sessions, made, plan, without),
  };
}

/** Sessions that wait for nothing: no line of a trip, planned or on its way, no hole, and nothing that cannot be met. */
function readyOf(
  world: BuyingWorld,
  sessions: readonly BuyingSession[],
  made: AsCase,
  plan: BuyingPlan,
  without: ReadonlySet<string>,
): string[] {
  const bought = new Set(plan.use.flatMap(({ need, bought: day }) => (day === undefined ? [] : [need])));
  const waits = new Set(
    world.needs.flatMap(({ id, sessionId, ingredient }) =>
      bought.has(id) || without.has(id) || made.holes.includes(ingredient) ? [sessionId] : [],
    ),
  );
  return sessions.flatMap(({ id }) => (waits.has(id) ? [] : [id]));
}

type Needs = ReadonlyMap<string, FoodNeed>;

const useOf = ({ need, grams, units }: Use, needs: Needs): LineUse[] => {
  const own = needs.get(need);
  if (!own) return [];
  const { sessionId, day, letters, without, eaters } = own;
  return [
    {
      needId: need,
      sessionId,
      day,
      letters,
      without,
      eaters,
      ...(grams === undefined ? {} : { grams }),
      ...(units === undefined ? {} : { units }),
    },
  ];
};

/** One entry for a need, whatever number of packs serves it. */
function together(uses: readonly LineUse[]): LineUse[] {
  const byNeed = new Map<string, LineUse>();
  for (const use of uses) {
    const same = byNeed.get(use.needId);
    const sum = (a?: number, b?: number) => (a === undefined && b === undefined ? undefined : (a ?? 0) + (b ?? 0));
    const grams = sum(same?.grams, use.grams);
    const units = sum(same?.units, use.units);
    byNeed.set(use.needId, {
      ...use,
      ...(grams === undefined ? {} : { grams }),
      ...(units === undefined ? {} : { units }),
    });
  }
  return [...byNeed.values()].sort((a, b) => a.day.localeCompare(b.day));
}

function tripsFrom(world: BuyingWorld, made: AsCase, plan: BuyingPlan, needs: Needs): PlannedTrip[] {
  const trips = new Map<Visit, PlannedLine[]>();
  for (const { product: id, day, packs } of plan.buy) {
    const visit = made.visitAt(day);
    const offer = made.offers.get(id);
    if (!visit || !offer) continue;
    const uses = together(
      plan.use.filter(({ from, bought }) => from === id && bought === day).flatMap((use) => useOf(use, needs)),
    );
    const line = lineFrom(world, offer, visit, packs, uses);
    trips.set(visit, [...(trips.get(visit) ?? []), line]);
  }
  return visitsOf(world).flatMap((visit) => {
    const lines = trips.get(visit);
    return lines ? [{ ...visit, lines: lines.sort((a, b) => a.ingredient.localeCompare(b.ingredient)) }] : [];
  });
}

/** Grams in one of what a price is for. */
const gramsOf = ({ packGrams }: Buyable, { soldBy }: ShelfPrice): number => (soldBy === 'weight' ? 100 : packGrams);

/** What so many cost, rounded as a till does. */
const costOf = ({ soldBy, price }: ShelfPrice, packs: number): number =>
  soldBy === 'weight' ? Math.round((packs * price) / 10) : packs * price;

function lineFrom(
  world: BuyingWorld,
  { product, price }: { product: Buyable; price: ShelfPrice },
  visit: Visit,
  packs: number,
  uses: readonly LineUse[],
): PlannedLine {
  const grams = gramsOf(product, price);
  const used = uses.reduce((sum, use) => sum + (use.grams ?? 0) + (use.units ?? 0) * grams, 0);
  const line = {
    productId: product.id,
    product: product.name,
    ingredient: product.ingredient,
    aisle: world.foodOf(product.ingredient)?.aisle ?? '',
    packs,
    packGrams: grams,
    soldBy: price.soldBy,
    price: price.price,
    cost: costOf(price, packs),
    uses,
    left: Math.max(0, Math.round(packs * grams - used)),
  };
  const { least = 1 } = price;
  const offered = least > 1 ? `From ${least} packs each costs ${sayMoney(price.price, world.currency ?? '')}. ` : '';
  return { ...line, why: `${offered}${whyOf(world, line, visit, used)}${ripeness(line, visit)}` };
}

/** How ripe it is bought, by the days until it is first used. */
function ripeness({ ingredient, uses }: Pick<PlannedLine, 'ingredient' | 'uses'>, { day }: Visit): string {
  const days = ripeningDays(ingredient);
  const first = uses[0]?.day;
  if (days === 0 || !first) return '';
  return dayOf(first) - dayOf(day) >= days
    ? ` Buy it hard: it ripens for about ${sayCount(days, 'day')}; look the day before, chill what is ripe.`
    : ' Buy it ripe: there is no time for it to ripen.';
}

/** "2 × Rice 1 kg at £1.89", "600 g of onions at £1.20 a kilogram" */
function sayBuy(
  name: string,
  packs: number,
  { soldBy, price, grams }: { soldBy: SoldBy; price: number; grams: number },
  currency: string,
): string {
  if (soldBy === 'weight')
    return `${sayGrams(rational(packs * grams))} of ${name} at ${sayMoney(price, currency)} a kilogram`;
  return `${packs} × ${name} at ${sayMoney(price, currency)}`;
}

/** Why this and not another: against the cheapest other product that could be had on that visit for the same. */
function whyOf(world: BuyingWorld, line: Omit<PlannedLine, 'why'>, visit: Visit, used: number): string {
  const { ingredient, productId, packs, soldBy, price, packGrams, cost, uses, left } = line;
  const others = world.prices.flatMap((other) => {
    const product = world.products.find(({ id }) => id === other.productId);
    const holds = (from = '', to = '9999') => from <= visit.day && visit.day <= to;
    if (!product || product.ingredient !== ingredient || product.id === productId || other.shopId !== visit.shopId)
      return [];
    if (!holds(other.from, other.to) || (other.least ?? 1) > 1) return [];
    const grams = gramsOf(product, other);
    const count = Math.ceil(used / grams);
    return [{ product, other, grams, count, cost: costOf(other, count) }];
  });
  const next = others.sort((a, b) => a.cost - b.cost)[0];
  const { currency = '' } = world;
  const own = sayBuy(line.product, packs, { soldBy, price, grams: packGrams }, currency);
  const parts: string[] = [];
  if (!next) parts.push(`${own}: nothing else of it has a price here`);
  else {
    const other = sayBuy(next.product.name, next.count, { ...next.other, grams: next.grams }, currency);
    if (next.cost > cost) parts.push(`${own} instead of ${other}: ${sayMoney(next.cost - cost, currency)} less`);
    else if (next.cost === cost) parts.push(`${own}: ${other} would cost the same`);
    else
      parts.push(
        `${own}: ${other} would cost less, but do not suit everybody’s label, keep long enough, or fit together`,
      );
  }
  const days = [...new Set(uses.map(({ day }) => day))];
  if (days.length > 1) parts.push(`shared by ${days.map(sayDay).join(', ')}`);
  parts.push(left > 0 ? `${sayGrams(rational(left))} left over` : 'nothing left over');
  return `${parts.join('; ')}.`;
}

function shelfFrom(plan: BuyingPlan, needs: Needs): ShelfLine[] {
  const byLot = new Map<string, Use[]>();
  for (const use of plan.use) {
    if (use.bought !== undefined) continue;
    const lotId = use.from.replace(/ open$/, '');
    byLot.set(lotId, [...(byLot.get(lotId) ?? []), use]);
  }
  return [...byLot].map(([lotId, uses]) => ({
    lotId,
    ingredient: needs.get(uses[0]?.need ?? '')?.ingredient ?? '',
    grams: uses.reduce((sum, { grams = 0 }) => sum + grams, 0),
    units: uses.reduce((sum, { units = 0 }) => sum + units, 0),
    uses: together(uses.flatMap((use) => useOf(use, needs))),
  }));
}

/** Each session by itself: what is there or on its way is used as in the plan, all else is bought on the last day before it. */
function boughtApart(
  world: BuyingWorld,
  sessions: readonly BuyingSession[],
  plan: BuyingPlan,
  trips: readonly PlannedTrip[],
  help: BuyingHelp,
): Planned['apart'] {
  const met = new Set(plan.use.map(({ need }) => need));
  const left = trips.reduce((sum, trip) => sum + trip.lines.reduce((all, line) => all + line.left, 0), 0);
  const there = new Map<string, { grams: number; units: number }>();
  const ordered = new Set(world.coming?.map(({ lotId }) => lotId));
  for (const { need, from, bought, grams = 0, units = 0 } of plan.use) {
    if (bought !== undefined && !ordered.has(from)) continue;
    const same = there.get(need) ?? { grams: 0, units: 0 };
    there.set(need, { grams: same.grams + grams, units: same.units + units });
  }
  const visits = visitsOf(world);
  const sum = { cost: 0, waste: 0, sessions: 0 };
  for (const session of sessions) {
    const needs = world.needs.flatMap((need): FoodNeed[] => {
      if (need.sessionId !== session.id || !met.has(need.id)) return [];
      const { grams, units } = there.get(need.id) ?? { grams: 0, units: 0 };
      if (need.units !== undefined) return need.units > units ? [{ ...need, units: need.units - units }] : [];
      return (need.grams ?? 0) > grams ? [{ ...need, grams: (need.grams ?? 0) - grams }] : [];
    });
    if (needs.length === 0) continue;
    const day = visits.filter((visit) => visit.day <= session.day).at(-1)?.day;
    /** undefined where the shops of these days do not have everything. */
    const onDays = (shown: typeof visits) => {
      const { given, holes } = asCase({ ...world, needs, stock: [], coming: [], visits: shown });
      const answer = holes.length > 0 ? undefined : cheapestBuying({ ...given, seconds: 2 }, help);
      return answer === undefined || 'unmet' in answer ? undefined : answer;
    };
    // What the last day's shops do not have is fetched on other days, as in the plan.
    const answer =
      onDays(visits.filter((visit) => visit.day === day)) ?? onDays(visits.filter((visit) => visit.day <= session.day));
    if (!answer) continue;
    sum.cost += coins(answer.cost);
    sum.waste += answer.waste;
    sum.sessions++;
  }
  return { cost: sum.cost, sessions: sum.sessions, spares: Math.max(0, sum.waste - left) };
}
