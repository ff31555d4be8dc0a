import type { Lags } from './lags';
import { placeHands } from './place-hands';
import { beginningOf, endOf, lengthOf, type RunModel, type RunTask, type Shared } from './sheet-case';

/** Looks at so many choices between two looks at the clock. */
const LOOK_EVERY = 8;

/** A plan: every start, and whose hands are on it. */
export interface Found {
  readonly starts: readonly number[];
  readonly hands: ReadonlyMap<number, number>;
}

/** A search through every choice. */
export interface Search {
  readonly model: RunModel;
  readonly isOver: () => boolean;
  /** Told of a plan; returns the most minutes that one worth looking at may take from then on; undefined to stop. */
  readonly take: (found: Found) => number | undefined;
  most: number;
  isStopped: boolean;
  isCut: boolean;
}

export function newSearch(model: RunModel, until: number, clock: () => number, take: Search['take']): Search {
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
export function branch(search: Search, lags: Lags): void {
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
