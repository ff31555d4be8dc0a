import { Lags } from './lags';
import { placeHands } from './place-hands';
import {
  beginningOf,
  endOf,
  lengthOf,
  modelOf,
  type RunModel,
  type RunSheetAnswer,
  type RunSheetCase,
  type RunTask,
  type Shared,
} from './sheet-case';

const USUAL_SECONDS = 10;
/** Of the time, for the shortest; the rest is for dishes that end together. */
const FOR_MINUTES = 0.6;
/** Looks at so many choices between two looks at the clock. */
const LOOK_EVERY = 64;

interface Found {
  readonly starts: readonly number[];
  readonly hands: ReadonlyMap<number, number>;
}

/** What a search came to: the best it found, and whether it looked everywhere. */
interface Searched {
  readonly found: Found | undefined;
  readonly isWhole: boolean;
}

/**
 * Every task of a class with its start and its hands: in the fewest minutes, and of these with the dishes ending as near each other
 * as can be. By order: wherever more want a thing than there is of it, one of them goes before another, and every such choice is
 * tried (branch and bound over the choices, all consequences worked out).
 *
 * @param clock seconds since some moment
 */
export function planRunSheet(given: RunSheetCase, clock: () => number): RunSheetAnswer {
  const model = modelOf(given);
  const begun = clock();
  const seconds = given.seconds ?? USUAL_SECONDS;
  const root = rootOf(model);
  const shortest = root && fewestMinutes(model, root, begun + seconds * FOR_MINUTES, clock);
  if (!root || !shortest?.found) {
    if (root && shortest && !shortest.isWhole) return nothingFound(model, root);
    return { impossible: culprits(given, clock, begun + seconds) };
  }
  const minutes = minutesOf(model, shortest.found);
  const least = leastMinutes(model, root);
  const isShortest = shortest.isWhole || minutes === least;
  const together = leastSpread(model, root, minutes, shortest.found, begun + seconds, clock);
  return {
    minutes,
    spread: spreadOf(model, together.found),
    proven: { minutes: isShortest, spread: together.isWhole },
    ...(isShortest
      ? together.isWhole
        ? {}
        : { bound: { spread: together.bound } }
      : { bound: { minutes: Math.min(least, minutes) } }),
    tasks: tasksOf(model, together.found),
  };
}

const minutesOf = ({ tasks }: RunModel, { starts }: Found): number =>
  Math.max(0, ...tasks.map((task, at) => (starts[at] ?? 0) + lengthOf(task)));

function spreadOf({ tasks }: RunModel, { starts }: Found): number {
  const ends = new Map<string, number>();
  for (const [at, task] of tasks.entries())
    if (task.dish !== undefined)
      ends.set(task.dish, Math.max(ends.get(task.dish) ?? 0, (starts[at] ?? 0) + lengthOf(task)));
  return ends.size === 0 ? 0 : Math.max(...ends.values()) - Math.min(...ends.values());
}

const tasksOf = ({ tasks, hands }: RunModel, found: Found) =>
  tasks.map(({ id }, at) => {
    const pair = found.hands.get(at);
    return { task: id, start: found.starts[at] ?? 0, ...(pair === undefined ? {} : { hands: hands[pair]?.id ?? '' }) };
  });

/** Everything that follows from what waits for what; undefined where that goes round in a circle, or a thing is not there at all. */
function rootOf(model: RunModel, size = model.tasks.length + 2): Lags | undefined {
  if (model.shared.some(({ count }) => count < 1)) return undefined;
  const lags = Lags.of(size);
  for (const { from, to, minutes } of model.arcs) if (!lags.add(from, to, minutes)) return undefined;
  return lags;
}

/** What no plan is shorter than: the longest chain, and the work at each shared thing with what must come before and after. */
function leastMinutes(model: RunModel, root: Lags): number {
  const end = endOf(model);
  const beginning = beginningOf(model);
  const byWork = model.shared.map(({ users, count }) => {
    const work = users.reduce((sum, { minutes }) => sum + minutes, 0);
    const heads = Math.min(...users.map(({ task }) => root.get(beginning, task)));
    const tails = Math.min(...users.map(({ task, minutes }) => Math.max(0, root.get(task, end) - minutes)));
    return Math.ceil(work / count) + heads + tails;
  });
  return Math.max(root.get(beginning, end), ...byWork, 0);
}

