import { COLD_HOURS } from '../not-fetched';
import { beginsOf, type Driver, drive, type Roads, type RoutesCase, roadsOf } from '../routes/route-case';
import type { Door, Point } from './door';
import { KITCHEN, type LocalRoads, minutesBetween } from './roads';

/** A door of a round: whose kits go there, and when handing over begins, in minutes of the day. */
export interface RoundStop {
  readonly householdId: string;
  readonly begins: number;
  /** When kits were to be brought where a family has said nothing, as it was planned. */
  readonly span?: Span;
}

/** A family's kits that go to its door. */
export interface DoorStop {
  readonly householdId: string;
  /** The household's name. */
  readonly name: string;
  readonly door: Door;
  readonly kits: number;
  readonly isCold: boolean;
}

/** When kits can be brought, in minutes of the day, where a family has said nothing. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

export interface DoorDriver extends Driver {
  readonly name: string;
}

/** Doors that can be driven to, and those without a point on the map. */
export interface DoorCase {
  readonly given: RoutesCase;
  readonly withoutPoint: readonly DoorStop[];
}

/**
 * The case of a hand-out at the doors: the cold clock runs from leaving the kitchen, two hours at most.
 *
 * @param span when kits are brought where a family has said nothing of its own; its hours are kept where they have
 */
export function doorCase(
  roads: LocalRoads,
  stops: readonly DoorStop[],
  drivers: readonly DoorDriver[],
  span: Span,
  seconds?: number,
): DoorCase {
  const known = stops.filter((stop): stop is DoorStop & { door: { at: Point } } => stop.door.at !== undefined);
  const places = [
    { key: KITCHEN, name: KITCHEN, at: roads.kitchen },
    ...known.map(({ householdId, name, door }) => ({ key: householdId, name, at: door.at })),
  ];
  return {
    withoutPoint: stops.filter(({ door }) => door.at === undefined),
    given: {
      places: places.map(({ key }) => key),
      minutes: places.map((from) => places.map((to) => (from === to ? 0 : minutesBetween(roads, from, to)))),
      drivers: drivers.map(({ name: _, ...driver }) => driver),
      stops: known.map(({ householdId, door, kits, isCold }) => ({
        at: householdId,
        window: [door.from ?? span.from, door.to ?? span.to] as const,
        minutes: roads.handing,
        litres: kits * roads.kitLitres,
        ...(isCold ? { cold: COLD_HOURS * 60 } : {}),
      })),
      ...(seconds === undefined ? {} : { seconds }),
    },
  };
}

/** What is wrong at a door of a round in this order; the first that stands in the way. */
export interface RoundTrouble {
  readonly at: string;
  readonly say: string;
}

/** A round in an order somebody chose: when it leaves and begins at each door, or what is wrong. */
export interface JudgedRound {
  readonly leaves: number;
  readonly begins: readonly number[];
  readonly driving: number;
  readonly trouble?: RoundTrouble;
}

/**
 * Judges a round as it is ordered by hand. Where it cannot be driven, it is driven all the same, as early as can be, and the
 * first door that it fails at is named.
 *
 * @param order places, as `given` names them
 * @param timeOf says minutes of a day
 */
export function judgeRound(
  given: RoutesCase,
  driver: Driver,
  order: readonly string[],
  timeOf: (minutes: number) => string,
): JudgedRound {
  const roads = roadsOf(given);
  const stops = order.map((name) => roads.stops.findIndex(({ at }) => at === name));
  const whole = stops.includes(-1) ? undefined : drive(roads, driver, stops);
  const known = stops.filter((stop) => stop >= 0);
  const leaves = whole?.leaves ?? driver.from;
  const begins = beginsOf(roads, known, leaves);
  const driving = whole?.driving ?? roadOf(roads, known, driver);
  if (whole) return { leaves, begins, driving };
  return { leaves, begins, driving, trouble: troubleOf(roads, driver, known, leaves, begins, timeOf) };
}

const way = ({ minutes }: Roads, from: number, to: number) => (minutes[from] as readonly number[])[to] as number;

/** Minutes on the road. */
function roadOf(roads: Roads, stops: readonly number[], { home }: Driver): number {
  const places = [0, ...stops.map((stop) => roads.place[stop] as number), ...(home ? [0] : [])];
  return places.slice(1).reduce((sum, place, at) => sum + way(roads, places[at] as number, place), 0);
}

