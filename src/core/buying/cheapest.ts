import type { SolveMilp } from '../solver/milp';
import type { BuyingAnswer, BuyingCase, BuyingPlan, Trip } from './case';
import { cheapestFood, type FoodPlan, leastWaste, unmetOf } from './food-plan';
import { type FoodCase, foodsOf } from './sources';

/** What a computation is given beside its case. */
export interface BuyingHelp {
  readonly solve: SolveMilp;
  /** Seconds since some moment. */
  readonly clock: () => number;
  /** Told how far it is: the best cost so far, and below what no plan can be. */
  readonly tell?: (best: number | undefined, bound: number) => void;
  /** True when it should stop, and give what it has. */
  readonly isStopped?: () => boolean;
}

const USUAL_SECONDS = 60;

/** A set of trips, as the bits of a number. */
type Trips = number;

/**
 * The cheapest way to buy for a whole plan, proven: fewest coins first, then least food lost.
 *
 * Once it is said which trips are made, foods do not touch each other. So sets of trips are looked through, and each food's best
 * on a set is found by a small model of its own and remembered: with fewer trips a food costs the same as long as none of the
 * trips that it used is missing. A set is not looked into when even with all trips still open it costs more than what was found.
 *
 * @returns the plan, or the fewest needs without which there is one
 */
export function cheapestBuying(
  given: BuyingCase,
  { solve, clock, tell, isStopped = () => false }: BuyingHelp,
): BuyingAnswer {
  const end = clock() + (given.seconds ?? USUAL_SECONDS);
  const left = () => Math.max(0.05, end - clock());
  const isOver = () => isStopped() || clock() >= end;
  const trips = [...(given.trips ?? [])].sort((a, b) => a.day - b.day);
  const foods = foodsOf(given).map((food) => foodBook(food, trips, solve, left));
  const all: Trips = 2 ** trips.length - 1;
  const unmet = foods.flatMap(({ food, best }) =>
    best(all) === undefined ? unmetOf(food, daysIn(trips, all), solve, left) : [],
  );
  if (unmet.length > 0) return { unmet };

  const costOf = (set: Trips) => trips.reduce((sum, { cost }, at) => sum + (has(set, at) ? cost : 0), 0);
  let best: { readonly cost: number; readonly sets: Set<Trips> } | undefined;
  let isWhole = true;
  const keep = (set: Trips, cost: number) => {
    if (!best || cost < best.cost) best = { cost, sets: new Set([set]) };
    else if (cost === best.cost) best.sets.add(set);
  };
  /** Looks through all sets that hold `made` and nothing outside `made` and `open`. @returns below what none of them costs */
  const look = (made: Trips, open: Trips): number => {
    const reach = made | open;
    const plans: FoodPlan[] = [];
    let floor = costOf(made);
    for (const food of foods) {
      const plan = food.best(reach);
      if (plan === undefined) return Number.POSITIVE_INFINITY;
      if (plan === 'time') {
        isWhole = false;
        return floor;
      }
      plans.push(plan);
      floor += plan.bound;
      if (best && floor > best.cost) return floor;
    }
    const used = plans.reduce((set, { bought }) => set | setOf(trips, bought), 0);
    keep(made | used, costOf(made | used) + plans.reduce((sum, { cost }) => sum + cost, 0));
    const undecided = used & ~made;
    if (undecided === 0) return floor;
    if (isOver()) {
      isWhole = false;
      return floor;
    }
    tell?.(best?.cost, floor);
    // The trip that most foods used says most, made or not.
    const next = mostUsed(undecided, plans, trips);
    return Math.min(look(made, open & ~next), look(made | next, open & ~next));
  };
  // A trip that costs nothing is made: without it nothing is cheaper, and perhaps more is lost.
  const free = trips.reduce((set, { cost }, at) => (cost === 0 ? set | (2 ** at) : set), 0);
  const bound = look(free, all & ~free);
  if (!best) return { unmet: [] };
  return settled(best, foods, trips, costOf, { isWhole, bound, isOver });
}

const has = (set: Trips, at: number): boolean => (set & (2 ** at)) !== 0;

const daysIn = (trips: readonly Trip[], set: Trips): number[] =>
  trips.flatMap(({ day }, at) => (has(set, at) ? [day] : []));