/** Whoever gave up before anything was found says so, with what is known. */
function nothingFound(model: RunModel, root: Lags): RunSheetAnswer {
  const one = oneByOne(model);
  return {
    minutes: minutesOf(model, one),
    spread: spreadOf(model, one),
    proven: { minutes: false, spread: false },
    bound: { minutes: leastMinutes(model, root) },
    tasks: tasksOf(model, one),
  };
}

/** All tasks one after another: no plan, but a beginning. */
function oneByOne({ tasks, hands }: RunModel): Found {
  let now = 0;
  const starts = tasks.map((task) => {
    const start = now;
    now += lengthOf(task);
    return start;
  });
  return { starts, hands: placeHands(tasks, starts, hands) ?? new Map() };
}

/** A search through every choice. */
interface Search {
  readonly model: RunModel;
  readonly isOver: () => boolean;
  /** Told of a plan; returns the most minutes that one worth looking at may take from then on; undefined to stop. */
  readonly take: (found: Found) => number | undefined;
  most: number;
  isStopped: boolean;
  isCut: boolean;
}

function fewestMinutes(model: RunModel, root: Lags, until: number, clock: () => number): Searched {
  let best: Found | undefined;
  const least = leastMinutes(model, root);
  const search = newSearch(model, until, clock, (found) => {
    best = found;
    const minutes = minutesOf(model, found);
    return minutes <= least ? undefined : minutes - 1;
  });
  branch(search, root.copy());
  return { found: best, isWhole: !search.isCut };
}

function newSearch(model: RunModel, until: number, clock: () => number, take: Search['take']): Search {
  let looks = 0;
  return {
    model,
    isOver: () => ++looks % LOOK_EVERY === 0 && clock() > until,
    take,
    most: Number.POSITIVE_INFINITY,
    isStopped: false,
    isCut: false,
  };
}

/** Tries every choice from here on. */
function branch(search: Search, lags: Lags): void {
  if (search.isStopped) return;
  if (search.isOver()) {
    search.isCut = true;
    search.isStopped = true;
    return;
  }
  const { model, most } = search;
  const end = endOf(model);
  const beginning = beginningOf(model);
  if (most !== Number.POSITIVE_INFINITY && !lags.add(end, beginning, -most)) return;
  if (!settle(model, lags)) return;
  const starts = model.tasks.map((_, at) => lags.get(beginning, at));
  if (isTooMuch(model, lags, starts)) return;
  const clash = clashIn(model, lags, starts);
  if (clash.length === 0) {
    const hands = placeHands(model.tasks, starts, model.hands);
    if (!hands) {
      branchOn(search, lags, overlaps(model.tasks, starts));
      return;
    }
    const next = search.take({ starts, hands });
    if (next === undefined) search.isStopped = true;
    else search.most = Math.min(search.most, next);
    return;
  }
  branchOn(search, lags, clash);
}

/** One of two goes first: `first` takes its thing for so many minutes. */
interface Order {
  readonly first: number;
  readonly second: number;
  readonly minutes: number;
}

/** Each order that would end a clash in turn; what was tried is ruled out in those after it. */
function branchOn(search: Search, lags: Lags, orders: readonly Order[]): void {
  const beginning = beginningOf(search.model);
  const delay = ({ first, second, minutes }: Order) =>
    lags.get(beginning, first) + minutes - lags.get(beginning, second);
  const sorted = orders
    .filter(({ first, second, minutes }) => lags.allows(first, second, minutes))
    .sort((a, b) => delay(a) - delay(b));
  const rest = lags;
  for (const order of sorted) {
    if (search.isStopped) return;
    const { first, second, minutes } = order;
    const child = rest.copy();
    if (child.add(first, second, minutes)) branch(search, child);
    // From here on the second starts before the first is done with it.
    if (!rest.add(second, first, 1 - minutes)) return;
  }
}

