import { branch, type Found, newSearch } from './choices';
import { Lags } from './lags';
import { movedLater } from './later';
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
} from './sheet-case';

const USUAL_SECONDS = 10;
/** Of the time, for the shortest; the rest is for dishes that end together. */
const FOR_MINUTES = 0.6;
/** A look for a smaller spread gets this part of the time that is left: one that is too hard leaves some for an easier one. */
const SHARE = 3;
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
  const later = movedLater(model, first, minutes);
  let best = spreadOf(model, later) < spreadOf(model, first) ? later : first;
  let [low, high] = [0, spreadOf(model, best)];
  /** Below it there is nothing, for all that is proven. */
  let bound = 0;
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    const now = clock();
    if (now >= until) break;
    const { found, isWhole } = within(model, root, minutes, middle, dishes, now + (until - now) / SHARE, clock);
    if (found) {
      best = found;
      high = spreadOf(model, found);
    } else {
      if (isWhole && bound === low) bound = middle + 1;
      low = middle + 1;
    }
  }
  return { found: best, isWhole: bound >= spreadOf(model, best), bound };
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
