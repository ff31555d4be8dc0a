import { drive, goOn, type Roads, type Round, setOut } from './route-case';

/** Orders by driver, and the doors that nobody serves. */
export interface Plan {
  readonly orders: readonly (readonly number[])[];
  readonly missed: readonly number[];
}

interface State {
  orders: number[][];
  driving: number[];
  last: number[];
  missed: number[];
}

/** What a missed door weighs: more than any road. */
const MISSED = 1e6;
const LAST = 1e-4;
const costOf = ({ driving, last, missed }: State): number =>
  missed.length * MISSED + driving.reduce((sum, each) => sum + each, 0) + Math.max(0, ...last) * LAST;

/** Doors that are taken out at once on average, and the longest part of one round. */
const TAKEN = 10;
const LONGEST = 10;
/** One place in so many is passed over, so that not always the same is found. */
const BLINK = 0.01;

/**
 * Looks for rounds by taking strings of neighbouring doors out and putting them back where they cost least, again and again, at
 * first with a mind to accept what is worse (Christiaens and Vanden Berghe, "Slack induction by string removals", 2020).
 *
 * @param chance numbers from 0 to 1
 * @param part how much of the time is over, from 0 to 1
 * @param onRound told of each round that was driven on the way
 */
export function searchRoutes(
  roads: Roads,
  chance: () => number,
  part: () => number,
  onRound: (driver: number, order: readonly number[], driving: number, last: number) => void,
): Plan {
  const count = roads.stops.length;
  const near = nearest(roads);
  let now: State = {
    orders: roads.drivers.map(() => []),
    driving: roads.drivers.map(() => 0),
    last: roads.drivers.map(() => 0),
    missed: Array.from({ length: count }, (_, stop) => stop),
  };
  putBack(roads, now, chance, onRound);
  let best = now;
  let [costNow, costBest] = [costOf(now), costOf(best)];
  for (let gone = part(), step = 0; gone < 1; step++) {
    if (step % 20 === 0) gone = part();
    const next = takeOut(now, near, chance);
    for (const driver of roads.drivers.keys()) settle(roads, next, driver, onRound);
    putBack(roads, next, chance, onRound);
    const cost = costOf(next);
    const heat = 20 * 0.01 ** gone;
    if (cost < costNow - heat * Math.log(Math.max(1e-9, chance()))) [now, costNow] = [next, cost];
    if (cost < costBest) [best, costBest] = [next, cost];
  }
  return { orders: best.orders, missed: best.missed };
}

/** Doors by how near each is to a door, itself first. */
function nearest({ minutes, place, stops }: Roads): number[][] {
  const way = (a: number, b: number) =>
    (minutes[place[a] as number] as readonly number[])[place[b] as number] as number;
  return stops.map((_, stop) =>
    Array.from(stops.keys()).sort((a, b) => way(stop, a) + way(a, stop) - way(stop, b) - way(b, stop)),
  );
}

function takeOut(from: State, near: readonly number[][], chance: () => number): State {
  const orders = from.orders.map((order) => [...order]);
  const missed = [...from.missed];
  const rounds = orders.filter(({ length }) => length > 0);
  const average = rounds.reduce((sum, { length }) => sum + length, 0) / Math.max(1, rounds.length);
  const longest = Math.min(LONGEST, Math.max(1, average));
  const strings = Math.floor(chance() * ((4 * TAKEN) / (1 + longest))) + 1;
  const touched = new Set<number>();
  for (const stop of near[Math.floor(chance() * near.length)] ?? []) {
    if (touched.size >= strings) break;
    const driver = orders.findIndex((order) => order.includes(stop));
    if (driver < 0 || touched.has(driver)) continue;
    touched.add(driver);
    const order = orders[driver] as number[];
    const length = Math.min(order.length, Math.floor(chance() * longest) + 1);
    const at = order.indexOf(stop);
    const lowest = Math.max(0, at - length + 1);
    const start = lowest + Math.floor(chance() * (Math.min(at, order.length - length) - lowest + 1));
    missed.push(...order.splice(start, length));
  }
  return { orders, driving: [...from.driving], last: [...from.last], missed };
}

/** Works a driver's round out again; a part of a round can be driven where the whole could, but for ways that are longer round. */
function settle(roads: Roads, state: State, driver: number, onRound: Parameters<typeof searchRoutes>[3]): void {
  const order = state.orders[driver] as number[];
  while (order.length > 0) {
    const end = drive(roads, roads.drivers[driver] as Roads['drivers'][number], order);
    if (end) {
      [state.driving[driver], state.last[driver]] = [end.driving, end.last];
      onRound(driver, order, end.driving, end.last);
      return;
    }
    state.missed.push(order.pop() as number);
  }
  [state.driving[driver], state.last[driver]] = [0, 0];
}

const ORDERS: readonly ((roads: Roads, stop: number, chance: () => number) => number)[] = [
  (_roads, _stop, chance) => chance(),
  ({ stops }, stop) => -(stops[stop]?.litres ?? 0),
  ({ stops }, stop) => (stops[stop]?.window[1] ?? 0) - (stops[stop]?.window[0] ?? 0),
  ({ stops }, stop) => stops[stop]?.cold ?? Number.MAX_SAFE_INTEGER,
  ({ minutes, place }, stop) => -((minutes[0] as readonly number[])[place[stop] as number] as number),
];

