import { type Driver, endOf, goOn, type Roads, type Round, setOut } from './route-case';

/** A set of doors that one driver can serve, in the order that is driven in fewest minutes, and of those ends first. */
export interface RoundOf {
  readonly driver: number;
  readonly order: readonly number[];
  readonly driving: number;
  readonly last: number;
}

/** A round on the way, with the door before. A set of doors is a number: door n is its bit n. */
interface Label extends Round {
  readonly set: number;
  readonly stop: number;
  readonly before: Label | undefined;
}

/** More doors do not fit into a number with the last of them. */
export const MOST_LISTED = 46;

/** Whether a round is no worse than another over the same doors with the same last one, however both go on. */
const covers = (one: Round, other: Round): boolean =>
  one.driving <= other.driving && one.c <= other.c && one.lo <= other.lo && one.hi >= other.hi;

/** The best rounds of one driver, by their set of doors. */
export type RoundsBySet = ReadonlyMap<number, Omit<RoundOf, 'driver'>>;

/**
 * Every set of doors that each driver can serve, with its best order.
 *
 * @param most labels that may be made in all
 * @param isLate whether the time is up
 * @returns by driver; undefined where there are too many
 */
export function allRounds(roads: Roads, most: number, isLate: () => boolean): RoundsBySet[] | undefined {
  if (roads.stops.length > MOST_LISTED) return undefined;
  const known = new Map<string, RoundsBySet>();
  let left = most;
  const all: RoundsBySet[] = [];
  for (const driver of roads.drivers) {
    const { from, to, litres, home = false } = driver;
    const like = JSON.stringify([from, to, litres, home]);
    let own = known.get(like);
    if (!own) {
      const rounds = roundsOf(roads, driver, left, isLate);
      if (!rounds) return undefined;
      left -= rounds.labels;
      own = rounds.best;
      known.set(like, own);
    }
    all.push(own);
  }
  return all;
}

function roundsOf(roads: Roads, driver: Driver, most: number, isLate: () => boolean) {
  const count = roads.stops.length;
  const bit = Array.from({ length: count }, (_, stop) => 2 ** stop);
  const best = new Map<number, { driving: number; last: number; label: Label }>();
  let labels = 0;
  let layer: Label[][] = [[{ ...setOut(driver), set: 0, stop: -1, before: undefined }]];
  while (layer.length > 0) {
    const next = new Map<number, Label[]>();
    for (const own of layer)
      for (const label of own)
        for (let stop = 0; stop < count; stop++) {
          const door = bit[stop] as number;
          if (Math.floor(label.set / door) % 2 === 1) continue;
          const round = goOn(roads, driver, label, stop);
          if (!round) continue;
          const set = label.set + door;
          const key = set * 64 + stop;
          const others = next.get(key);
          if (others?.some((other) => covers(other, round))) continue;
          const fresh = { ...round, set, stop, before: label };
          next.set(key, [...(others ?? []).filter((other) => !covers(round, other)), fresh]);
          if (++labels > most || (labels % 1000 === 0 && isLate())) return undefined;
          const end = endOf(roads, driver, round);
          if (!end) continue;
          const { driving, last } = end;
          const before = best.get(set);
          if (!before || driving < before.driving || (driving === before.driving && last < before.last))
            best.set(set, { driving, last, label: fresh });
        }
    layer = [...next.values()];
  }
  return {
    labels,
    best: new Map(
      [...best].map(([set, { driving, last, label }]) => [set, { driving, last, order: orderOf(label) }] as const),
    ),
  };
}

function orderOf(label: Label): number[] {
  const order: number[] = [];
  for (let at: Label | undefined = label; at && at.stop >= 0; at = at.before) order.unshift(at.stop);
  return order;
}

/** Up to so many doors every way to share them out is looked at. */
export const MOST_SHARED = 13;

/**
 * The best rounds together, by looking at every way to share the doors out: fewest missed, of those least driving, of those the
 * earliest last handing over.
 */
export function shareOut(roads: Roads, rounds: readonly RoundsBySet[]): RoundOf[] {
  const all = 2 ** roads.stops.length;
  // What the drivers so far can do with each set: driving is a sum, so the least of all is the least of each.
  let driving = new Float64Array(all).fill(Number.POSITIVE_INFINITY);
  let last = new Float64Array(all).fill(Number.POSITIVE_INFINITY);
  [driving[0], last[0]] = [0, 0];
  const parts: Int32Array[] = [];
  for (const own of rounds) {
    const [more, end, part] = [driving.slice(), last.slice(), new Int32Array(all)];
    for (const [set, round] of own) {
      // Every set that has no door of this one.
      const rest = all - 1 - set;
      for (let other = rest; ; other = (other - 1) & rest) {
        const sum = (driving[other] as number) + round.driving;
        const at = other | set;
        if (sum <= (more[at] as number) && sum < Number.POSITIVE_INFINITY) {
          const ends = Math.max(last[other] as number, round.last);
          if (sum < (more[at] as number) || ends < (end[at] as number))
            [more[at], end[at], part[at]] = [sum, ends, set];
        }
        if (other === 0) break;
      }
    }
    [driving, last] = [more, end];
    parts.push(part);
  }
  const doors = (set: number) => {
    let count = 0;
    for (let left = set; left > 0; left &= left - 1) count++;
    return count;
  };
  let best = 0;
  for (let set = 1; set < all; set++) {
    if (driving[set] === Number.POSITIVE_INFINITY) continue;
    const better =
      doors(set) - doors(best) ||
      (driving[best] as number) - (driving[set] as number) ||
      (last[best] as number) - (last[set] as number);
    if (better > 0) best = set;
  }
  const chosen: RoundOf[] = [];
  for (let driver = rounds.length - 1, set = best; driver >= 0; driver--) {
    const own = (parts[driver] as Int32Array)[set] as number;
    const round = own > 0 ? rounds[driver]?.get(own) : undefined;
    if (!round) continue;
    chosen.push({ driver, ...round });
    set -= own;
  }
  return chosen;
}
