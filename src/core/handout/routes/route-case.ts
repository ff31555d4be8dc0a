// Kits to doors, said exactly: whole minutes, litres, and how long cold food may be on the road.

export interface Driver {
  readonly id: string;
  /** On duty between these minutes. */
  readonly from: number;
  readonly to: number;
  /** What the car holds; without a limit where left out. */
  readonly litres?: number;
  /** The round ends at the kitchen again; else at its last door. */
  readonly home?: boolean;
}

export interface Stop {
  /** A place of the case, once. */
  readonly at: string;
  /** Handing over begins within it, both ends included. */
  readonly window: readonly [from: number, to: number];
  /** What handing over takes. */
  readonly minutes: number;
  readonly litres?: number;
  /** At most so many minutes from leaving the kitchen to the end of the handing over. */
  readonly cold?: number;
}

export interface RoutesCase {
  /** The first is the kitchen. */
  readonly places: readonly string[];
  /** From row to column. */
  readonly minutes: readonly (readonly number[])[];
  readonly drivers?: readonly Driver[];
  readonly stops?: readonly Stop[];
  readonly seconds?: number;
}

export const ROUTE_FIGURES = ['missed', 'driving', 'last'] as const;
export type RouteFigure = (typeof ROUTE_FIGURES)[number];

/** Why a door is not served. `elsewhere`: it could be, but not beside what is served. */
export type MissedRule = 'window' | 'cold' | 'litres' | 'duty' | 'elsewhere';

export interface RoutesAnswer extends Readonly<Record<RouteFigure, number>> {
  readonly proven: Readonly<Record<RouteFigure, boolean>>;
  /** Below what the first figure that is not proven cannot be. */
  readonly bound?: Readonly<Partial<Record<RouteFigure, number>>>;
  readonly routes: readonly {
    readonly driver: string;
    readonly leaves: number;
    readonly stops: readonly { readonly at: string; readonly begins: number }[];
  }[];
  readonly why: readonly { readonly at: string; readonly because: MissedRule }[];
}

/** A case with its places as numbers: 0 is the kitchen, stop n is at `place[n]`. */
export interface Roads {
  readonly drivers: readonly Driver[];
  readonly stops: readonly Stop[];
  readonly place: readonly number[];
  readonly minutes: readonly (readonly number[])[];
}

export function roadsOf({ places, minutes, drivers = [], stops = [] }: RoutesCase): Roads {
  const placeOf = new Map(places.map((name, at) => [name, at]));
  return { drivers, stops, minutes, place: stops.map(({ at }) => placeOf.get(at) ?? 0) };
}

/**
 * A round so far, whenever it leaves: with `leaves` between `lo` and `hi`, its last handing over ends at the later of `since + leaves`
 * and `c`, which windows set by themselves.
 */
export interface Round {
  readonly driving: number;
  readonly since: number;
  readonly c: number;
  readonly lo: number;
  readonly hi: number;
  readonly litres: number;
  /** Place of the last door; the kitchen before the first. */
  readonly at: number;
}

export const setOut = ({ from, to }: Driver): Round => ({
  driving: 0,
  since: 0,
  c: Number.NEGATIVE_INFINITY,
  lo: from,
  hi: to,
  litres: 0,
  at: 0,
});

/** A round with one more door; undefined where that cannot be, whenever it leaves. */
export function goOn(roads: Roads, driver: Driver, round: Round, stop: number): Round | undefined {
  const { window, minutes, litres = 0, cold } = roads.stops[stop] as Stop;
  const place = roads.place[stop] as number;
  const load = round.litres + litres;
  if (load > (driver.litres ?? Number.POSITIVE_INFINITY)) return undefined;
  const way = (roads.minutes[round.at] as readonly number[])[place] as number;
  const arrives = round.since + way;
  const since = arrives + minutes;
  const begins = Math.max(round.c + way, window[0]);
  if (begins > window[1]) return undefined;
  const c = begins + minutes;
  if (cold !== undefined && since > cold) return undefined;
  const lo = cold === undefined ? round.lo : Math.max(round.lo, c - cold);
  const hi = Math.min(round.hi, window[1] - arrives, driver.to - since);
  if (lo > hi || c > driver.to) return undefined;
  return { driving: round.driving + way, since, c, lo, hi, litres: load, at: place };
}

/** A round that ends: what it comes to, and when it leaves; undefined where the driver would not be back in time. */
export function endOf(
  roads: Roads,
  driver: Driver,
  round: Round,
): { driving: number; last: number; leaves: number } | undefined {
  const home = driver.home ? ((roads.minutes[round.at] as readonly number[])[0] as number) : 0;
  const hi = Math.min(round.hi, driver.to - round.since - home);
  if (round.lo > hi || round.c + home > driver.to) return undefined;
  const last = Math.max(round.c, round.lo + round.since);
  // As late as nobody waits longer for it: the food is cold, and the driver at home, for so much longer.
  return { driving: round.driving + home, last, leaves: Math.max(round.lo, Math.min(hi, last - round.since)) };
}

/** A whole round in an order; undefined where it cannot be driven. */
export function drive(roads: Roads, driver: Driver, order: readonly number[]) {
  let round: Round | undefined = setOut(driver);
  for (const stop of order) {
    round = goOn(roads, driver, round, stop);
    if (!round) return undefined;
  }
  return endOf(roads, driver, round);
}

/** When each handing over of a round begins. */
export function beginsOf(roads: Roads, order: readonly number[], leaves: number): number[] {
  let now = leaves;
  let at = 0;
  return order.map((stop) => {
    const { window, minutes } = roads.stops[stop] as Stop;
    const place = roads.place[stop] as number;
    const begins = Math.max(now + ((roads.minutes[at] as readonly number[])[place] as number), window[0]);
    now = begins + minutes;
    at = place;
    return begins;
  });
}

/** Why nobody can serve a door even by itself; `elsewhere` where somebody could. */
export function whyMissed(roads: Roads, stop: number): MissedRule {
  if (roads.drivers.some((driver) => drive(roads, driver, [stop]) !== undefined)) return 'elsewhere';
  const { minutes, litres = 0, cold, window } = roads.stops[stop] as Stop;
  const way = (roads.minutes[0] as readonly number[])[roads.place[stop] as number] as number;
  if (cold !== undefined && way + minutes > cold) return 'cold';
  if (roads.drivers.every((driver) => litres > (driver.litres ?? Number.POSITIVE_INFINITY))) return 'litres';
  return roads.drivers.every(({ from }) => from + way > window[1]) ? 'window' : 'duty';
}