/** Settles what has one order left: of two at one thing, two temperatures of one oven. @returns false where nothing is left */
function settle(model: RunModel, lags: Lags): boolean {
  for (let isNew = true; isNew; ) {
    isNew = false;
    for (const [one, other, minutesOne, minutesOther] of pairsApart(model)) {
      if (lags.get(one, other) >= minutesOne || lags.get(other, one) >= minutesOther) continue;
      const isFirst = lags.allows(one, other, minutesOne);
      const isSecond = lags.allows(other, one, minutesOther);
      if (isFirst && isSecond) continue;
      if (!isFirst && !isSecond) return false;
      if (isFirst ? !lags.add(one, other, minutesOne) : !lags.add(other, one, minutesOther)) return false;
      isNew = true;
    }
  }
  return true;
}

const APART = new WeakMap<RunModel, (readonly [number, number, number, number])[]>();

/** Tasks that never overlap, with the minutes of each that count. */
function pairsApart(model: RunModel): readonly (readonly [number, number, number, number])[] {
  const known = APART.get(model);
  if (known) return known;
  const pairs = model.shared
    .filter(({ count }) => count === 1)
    .flatMap(({ users }) =>
      users.flatMap((one, at) =>
        users.slice(at + 1).map((other) => [one.task, other.task, one.minutes, other.minutes] as const),
      ),
    );
  const oven = model.apart.map(
    ([one, other]) =>
      [one, other, lengthOf(model.tasks[one] as RunTask), lengthOf(model.tasks[other] as RunTask)] as const,
  );
  const all = [...pairs, ...oven];
  APART.set(model, all);
  return all;
}

/** Whether some span of time must hold more work than there are hands, tools or heat for it. */
function isTooMuch(model: RunModel, lags: Lags, starts: readonly number[]): boolean {
  const beginning = beginningOf(model);
  const latest = model.tasks.map((_, at) => -lags.get(at, beginning));
  for (const { users, count } of model.shared) {
    if (users.length <= count) continue;
    const froms = new Set(users.map(({ task }) => starts[task] as number));
    const tos = new Set(users.map(({ task, minutes }) => (latest[task] as number) + minutes));
    for (const from of froms)
      for (const to of tos) {
        if (to <= from) continue;
        let work = 0;
        for (const { task, minutes } of users) {
          const early = Math.min(to, (starts[task] as number) + minutes) - Math.max(from, starts[task] as number);
          const late = Math.min(to, (latest[task] as number) + minutes) - Math.max(from, latest[task] as number);
          work += Math.max(0, Math.min(early, late, minutes, to - from));
        }
        if (work > count * (to - from)) return true;
      }
  }
  return false;
}

/** The orders one of which ends a clash, for the clash with the fewest; none where nothing clashes at these starts. */
function clashIn(model: RunModel, lags: Lags, starts: readonly number[]): Order[] {
  let best: Order[] | undefined;
  const consider = (orders: Order[]) => {
    const open = orders.filter(({ first, second, minutes }) => lags.allows(first, second, minutes));
    if (!best || open.length < best.length) best = open;
  };
  for (const shared of model.shared) {
    for (const { task } of shared.users) {
      const now = starts[task] as number;
      const there = shared.users.filter((user) => {
        const start = starts[user.task] as number;
        return start <= now && now < start + user.minutes;
      });
      if (there.length > shared.count) consider(ordersAmong(lags, there.slice(0), shared));
      if (best && best.length <= 1) return best;
    }
  }
  for (const [one, other] of model.apart) {
    const [a, b] = [model.tasks[one] as RunTask, model.tasks[other] as RunTask];
    const [from, to] = [starts[one] as number, starts[other] as number];
    if (from < to + lengthOf(b) && to < from + lengthOf(a))
      consider([
        { first: one, second: other, minutes: lengthOf(a) },
        { first: other, second: one, minutes: lengthOf(b) },
      ]);
  }
  return best ?? [];
}

/** Of so many at one thing, one more than it bears: whichever of these leaves the fewest orders open. */
function ordersAmong(lags: Lags, there: Shared['users'][number][], { count }: Shared): Order[] {
  const openWith = (one: Shared['users'][number]) =>
    there.reduce(
      (sum, other) =>
        sum +
        (other === one
          ? 0
          : Number(lags.allows(one.task, other.task, one.minutes)) +
            Number(lags.allows(other.task, one.task, other.minutes))),
      0,
    );
  const few = there
    .map((user) => ({ user, open: openWith(user) }))
    .sort((a, b) => a.open - b.open || a.user.task - b.user.task)
    .slice(0, count + 1)
    .map(({ user }) => user);
  return few.flatMap((one) =>
    few.flatMap((other): Order[] =>
      one === other ? [] : [{ first: one.task, second: other.task, minutes: one.minutes }],
    ),
  );
}