const setOf = (trips: readonly Trip[], days: readonly number[]): Trips =>
  trips.reduce((set, { day }, at) => (days.includes(day) ? set | (2 ** at) : set), 0);

function mostUsed(among: Trips, plans: readonly FoodPlan[], trips: readonly Trip[]): Trips {
  const counts = trips.map(({ day }, at) =>
    has(among, at) ? plans.filter(({ bought }) => bought.includes(day)).length : -1,
  );
  return 2 ** counts.indexOf(Math.max(...counts));
}

/** A food with what is known of it on sets of trips. */
interface FoodBook {
  readonly food: FoodCase;
  /** The cheapest way on a set of trips; undefined when there is none. */
  best(set: Trips): FoodPlan | undefined | 'time';
  /** The same, losing least. */
  least(set: Trips): FoodPlan | undefined;
}

function foodBook(food: FoodCase, trips: readonly Trip[], solve: SolveMilp, left: () => number): FoodBook {
  /** Trips on which anything of it could be bought that some need reaches. */
  const matters = setOf(
    trips,
    trips.flatMap(({ day }) =>
      food.products.some(
        ({ keeps, days }) =>
          (!days || days.includes(day)) && food.needs.some((need) => need.day >= day && need.day <= day + keeps),
      )
        ? [day]
        : [],
    ),
  );
  const known = new Map<Trips, FoodPlan | undefined>();
  const wasted = new Map<Trips, FoodPlan>();
  const best = (set: Trips): FoodPlan | undefined | 'time' => {
    const own = set & matters;
    if (known.has(own)) return known.get(own);
    for (const [other, plan] of known) {
      // Nothing it used is missing: it is the best here as well. What cannot be got with more trips cannot with fewer.
      if ((other & own) === own && (plan === undefined || (setOf(trips, plan.bought) & ~own) === 0)) {
        known.set(own, plan);
        return plan;
      }
    }
    const plan = cheapestFood(food, daysIn(trips, own), solve, left);
    if (plan !== 'time') known.set(own, plan);
    return plan;
  };
  return {
    food,
    best,
    least(set) {
      const own = set & matters;
      const plan = best(own);
      if (plan === undefined || plan === 'time') return undefined;
      const before = wasted.get(own);
      if (before) return before;
      const least = leastWaste(food, daysIn(trips, own), plan, solve, left);
      wasted.set(own, least);
      return least;
    },
  };
}

/** Of the cheapest sets of trips, the plan that loses least. */
function settled(
  best: { readonly cost: number; readonly sets: ReadonlySet<Trips> },
  foods: readonly FoodBook[],
  trips: readonly Trip[],
  costOf: (set: Trips) => number,
  how: { readonly isWhole: boolean; readonly bound: number; readonly isOver: () => boolean },
): BuyingPlan {
  let found: { plan: BuyingPlan; isProven: boolean } | undefined;
  let tried = 0;
  for (const set of best.sets) {
    if (found && how.isOver()) break;
    tried++;
    const plans = foods.map(({ least }) => least(set));
    if (plans.some((plan) => plan === undefined)) continue;
    const own = plans as FoodPlan[];
    const bought = own.reduce((made, plan) => made | setOf(trips, plan.bought), 0);
    const cost = costOf(bought) + own.reduce((sum, plan) => sum + plan.cost, 0);
    const waste = own.reduce((sum, plan) => sum + plan.waste, 0);
    if (found && (cost > found.plan.cost || (cost === found.plan.cost && waste >= found.plan.waste))) continue;
    const proven = how.isWhole && own.every((plan) => plan.proven.cost);
    found = {
      isProven: own.every((plan) => plan.proven.waste),
      plan: {
        cost,
        waste,
        proven: { cost: proven, waste: false },
        buy: own.flatMap((plan) => plan.buy),
        use: own.flatMap((plan) => plan.use),
      },
    };
  }
  if (!found) throw new Error('No plan was made of what was found.');
  const { plan, isProven } = found;
  const waste = plan.proven.cost && isProven && tried === best.sets.size;
  return {
    ...plan,
    proven: { cost: plan.proven.cost, waste },
    ...(plan.proven.cost ? {} : { bound: { cost: Math.min(how.bound, plan.cost) } }),
  };
}
