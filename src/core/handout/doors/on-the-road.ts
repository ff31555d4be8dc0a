import { COLD_HOURS } from '../not-fetched';
import { type RoutesCase, roadsOf } from '../routes/route-case';

/** A family is told when its kit comes as a span: so much before, and so much after, in minutes. */
const BEFORE = 10;
const AFTER = 20;
/** So much later than it was told, in minutes, is late: the family hears of it. */
export const LATE_MINUTES = 20;

/**
 * The span that a family is told, rounded to five minutes.
 *
 * @example toldSpan(1003) //=> { from: 990, to: 1025 }
 */
export const toldSpan = (begins: number) => ({
  from: Math.floor((begins - BEFORE) / 5) * 5,
  to: Math.ceil((begins + AFTER) / 5) * 5,
});

/** A door that is still to be driven to, as the day goes. */
export interface Ahead {
  readonly at: string;
  /** When it is reached now, in minutes of the day. */
  readonly begins: number;
  /** Later than it was planned, in minutes. */
  readonly late: number;
  /** Nobody is there any more. */
  readonly isAfterWindow: boolean;
  /** Minutes that its cold food has been out of the fridge by the end of the handing over; undefined where nothing is cold. */
  readonly coldMinutes?: number;
  readonly isTooWarm: boolean;
}

/**
 * The doors ahead of a driver, from where they are.
 *
 * @param planned doors still to go to, in order, with when they were planned
 * @param from where they are: the kitchen, or the door they were at last
 * @param now minutes of the day
 * @param left when they left the kitchen
 */
export function aheadOf(
  given: RoutesCase,
  planned: readonly { readonly at: string; readonly begins: number }[],
  from: string,
  now: number,
  left: number,
): Ahead[] {
  const roads = roadsOf(given);
  let place = Math.max(0, given.places.indexOf(from));
  let clock = now;
  return planned.flatMap(({ at, begins: was }) => {
    const stop = roads.stops.find((each) => each.at === at);
    const to = given.places.indexOf(at);
    if (!stop || to < 0) return [];
    const begins = Math.max(clock + (place === to ? 0 : (given.minutes[place]?.[to] ?? 0)), stop.window[0]);
    clock = begins + stop.minutes;
    place = to;
    const coldMinutes = stop.cold === undefined ? undefined : clock - left;
    return [
      {
        at,
        begins,
        late: Math.max(0, begins - was),
        isAfterWindow: begins > stop.window[1],
        ...(coldMinutes === undefined ? {} : { coldMinutes }),
        isTooWarm: coldMinutes !== undefined && coldMinutes > (stop.cold ?? COLD_HOURS * 60),
      },
    ];
  });
}

/** Minutes that cold food may still be out of the fridge. */
export const coldLeft = (now: number, left: number): number => COLD_HOURS * 60 - (now - left);