/** Puts the doors that nobody serves where they cost least; those that fit nowhere stay. */
function putBack(roads: Roads, state: State, chance: () => number, onRound: Parameters<typeof searchRoutes>[3]): void {
  const rank = ORDERS[Math.floor(chance() * ORDERS.length)] as (typeof ORDERS)[number];
  const waiting = state.missed
    .map((stop) => ({ stop, rank: rank(roads, stop, chance) }))
    .sort((a, b) => a.rank - b.rank);
  state.missed = [];
  const { minutes, place } = roads;
  const way = (from: number, to: number) => (minutes[from] as readonly number[])[to] as number;
  const known = state.orders.map((order, driver) => profileOf(roads, driver, order));
  for (const { stop } of waiting) {
    const here = place[stop] as number;
    const litres = roads.stops[stop]?.litres ?? 0;
    let found: { driver: number; at: number; more: number } | undefined;
    for (const [driver, order] of state.orders.entries()) {
      const own = roads.drivers[driver] as Roads['drivers'][number];
      const profile = known[driver] as Profile;
      if (profile.litres + litres > (own.litres ?? Number.POSITIVE_INFINITY)) continue;
      for (let at = 0; at <= order.length; at++) {
        const before = profile.before[at] as Round;
        const next = at < order.length ? (place[order[at] as number] as number) : own.home ? 0 : undefined;
        const saved = next === undefined || order.length === 0 ? 0 : way(before.at, next);
        const more = way(before.at, here) + (next === undefined ? 0 : way(here, next)) - saved;
        if ((found && more >= found.more) || chance() < BLINK) continue;
        const round = goOn(roads, own, before, stop);
        if (round && bears(profile, at, round, next === undefined ? 0 : way(here, next))) found = { driver, at, more };
      }
    }
    const own = found && (roads.drivers[found.driver] as Roads['drivers'][number]);
    const order = found && (state.orders[found.driver] as number[]).toSpliced(found.at, 0, stop);
    const end = own && order && drive(roads, own, order);
    if (!found || !order || !end) {
      state.missed.push(stop);
      continue;
    }
    const { driver } = found;
    state.orders[driver] = order;
    [state.driving[driver], state.last[driver]] = [end.driving, end.last];
    known[driver] = profileOf(roads, driver, order);
    onRound(driver, order, end.driving, end.last);
  }
}

/**
 * What a round bears at each of its doors, worked out once: the round before it, and of the door with all after it until when it is
 * reached at the latest, how long after leaving at the most, and not before which leaving.
 */
interface Profile {
  readonly before: readonly Round[];
  readonly latest: readonly number[];
  readonly longest: readonly number[];
  readonly notBefore: readonly number[];
  readonly litres: number;
}

function profileOf(roads: Roads, driver: number, order: readonly number[]): Profile {
  const own = roads.drivers[driver] as Roads['drivers'][number];
  const way = (from: number, to: number) => (roads.minutes[from] as readonly number[])[to] as number;
  const before: Round[] = [setOut(own)];
  for (const stop of order) before.push(goOn(roads, own, before.at(-1) as Round, stop) as Round);
  const count = order.length;
  const latest: number[] = Array.from({ length: count + 1 }, () => (own.home ? own.to : Number.POSITIVE_INFINITY));
  const longest: number[] = Array.from({ length: count + 1 }, () => Number.POSITIVE_INFINITY);
  const notBefore: number[] = Array.from({ length: count + 1 }, () => Number.NEGATIVE_INFINITY);
  for (let at = count - 1; at >= 0; at--) {
    const { window, minutes, cold } = roads.stops[order[at] as number] as Roads['stops'][number];
    const here = roads.place[order[at] as number] as number;
    const next = at + 1 < count ? (roads.place[order[at + 1] as number] as number) : own.home ? 0 : undefined;
    const on = minutes + (next === undefined ? 0 : way(here, next));
    latest[at] = Math.min(window[1], own.to - minutes, (latest[at + 1] as number) - on);
    const limit = cold ?? Number.POSITIVE_INFINITY;
    longest[at] = Math.min(limit - minutes, (longest[at + 1] as number) - on);
    notBefore[at] = Math.max(
      notBefore[at + 1] as number,
      window[0] + minutes - limit,
      window[0] + on - (longest[at + 1] as number),
    );
  }
  return { before, latest, longest, notBefore, litres: (before.at(-1) as Round).litres };
}

/** Whether a round that goes on from a door put in, so many minutes to the next, still reaches all that comes after. */
function bears({ latest, longest, notBefore }: Profile, at: number, round: Round, minutes: number): boolean {
  const [since, c] = [round.since + minutes, round.c + minutes];
  const [until, most] = [latest[at] as number, longest[at] as number];
  if (since > most || c > until) return false;
  return Math.max(round.lo, c - most, notBefore[at] as number) <= Math.min(round.hi, until - since);
}
