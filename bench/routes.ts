import type { RoutesCase } from '@/core/handout/routes/route-case';
import { drive, roadsOf } from '@/core/handout/routes/route-case';
import { planRoutes } from '@/core/handout/routes/routes';
import { milpSolver } from '@/workers/highs';
import { randomFrom } from '../scripts/random.mjs';

/** Doors of a town with windows, cold food and cars that hold so much. */
export function town(doors: number, drivers: number, seed = 5): RoutesCase {
  const chance = randomFrom(seed);
  const upTo = (most: number) => Math.floor(chance() * (most + 1));
  const places = ['kitchen', ...Array.from({ length: doors }, (_, at) => `door ${at}`)];
  const points = places.map(() => [upTo(24), upTo(24)] as const);
  const minutes = points.map(([x, y], a) =>
    points.map(([u, v], b) => (a === b ? 0 : 2 + Math.round(Math.hypot(x - u, y - v) * (0.95 + chance() * 0.2)))),
  );
  return {
    places,
    minutes,
    drivers: Array.from({ length: drivers }, (_, at) => ({
      id: `driver ${at}`,
      from: 600,
      to: 860,
      litres: Math.ceil((doors / drivers) * 16),
      home: at % 2 === 0,
    })),
    stops: places.slice(1).map((at) => {
      const from = 600 + 15 * upTo(8);
      return { at, window: [from, from + 60 + 15 * upTo(4)], minutes: 3, litres: 8 + upTo(8), cold: 60 + 10 * upTo(6) };
    }),
  };
}

export async function routesFigures(): Promise<void> {
  const solve = await milpSolver();
  const clock = () => performance.now() / 1000;
  for (const [doors, drivers, seconds, goal] of [
    [12, 3, 5, 'proven in at most 1 s'],
    [24, 3, 20, 'proven in at most 20 s, or with the gap told'],
    [35, 4, 20, 'proven in at most 20 s, or with the gap told'],
    [60, 4, 10, 'at most 10 s'],
  ] as const) {
    const given = { ...town(doors, drivers), seconds };
    const begun = clock();
    const { missed, driving, last, proven, bound, routes } = planRoutes(given, { solve, clock });
    console.log(
      `Rounds to ${doors} doors with ${drivers} drivers\n  ${(clock() - begun).toFixed(2)} s; ${missed} missed, ${driving} minutes on the road, last ${last}; proven ${JSON.stringify(proven)}${bound ? `, at least ${JSON.stringify(bound)}` : ''}\n  goal: ${goal}\n`,
    );
    const roads = roadsOf(given);
    const order = (routes[0]?.stops ?? []).map(({ at }) => roads.stops.findIndex((stop) => stop.at === at));
    const [own] = roads.drivers;
    if (doors < 60 || !own) continue;
    const judging = clock();
    for (let n = 0; n < 1000; n++) drive(roads, own, order);
    console.log(`A changed order judged\n  ${(clock() - judging).toFixed(4)} ms\n  goal: at most 20 ms\n`);
  }
}