/** The first door at which the round so far cannot be driven, and why. */
function troubleOf(
  roads: Roads,
  driver: Driver,
  stops: readonly number[],
  leaves: number,
  begins: readonly number[],
  timeOf: (minutes: number) => string,
): RoundTrouble {
  const first = stops.findIndex((_, at) => !drive(roads, { ...driver, home: false }, stops.slice(0, at + 1)));
  const at = first < 0 ? stops.length - 1 : first;
  const stop = roads.stops[stops[at] ?? -1];
  if (!stop) return { at: '', say: 'One of these doors is not known any more.' };
  const begin = begins[at] ?? 0;
  const litres = stops.slice(0, at + 1).reduce((sum, each) => sum + (roads.stops[each]?.litres ?? 0), 0);
  if (first < 0) return { at: stop.at, say: `The driver is not back by ${timeOf(driver.to)}.` };
  if (litres > (driver.litres ?? Number.POSITIVE_INFINITY))
    return { at: stop.at, say: `The car is full: ${litres} litres, and it holds ${driver.litres}.` };
  if (begin > stop.window[1])
    return { at: stop.at, say: `Reached at ${timeOf(begin)}: nobody is there after ${timeOf(stop.window[1])}.` };
  if (begin + stop.minutes > driver.to)
    return { at: stop.at, say: `Reached at ${timeOf(begin)}: the driver is free until ${timeOf(driver.to)}.` };
  return {
    at: stop.at,
    say: `Its food is ${begin + stop.minutes - leaves} minutes out of the fridge by then: ${stop.cold ?? COLD_HOURS * 60} at most.`,
  };
}

/** One change after which a door can be served, the rounds otherwise as they are. */
export interface DoorHelp {
  readonly at: string;
  readonly say: string;
}

/**
 * What would help a door that no round serves: for each kind of change the smallest that lets it into one of the rounds, tried
 * at every place of each.
 */
export function whatWouldHelp(
  given: RoutesCase,
  routes: readonly { readonly driver: string; readonly stops: readonly { readonly at: string }[] }[],
  door: string,
  nameOf: (driver: string) => string,
  timeOf: (minutes: number) => string,
): DoorHelp[] {
  const stop = given.stops?.find(({ at }) => at === door);
  if (!stop) return [];
  const rounds = (given.drivers ?? []).map((driver) => ({
    driver,
    order: routes.find((route) => route.driver === driver.id)?.stops.map(({ at }) => at) ?? [],
  }));
  const fits = (
    change: (by: number) => { window?: readonly [number, number]; to?: number; litres?: number },
    by: number,
  ) =>
    rounds.find(({ driver, order }) => {
      const { window, to, litres } = change(by);
      const changed = {
        ...given,
        stops: given.stops?.map((each) => (each.at === door && window ? { ...each, window } : each)) ?? [],
      };
      const roads = roadsOf(changed);
      const places = order.map((name) => roads.stops.findIndex(({ at }) => at === name));
      const own = roads.stops.findIndex(({ at }) => at === door);
      const who = {
        ...driver,
        ...(to === undefined ? {} : { to: driver.to + to }),
        ...(litres === undefined || driver.litres === undefined ? {} : { litres: driver.litres + litres }),
      };
      return Array.from({ length: places.length + 1 }, (_, at) => places.toSpliced(at, 0, own)).some(
        (each) => drive(roads, who, each) !== undefined,
      );
    });
  const least = (most: number, step: number, change: Parameters<typeof fits>[0]) => {
    for (let by = step; by <= most; by += step) {
      const round = fits(change, by);
      if (round) return { by, driver: round.driver };
    }
    return undefined;
  };
  const help: DoorHelp[] = [];
  const [from, to] = stop.window;
  const later = least(240, 5, (by) => ({ window: [from, to + by] }));
  const earlier = later ? undefined : least(240, 5, (by) => ({ window: [from - by, to] }));
  if (later) help.push({ at: door, say: `if somebody is there until ${timeOf(to + later.by)}` });
  if (earlier) help.push({ at: door, say: `if somebody is there from ${timeOf(from - earlier.by)}` });
  const longer = least(240, 5, (by) => ({ to: by }));
  if (longer)
    help.push({ at: door, say: `if ${nameOf(longer.driver.id)} drives until ${timeOf(longer.driver.to + longer.by)}` });
  const bigger = least(200, 5, (by) => ({ litres: by }));
  if (bigger?.driver.litres !== undefined)
    help.push({
      at: door,
      say: `if the car of ${nameOf(bigger.driver.id)} holds ${bigger.driver.litres + bigger.by} litres`,
    });
  return help;
}
