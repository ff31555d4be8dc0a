import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import type { RoutesAnswer, RoutesCase } from '@/core/handout/routes/route-case';
import { planRoutes } from '@/core/handout/routes/routes';
import type { SolveMilp } from '@/core/solver/milp';
import { milpSolver } from '@/workers/highs';
import { randomFrom } from '../scripts/random.mjs';

let solve: SolveMilp;
beforeAll(async () => {
  solve = await milpSolver();
});
const plan = (given: RoutesCase): RoutesAnswer => planRoutes(given, { solve, clock: () => performance.now() / 1000 });

interface Figures {
  readonly missed: number;
  readonly driving: number;
  readonly last: number;
}
type Stop = NonNullable<RoutesCase['stops']>[number];
type Driver = NonNullable<RoutesCase['drivers']>[number];

/** A round driven minute by minute from when it leaves, by the rules as they are written; undefined where one is broken. */
function driven(given: RoutesCase, driver: Driver, leaves: number, stops: readonly Stop[]) {
  const way = (a: number, b: number) => given.minutes[a]?.[b] ?? Number.NaN;
  let [now, at, driving, litres] = [leaves, 0, 0, 0];
  if (leaves < driver.from) return undefined;
  for (const stop of stops) {
    const to = given.places.indexOf(stop.at);
    now = Math.max(now + way(at, to), stop.window[0]);
    driving += way(at, to);
    if (now > stop.window[1]) return undefined;
    now += stop.minutes;
    litres += stop.litres ?? 0;
    at = to;
    if (stop.cold !== undefined && now - leaves > stop.cold) return undefined;
  }
  const home = driver.home ? way(at, 0) : 0;
  if (now + home > driver.to || litres > (driver.litres ?? 1e9)) return undefined;
  return { driving: driving + home, last: now };
}

/** What an answer comes to, judged door by door; a broken rule is an error. */
function judged(given: RoutesCase, { routes }: RoutesAnswer): Figures {
  const seen = new Set<string>();
  let [driving, last] = [0, 0];
  expect(new Set(routes.map(({ driver }) => driver)).size).toBe(routes.length);
  for (const { driver: id, leaves, stops } of routes) {
    const driver = given.drivers?.find((each) => each.id === id);
    const own = stops.map(({ at }) => given.stops?.find((each) => each.at === at) as Stop);
    const end = driver && driven(given, driver, leaves, own);
    if (!end) throw new Error(`${id} cannot drive ${stops.map(({ at }) => at).join(', ')} from ${leaves}`);
    driving += end.driving;
    last = Math.max(last, end.last);
    for (const { at } of stops) {
      expect(seen.has(at)).toBe(false);
      seen.add(at);
    }
  }
  return { missed: (given.stops?.length ?? 0) - seen.size, driving, last };
}

/** The best by trying: every door to every driver or none, in every order, from every minute. */
function best(given: RoutesCase): Figures {
  const { drivers = [], stops = [] } = given;
  const orders = <T>(of: readonly T[]): T[][] =>
    of.length === 0
      ? [[]]
      : of.flatMap((each, at) => orders(of.filter((_, other) => other !== at)).map((rest) => [each, ...rest]));
  const memo = new Map<string, { driving: number; last: number } | undefined>();
  const bestOf = (driver: Driver, own: readonly Stop[]) => {
    const key = `${driver.id} ${own.map(({ at }) => at).join()}`;
    if (memo.has(key)) return memo.get(key);
    let found: { driving: number; last: number } | undefined;
    for (const order of orders(own))
      for (let leaves = driver.from; leaves <= driver.to; leaves++) {
        const end = driven(given, driver, leaves, order);
        if (end && (!found || end.driving < found.driving || (end.driving === found.driving && end.last < found.last)))
          found = end;
      }
    memo.set(key, found);
    return found;
  };
  let found: Figures = { missed: stops.length, driving: 0, last: 0 };
  for (let choice = 0; choice < (drivers.length + 1) ** stops.length; choice++) {
    const of = stops.map((_, at) => Math.floor(choice / (drivers.length + 1) ** at) % (drivers.length + 1));
    const missed = of.filter((driver) => driver === drivers.length).length;
    if (missed > found.missed) continue;
    const ends = drivers.map((driver, at) => {
      const own = stops.filter((_, stop) => of[stop] === at);
      return own.length === 0 ? { driving: 0, last: 0 } : bestOf(driver, own);
    });
    if (ends.some((end) => end === undefined)) continue;
    const driving = ends.reduce((sum, end) => sum + (end?.driving ?? 0), 0);
    const last = Math.max(0, ...ends.map((end) => end?.last ?? 0));
    const better = missed - found.missed || driving - found.driving || last - found.last;
    if (better < 0) found = { missed, driving, last };
  }
  return found;
}

