import { type Driver, endOf, goOn, type Roads, type Round, setOut } from './route-case';

/** A set of doors that one driver can serve, in the order that is driven in fewest minutes, and of those ends first. */
export interface RoundOf {
  readonly driver: number;
  readonly order: readonly number[];
  readonly driving: number;
  readonly last: number;
}

interface Label extends Round {
  readonly order: readonly number[];
}

/** Whether a round is no worse than another over the same doors with the same last one, however both go on. */
const covers = (one: Round, other: Round): boolean =>
  one.driving <= other.driving && one.c <= other.c && one.lo <= other.lo && one.hi >= other.hi;

/**
 * Every set of doors that each driver can serve, with its best order.
 *
 * @param most labels that may be made in all
 * @param isLate whether the time is up
 * @returns undefined where there are too many
 */
export function allRounds(roads: Roads, most: number, isLate: () => boolean): RoundOf[] | undefined {
  const found: RoundOf[] = [];
  const known = new Map<string, readonly RoundOf[]>();
  let made = 0;
  for (const [at, driver] of roads.drivers.entries()) {
    const { from, to, litres, home } = driver;
    const like = JSON.stringify([from, to, litres, home ?? false]);
    let own = known.get(like);
    if (!own) {
      const rounds = roundsOf(roads, driver, at, most - made, isLate);
      if (!rounds) return undefined;
      made += rounds.labels;
      own = rounds.found;
      known.set(like, own);
    }
    for (const round of own) found.push({ ...round, driver: at });
  }
  return found;
}

function roundsOf(roads: Roads, driver: Driver, at: number, most: number, isLate: () => boolean) {
  const best = new Map<string, RoundOf>();
  let labels = 0;
  let layer = new Map<string, Label[]>([['', [{ ...setOut(driver), order: [] }]]]);
  while (layer.size > 0) {
    const next = new Map<string, Label[]>();
    for (const own of layer.values()) {
      for (const label of own) {
        for (let stop = 0; stop < roads.stops.length; stop++) {
          if (label.order.includes(stop)) continue;
          const round = goOn(roads, driver, label, stop);
          if (!round) continue;
          const order = [...label.order, stop];
          const set = [...order].sort((a, b) => a - b).join(' ');
          const key = `${set}/${stop}`;
          const others = next.get(key) ?? [];
          if (others.some((other) => covers(other, round))) continue;
          next.set(key, [...others.filter((other) => !covers(round, other)), { ...round, order }]);
          if (++labels > most || (labels % 1000 === 0 && isLate())) return undefined;
          const end = endOf(roads, driver, round);
          if (!end) continue;
          const { driving, last } = end;
          const before = best.get(set);
          if (!before || driving < before.driving || (driving === before.driving && last < before.last))
            best.set(set, { driver: at, order, driving, last });
        }
      }
    }
    layer = next;
  }
  return { found: [...best.values()], labels };
}
