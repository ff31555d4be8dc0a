import type { MilpRow, SolveMilp } from '../../solver/milp';
import { allRounds, MOST_SHARED, type RoundOf, shareOut } from './all-rounds';
import {
  beginsOf,
  drive,
  ROUTE_FIGURES,
  type Roads,
  type RoutesAnswer,
  type RoutesCase,
  roadsOf,
  whyMissed,
} from './route-case';
import { searchRoutes } from './route-search';

/** What a computation is given beside its case. */
export interface RoutesHelp {
  readonly solve: SolveMilp;
  /** Seconds since some moment. */
  readonly clock: () => number;
}

const USUAL_SECONDS = 20;
/** Labels of rounds that are made where all sets of doors are listed; and sets that are chosen from together. */
const MOST_LABELS = 500_000;
const MOST_CHOSEN = 8_000;
/** Rounds that a search keeps, to choose the best of them together: of more, the solver chose none within its seconds. */
const MOST_KEPT = 4_000;

/**
 * The best rounds: fewest doors missed, of those the fewest minutes on the road, of those the earliest last handing over. Where all
 * sets of doors can be listed, they are proven; else looked for, with a bound.
 */
export function planRoutes(given: RoutesCase, { solve, clock }: RoutesHelp): RoutesAnswer {
  const roads = roadsOf(given);
  const seconds = given.seconds ?? USUAL_SECONDS;
  const begun = clock();
  const until = (part: number) => Math.max(0.05, begun + seconds * part - clock());
  const listed = allRounds(roads, MOST_LABELS, () => clock() > begun + seconds * 0.2);
  if (listed && roads.stops.length <= MOST_SHARED)
    return answerOf(roads, shareOut(roads, listed), { missed: true, driving: true, last: true }, undefined);
  const rounds = listed?.flatMap((own, driver) => [...own.values()].map((round) => ({ driver, ...round }))) ?? [];
  if (listed && rounds.length <= MOST_CHOSEN) {
    const { chosen, proven } = choose(roads, rounds, solve, () => until(0.4));
    if (proven.driving) return answerOf(roads, chosen, proven, undefined);
  }
  const kept = new Map<string, RoundOf>();
  const searching = clock();
  const plan = searchRoutes(
    roads,
    numbers(7),
    () => (clock() - searching) / Math.max(0.05, begun + seconds * 0.75 - searching),
    (driver, order, driving, last) => {
      const key = `${driver}/${[...order].sort((a, b) => a - b).join(' ')}`;
      const before = kept.get(key);
      if (before && (before.driving < driving || (before.driving === driving && before.last <= last))) return;
      if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value ?? '');
      kept.set(key, { driver, order: [...order], driving, last });
    },
  );
  const found = plan.orders.flatMap((order, driver): RoundOf[] => {
    const round = order.length > 0 ? drive(roads, roads.drivers[driver] as Roads['drivers'][number], order) : undefined;
    return round ? [{ driver, order, driving: round.driving, last: round.last }] : [];
  });
  const { chosen } = choose(roads, [...kept.values(), ...found], solve, () => until(0.88));
  const best = isBetter(roads, chosen, found) ? chosen : found;
  const bound = boundOf(roads, solve, until(0.95));
  const { missed, driving } = figuresOf(roads, best);
  const sure = missed === bound.missed;
  return answerOf(roads, best, { missed: sure, driving: sure && driving === bound.driving, last: false }, bound);
}

/** Numbers from 0 to 1, the same on every run. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return state / 2 ** 31;
  };
}

const figuresOf = ({ stops }: Roads, rounds: readonly RoundOf[]) => ({
  missed: stops.length - rounds.reduce((sum, { order }) => sum + order.length, 0),
  driving: rounds.reduce((sum, { driving }) => sum + driving, 0),
  last: Math.max(0, ...rounds.map(({ last }) => last)),
});

function isBetter(roads: Roads, one: readonly RoundOf[], other: readonly RoundOf[]): boolean {
  const [a, b] = [figuresOf(roads, one), figuresOf(roads, other)];
  const first = ROUTE_FIGURES.find((figure) => a[figure] !== b[figure]);
  return first !== undefined && a[first] < b[first];
}

/** The best of some rounds together: each door at most once, each driver once; figure after figure. */
function choose(roads: Roads, rounds: readonly RoundOf[], solve: SolveMilp, left: () => number) {
  const proven = { missed: false, driving: false, last: false };
  if (rounds.length === 0 || roads.stops.length === 0)
    return { chosen: [], proven: { missed: true, driving: true, last: true } };
  const rowsBy = (keysOf: (round: RoundOf) => readonly number[], count: number): MilpRow[] => {
    const terms: [number, number][][] = Array.from({ length: count }, () => []);
    for (const [column, round] of rounds.entries()) for (const key of keysOf(round)) terms[key]?.push([column, 1]);
    return terms.filter(({ length }) => length > 0).map((own) => ({ most: 1, terms: own }));
  };
  const rows = [
    ...rowsBy(({ order }) => order, roads.stops.length),
    ...rowsBy(({ driver }) => [driver], roads.drivers.length),
  ];
  let chosen: readonly RoundOf[] = [];
  /** @returns whether the best was found; undefined where the time was up before */
  const settle = (costOf: (round: RoundOf) => number, more: readonly MilpRow[]): boolean | undefined => {
    const columns = rounds.map((round) => ({ cost: costOf(round), most: 1, isWhole: true as const }));
    const answer = solve({ columns, rows: [...rows, ...more] }, left());
    if (answer.status === 'impossible') return false;
    if (!('values' in answer)) return undefined;
    chosen = rounds.filter((_, column) => Math.round(answer.values[column] ?? 0) === 1);
    return answer.status === 'optimal' ? true : undefined;
  };
  const sum = (of: (round: RoundOf) => number) => rounds.map((round, column) => [column, of(round)] as const);
  // A door served weighs more than all roads together.
  const longest = rounds.reduce((most, { driving }) => Math.max(most, driving), 0) * roads.drivers.length + 1;
  if (!settle(({ order, driving }) => driving - longest * order.length, [])) return { chosen, proven };
  proven.missed = true;
  proven.driving = true;
  const { missed, driving } = figuresOf(roads, chosen);
  const held: MilpRow[] = [
    { least: roads.stops.length - missed, terms: sum(({ order }) => order.length) },
    { most: driving, terms: sum((round) => round.driving) },
  ];
  // The earliest end for which the same is reached without any round that ends later.
  let best = chosen;
  const ends = [...new Set(rounds.map(({ last }) => last))].sort((a, b) => a - b);
  let [low, high] = [0, ends.indexOf(figuresOf(roads, best).last)];
  while (low < high && left() > 0.1) {
    const middle = (low + high) >> 1;
    const late = sum(({ last }) => (last > (ends[middle] as number) ? 1 : 0)).filter(([, is]) => is === 1);
    const isKnown = settle(() => 0, [...held, { most: 0, terms: late }]);
    if (isKnown === undefined) break;
    if (isKnown) {
      best = chosen;
      high = ends.indexOf(figuresOf(roads, best).last);
    } else low = middle + 1;
  }
  proven.last = low >= high;
  chosen = best;
  return { chosen, proven };
}