const FOLDER = 'tests/cases';
const CASES = readdirSync(FOLDER).filter((name) => name.startsWith('routes-'));

/** A case by chance: few doors with narrow windows, cold food, small cars. */
function someCase(chance: () => number, doors: number, drivers: number): RoutesCase {
  const upTo = (most: number) => Math.floor(chance() * (most + 1));
  const places = ['kitchen', ...Array.from({ length: doors }, (_, at) => `door ${at}`)];
  const points = places.map(() => [upTo(30), upTo(30)] as const);
  const minutes = points.map(([x, y], a) =>
    points.map(([u, v], b) => (a === b ? 0 : 2 + Math.round(Math.hypot(x - u, y - v) * (0.9 + chance() * 0.3)))),
  );
  return {
    places,
    minutes,
    drivers: Array.from({ length: drivers }, (_, at) => {
      const from = 600 + upTo(30);
      return { id: `driver ${at}`, from, to: from + 60 + upTo(60), litres: 20 + upTo(60), home: chance() < 0.5 };
    }),
    stops: places.slice(1).map((at) => {
      const from = 590 + upTo(90);
      const window = [from, from + 10 + upTo(60)] as const;
      return {
        at,
        window,
        minutes: 1 + upTo(4),
        litres: 5 + upTo(20),
        ...(chance() < 0.4 ? { cold: 20 + upTo(40) } : {}),
      };
    }),
  };
}

describe('rounds to the doors', () => {
  it('come out as worked by hand and by others', () => {
    expect(CASES.length).toBeGreaterThan(1);
    for (const name of CASES) {
      const { expect: wanted, ...given } = JSON.parse(readFileSync(`${FOLDER}/${name}`, 'utf8'));
      const answer = plan(given);
      const { missed, driving, last } = wanted;
      expect({ name, ...judged(given, answer) }).toEqual({ name, missed, driving, last });
      expect(answer).toMatchObject({ missed, driving, last, proven: wanted.proven });
    }
  });

  it('are the best that trying every order from every minute finds, and say why a door is missed', () => {
    const chance = randomFrom(5);
    let missed = 0;
    for (let n = 0; n < 40; n++) {
      const given = someCase(chance, 4, 2);
      const answer = plan(given);
      const { missed: open, driving, last } = answer;
      expect({ n, ...judged(given, answer) }).toEqual({ n, missed: open, driving, last });
      expect({ n, missed: open, driving, last }).toEqual({ n, ...best(given) });
      expect(answer.why).toHaveLength(open);
      missed += open;
    }
    expect(missed).toBeGreaterThan(5);
  });

  it('hold every rule where there are too many to list, with a bound below what was found', () => {
    const chance = randomFrom(8);
    const many = someCase(chance, 40, 5);
    const given = {
      ...many,
      drivers: (many.drivers ?? []).map((driver) => ({ ...driver, from: 560, to: 860, litres: 400 })),
      stops: (many.stops ?? []).map(({ cold: _, ...stop }) => ({ ...stop, window: [560, 840] as const })),
      seconds: 2,
    };
    const answer = plan(given);
    const { missed, driving, last } = answer;
    expect(judged(given, answer)).toEqual({ missed, driving, last });
    expect(missed).toBe(0);
    expect(answer.bound?.driving ?? driving).toBeLessThanOrEqual(driving);
  });

  it('are none where nobody drives, and miss by name what no car can hold or no food survives', () => {
    const given = { ...someCase(randomFrom(3), 3, 1), drivers: [] };
    expect(plan(given)).toMatchObject({ missed: 3, driving: 0, last: 0, routes: [] });
    const hand = JSON.parse(readFileSync(`${FOLDER}/routes-hand.json`, 'utf8')) as RoutesCase;
    const far = {
      ...hand,
      stops: (hand.stops ?? []).map((stop) => (stop.at === 'Quay' ? { ...stop, cold: 24 } : stop)),
    };
    expect(plan(far).why).toEqual([{ at: 'Quay', because: 'cold' }]);
    const heavy = {
      ...hand,
      stops: (hand.stops ?? []).map((stop) => (stop.at === 'Mill' ? { ...stop, litres: 61 } : stop)),
    };
    expect(plan(heavy).why).toEqual([{ at: 'Mill', because: 'litres' }]);
  });
});