/** Every order of two tasks whose hands overlap at these starts. */
const overlaps = (tasks: readonly RunTask[], starts: readonly number[]): Order[] =>
  tasks.flatMap((one, a) =>
    tasks.flatMap((other, b): Order[] => {
      if (a === b || one.on === 0 || other.on === 0) return [];
      const [from, to] = [starts[a] as number, starts[b] as number];
      return from < to + other.on && to < from + one.on ? [{ first: a, second: b, minutes: one.on }] : [];
    }),
  );

/** The plan of so few minutes whose dishes end nearest together. */
function leastSpread(
  model: RunModel,
  root: Lags,
  minutes: number,
  first: Found,
  until: number,
  clock: () => number,
): { readonly found: Found; readonly isWhole: boolean; readonly bound: number } {
  const { tasks } = model;
  const dishes = [...new Set(tasks.flatMap(({ dish }) => dish ?? []))];
  if (dishes.length < 2) return { found: first, isWhole: true, bound: 0 };
  let best = first;
  let [low, high] = [0, spreadOf(model, first)];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    const { found, isWhole } = within(model, root, minutes, middle, dishes, until, clock);
    if (found) {
      best = found;
      high = spreadOf(model, found);
    } else if (isWhole) low = middle + 1;
    else return { found: best, isWhole: false, bound: low };
  }
  return { found: best, isWhole: true, bound: low };
}

/** A plan of so few minutes whose dishes all end within so many minutes of each other. */
function within(
  model: RunModel,
  root: Lags,
  minutes: number,
  spread: number,
  dishes: readonly string[],
  until: number,
  clock: () => number,
): Searched {
  const { tasks } = model;
  const [end, beginning] = [endOf(model), beginningOf(model)];
  // One more than tasks, end and beginning: the moment at which the last of the dishes ends.
  const last = tasks.length + 2;
  const lags = rootOf(model, tasks.length + 3);
  if (!lags?.add(end, beginning, -minutes)) return { found: undefined, isWhole: true };
  lags.add(beginning, last, 0);
  for (const [at, task] of tasks.entries())
    if (task.dish !== undefined && !lags.add(at, last, lengthOf(task))) return { found: undefined, isWhole: true };
  /** Tasks with which a dish may end: those that nothing else of it must come after. */
  const lasts = dishes.map((dish) =>
    tasks.flatMap((task, at) => {
      if (task.dish !== dish) return [];
      const isBefore = tasks.some(
        (other, to) =>
          other.dish === dish &&
          to !== at &&
          root.get(at, to) + lengthOf(other) > lengthOf(task) &&
          root.get(at, to) >= 0,
      );
      return isBefore ? [] : [at];
    }),
  );
  let found: Found | undefined;
  let isWhole = true;
  const choose = (dish: number, own: Lags): void => {
    if (found) return;
    if (dish === dishes.length) {
      const search = newSearch(model, until, clock, (plan) => {
        found = plan;
        return undefined;
      });
      branch(search, own);
      if (search.isCut) isWhole = false;
      return;
    }
    for (const at of lasts[dish] ?? []) {
      const next = own.copy();
      if (next.add(last, at, -(spread + lengthOf(tasks[at] as RunTask)))) choose(dish + 1, next);
    }
  };
  choose(0, lags);
  return { found, isWhole };
}

/**
 * Tasks that cannot be done even alone together, none of which can be left out: one after another is left out, and stays out where
 * the rest cannot be done all the same.
 */
function culprits(given: RunSheetCase, clock: () => number, until: number): string[] {
  const can = (tasks: readonly RunTask[]): boolean => {
    const model = modelOf({ ...given, tasks });
    const root = rootOf(model);
    if (!root) return false;
    const { found, isWhole } = fewestMinutes(model, root, Math.max(until, clock() + 0.5), clock);
    return found !== undefined || !isWhole;
  };
  let left = given.tasks ?? [];
  for (const task of [...left]) {
    const without = left.filter((each) => each !== task);
    if (!can(without)) left = without;
  }
  return left.map(({ id }) => id);
}
