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
 * Once it is said which trips are made, foods do not touch each other: each food's best on a set of trips is found by a small model
 * of its own and remembered. With fewer trips it is never cheaper, and the same as long as none of the trips that it used is missing:
 * what is known of one set bounds many. Trips are first left out one by one as long as that saves something; then all other sets
 * are looked through, the most hopeful first, and left as soon as they must cost more than what was found.
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
  const books = foodsOf(given).map((food) => foodBook(food, trips, solve, left));
  const all: Trips = 2 ** trips.length - 1;
  const unmet = books.flatMap(({ food, best }) =>
    best(all) === undefined ? unmetOf(food, daysIn(trips, all), solve, left) : [],
  );
  if (unmet.length > 0) return { unmet };

  const costOf = (set: Trips) => trips.reduce((sum, { cost }, at) => sum + (has(set, at) ? cost : 0), 0);
  let found: { readonly cost: number; readonly sets: Set<Trips> } | undefined;
  let isWhole = true;
  /** Foods that lately ruled a set out come first. */
  const order = [...books];
  /** What buying on a set costs, with these trips paid whatever is bought on them; Infinity as soon as it is more than was found. */
  const weigh = (reach: Trips, made: Trips): { floor: number; used: Trips; plans: FoodPlan[] } => {
    const floors = new Map(order.map((book) => [book, book.floor(reach)]));
    let floor = costOf(made) + [...floors.values()].reduce((sum, each) => sum + each, 0);
    const plans: FoodPlan[] = [];
    for (const [at, book] of order.entries()) {
      const plan = floor > (found?.cost ?? Number.POSITIVE_INFINITY) ? undefined : book.best(reach);
      if (plan === undefined) {
        order.splice(0, 0, ...order.splice(Math.max(0, at - 1), 1));
        return { floor: Number.POSITIVE_INFINITY, used: 0, plans };
      }
      if (plan === 'time') {
        isWhole = false;
        return { floor, used: 0, plans: [] };
      }
      floor += plan.bound - (floors.get(book) ?? 0);
      plans.push(plan);
    }
    const used = plans.reduce((set, { bought }) => set | setOf(trips, bought), 0);
    const cost = costOf(made | used) + plans.reduce((sum, each) => sum + each.cost, 0);
    if (!found || cost < found.cost) found = { cost, sets: new Set([made | used]) };
    else if (cost === found.cost) found.sets.add(made | used);
    return { floor, used, plans };
  };

  // A trip that costs nothing is made: without it nothing is cheaper, and perhaps more is lost.
  const free = trips.reduce((set, { cost }, at) => (cost === 0 ? set | (2 ** at) : set), 0);
  const floorOf = (made: Trips, open: Trips) =>
    books.reduce((sum, book) => sum + book.floor(made | open), costOf(made));
  for (let set = all, isBetter = true; isBetter && !isOver(); ) {
    isBetter = false;
    const before: number = found?.cost ?? Number.POSITIVE_INFINITY;
    weigh(set, free);
    for (const [at] of trips.entries()) {
      if (!has(set & ~free, at) || isOver()) continue;
      weigh(set & ~(2 ** at), free);
    }
    const better: Trips | undefined = found && found.cost < before ? [...found.sets][0] : undefined;
    if (better !== undefined && better !== set) {
      set = better;
      isBetter = true;
    }
  }
  let open: readonly Look[] = [{ made: free, open: all & ~free, floor: floorOf(free, all & ~free) }];
  let bound = Number.POSITIVE_INFINITY;
  while (open.length > 0) {
    const next = open.reduce((least, each) => (each.floor < least.floor ? each : least));
    if (found && next.floor > found.cost) break;
    if (isOver()) {
      isWhole = false;
      bound = next.floor;
      break;
    }
    open = open.filter((each) => each !== next);
    const { floor, used, plans } = weigh(next.made | next.open, next.made);
    tell?.(found?.cost, floor);
    const undecided = used & ~next.made;
    if (floor > (found?.cost ?? 0) && floor === Number.POSITIVE_INFINITY) continue;
    if (undecided === 0) {
      bound = Math.min(bound, floor);
      continue;
    }
    // The trip that most foods used says most, made or not.
    const trip = mostUsed(undecided, plans, trips);
    const rest = next.open & ~trip;
    open = [
      ...open,
      ...[next.made, next.made | trip].map((made) => ({
        made,
        open: rest,
        floor: Math.max(floor, floorOf(made, rest)),
      })),
    ];
  }
  if (!found) return { unmet: [] };
  return settled(found, books, trips, costOf, { isWhole, bound: Math.min(bound, found.cost), isOver });
}

/** Sets of trips that hold `made` and nothing outside `made` and `open`; none of them costs less than `floor`. */
interface Look {
  readonly made: Trips;
  readonly open: Trips;
  readonly floor: number;
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
  /** Below what it cannot be had on a set of trips, by what is known of larger ones; Infinity where it cannot be had at all. */
  floor(set: Trips): number;
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
    floor(set) {
      const own = set & matters;
      let floor = 0;
      for (const [other, plan] of known)
        if ((other & own) === own) floor = Math.max(floor, plan?.bound ?? Number.POSITIVE_INFINITY);
      return floor;
    },
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
  let leastWaste = Number.POSITIVE_INFINITY;
  for (const set of best.sets) {
    if (found && how.isOver()) break;
    tried++;
    const plans = foods.map(({ least }) => least(set));
    if (plans.some((plan) => plan === undefined)) continue;
    const own = plans as FoodPlan[];
    const bought = own.reduce((made, plan) => made | setOf(trips, plan.bought), 0);
    const cost = costOf(bought) + own.reduce((sum, plan) => sum + plan.cost, 0);
    const waste = own.reduce((sum, plan) => sum + plan.waste, 0);
    leastWaste = Math.min(
      leastWaste,
      own.reduce((sum, plan) => sum + plan.leastWaste, 0),
    );
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
  const isAll = tried === best.sets.size;
  const waste = plan.proven.cost && isProven && isAll;
  const bound = plan.proven.cost
    ? { waste: isAll ? Math.min(leastWaste, plan.waste) : 0 }
    : { cost: Math.min(how.bound, plan.cost) };
  return { ...plan, proven: { cost: plan.proven.cost, waste }, ...(plan.proven.cost && waste ? {} : { bound }) };
}
