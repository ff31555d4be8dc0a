import type { Point } from './door';

/** How a programme drives: where from, how quickly, and what it knows better than a straight line. */
export interface LocalRoads {
  readonly kitchen: Point;
  /** Kilometres an hour, stops and lights included. */
  readonly speed: number;
  /** How much longer roads are than a straight line. */
  readonly factor: number;
  /** Minutes at a door. */
  readonly handing: number;
  /** Litres of a kit. */
  readonly kitLitres: number;
  /** Minutes that were driven once, either way, by the names of the doors; "kitchen" is the first place. */
  readonly known: readonly { readonly from: string; readonly to: string; readonly minutes: number }[];
}

/**
 * As a small town is driven: a speed of 30 km/h door to door, and roads about 1.4 times as long as a straight line (circuity
 * factors measured for towns lie between 1.2 and 1.5). A programme sets its own.
 */
export const USUAL_ROADS = { speed: 30, factor: 1.4, handing: 4, kitLitres: 8, known: [] } as const satisfies Omit<
  LocalRoads,
  'kitchen'
>;

/** The kitchen's name among places. */
export const KITCHEN = 'kitchen';

const EARTH_KM = 6371;
const radians = (degrees: number) => (degrees * Math.PI) / 180;

/**
 * Kilometres between two points in a straight line over the ground (haversine formula, a sphere of 6,371 km).
 *
 * @example Math.round(kilometresBetween([44, -68], [44.1, -68])) //=> 11
 */
export function kilometresBetween([latA, lonA]: Point, [latB, lonB]: Point): number {
  const north = Math.sin(radians(latB - latA) / 2) ** 2;
  const east = Math.cos(radians(latA)) * Math.cos(radians(latB)) * Math.sin(radians(lonB - lonA) / 2) ** 2;
  return 2 * EARTH_KM * Math.asin(Math.min(1, Math.sqrt(north + east)));
}

/**
 * Minutes from one place to another: what somebody knows, else the straight line. Rounded up, at least one between two doors.
 *
 * @param from a name and a point; the kitchen is called "kitchen"
 */
export function minutesBetween(
  { speed, factor, known }: Pick<LocalRoads, 'speed' | 'factor' | 'known'>,
  from: { readonly name: string; readonly at: Point },
  to: { readonly name: string; readonly at: Point },
): number {
  const own = known.find(
    (way) => (way.from === from.name && way.to === to.name) || (way.from === to.name && way.to === from.name),
  );
  if (own) return own.minutes;
  return Math.max(1, Math.ceil((kilometresBetween(from.at, to.at) * factor * 60) / speed - 1e-9));
}