/**
 * What no rounds can be better than: doors that nobody reaches even alone are missed; and each other door is left for another, for
 * the kitchen, or for nothing where a driver may end there, over ways that time allows.
 */
function boundOf(roads: Roads, solve: SolveMilp, seconds: number): { missed: number; driving: number } {
  const { stops, place, minutes, drivers } = roads;
  const reached = [...stops.keys()].filter((stop) => drivers.some((driver) => drive(roads, driver, [stop])));
  const way = (from: number, to: number) => (minutes[from] as readonly number[])[to] as number;
  const earliest = Math.min(...drivers.map(({ from }) => from));
  const columns: { cost: number; most: number }[] = [];
  const into = new Map<number, [number, number][]>(reached.map((stop) => [stop, []]));
  const out = new Map<number, [number, number][]>(reached.map((stop) => [stop, []]));
  const leaving: [number, number][] = [];
  const free: [number, number][] = [];
  const add = (cost: number) => columns.push({ cost, most: 1 }) - 1;
  for (const stop of reached) {
    const column = add(way(0, place[stop] as number));
    into.get(stop)?.push([column, 1]);
    leaving.push([column, 1]);
    if (drivers.some(({ home }) => home)) out.get(stop)?.push([add(way(place[stop] as number, 0)), 1]);
    if (drivers.some(({ home }) => !home)) {
      const ends = add(0);
      out.get(stop)?.push([ends, 1]);
      free.push([ends, 1]);
    }
    const { window, minutes: takes } = stops[stop] as Roads['stops'][number];
    const done = Math.max(window[0], earliest + way(0, place[stop] as number)) + takes;
    for (const next of reached) {
      const between = way(place[stop] as number, place[next] as number);
      if (next === stop || done + between > (stops[next]?.window[1] ?? 0)) continue;
      const arc = add(between);
      out.get(stop)?.push([arc, 1]);
      into.get(next)?.push([arc, 1]);
    }
  }
  const missed = stops.length - reached.length;
  if (reached.length === 0) return { missed, driving: 0 };
  const each = (terms: ReadonlyMap<number, [number, number][]>): MilpRow[] =>
    [...terms.values()].map((own) => ({ least: 1, most: 1, terms: own }));
  const rows = [
    ...each(into),
    ...each(out),
    { most: drivers.length, terms: leaving },
    ...(free.length > 0 ? [{ most: drivers.filter(({ home }) => !home).length, terms: free }] : []),
  ];
  const answer = solve({ columns, rows }, seconds);
  return { missed, driving: answer.status === 'optimal' ? Math.ceil(answer.cost - 1e-6) : 0 };
}

function answerOf(
  roads: Roads,
  rounds: readonly RoundOf[],
  proven: RoutesAnswer['proven'],
  bound: RoutesAnswer['bound'],
): RoutesAnswer {
  const served = new Set(rounds.flatMap(({ order }) => order));
  const figures = figuresOf(roads, rounds);
  const first = ROUTE_FIGURES.find((figure) => !proven[figure]);
  const known = first && bound?.[first];
  return {
    ...figures,
    proven,
    ...(first && known !== undefined && (first !== 'driving' || proven.missed)
      ? { bound: { [first]: Math.min(known, figures[first]) } }
      : {}),
    routes: [...rounds]
      .sort((a, b) => a.driver - b.driver)
      .map(({ driver, order }) => {
        const own = roads.drivers[driver] as Roads['drivers'][number];
        const { leaves } = drive(roads, own, order) ?? { leaves: own.from };
        const begins = beginsOf(roads, order, leaves);
        return {
          driver: own.id,
          leaves,
          stops: order.map((stop, at) => ({ at: roads.stops[stop]?.at ?? '', begins: begins[at] ?? 0 })),
        };
      }),
    why: roads.stops.flatMap(({ at }, stop) => (served.has(stop) ? [] : [{ at, because: whyMissed(roads, stop) }])),
  };
}
