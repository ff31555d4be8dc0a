import { Temporal } from 'temporal-polyfill';
import { type CivilMinutes, splitCivil } from './civil';

/** What is odd about a civil time on the day that clocks change. */
export type ClockOddity = 'missing' | 'twice';

/** The clock of a time zone: between civil moments on the wall and instants, both in whole minutes. */
export interface ZoneClock {
  /**
   * The instant of a civil moment, in minutes since 1970-01-01T00:00Z. A moment that clocks skip is taken as much later
   * as they jump; one that comes twice is the first (RFC 5545, as Temporal's "compatible").
   */
  toInstant(civil: CivilMinutes): number;
  /** What the wall shows at an instant in minutes. */
  toCivil(instant: number): CivilMinutes;
  /** Whether clocks skip this civil moment, or show it twice. */
  oddity(civil: CivilMinutes): ClockOddity | undefined;
}

interface Shift {
  /** Instant of the change, in minutes. */
  readonly at: number;
  /** Minutes ahead of UTC from then on. */
  readonly offset: number;
}

/** Years that are looked up whole; before and after, the outermost offset goes on. */
const FROM = 2000;
const TO = 2101;

/** The changes of each zone, as the runtime has them: a table that is filled in as zones are asked for. */
const clocks = new Map<string, ZoneClock>();

/** The clock of a time zone (IANA name). Its changes are looked up once. @throws RangeError for a zone there is not */
export function clockOf(timeZone: string): ZoneClock {
  let clock = clocks.get(timeZone);
  if (!clock) {
    clock = makeClock(shiftsOf(timeZone));
    clocks.set(timeZone, clock);
  }
  return clock;
}

function shiftsOf(timeZone: string): Shift[] {
  let at: Temporal.ZonedDateTime | null = Temporal.PlainDate.from({ year: FROM, month: 1, day: 1 }).toZonedDateTime(
    timeZone,
  );
  const shifts: Shift[] = [];
  while (at && at.year < TO) {
    shifts.push({ at: at.epochMilliseconds / 60_000, offset: at.offsetNanoseconds / 60e9 });
    at = at.getTimeZoneTransition('next');
  }
  return shifts;
}

function makeClock(shifts: readonly Shift[]): ZoneClock {
  /** The shift in force at the last moment whose key is not above the value. */
  const inForce = (value: number, key: (index: number) => number): number => {
    let low = 0;
    let high = shifts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (key(middle) <= value) low = middle;
      else high = middle - 1;
    }
    return low;
  };
  const offset = (index: number) => shifts[index]?.offset ?? 0;
  const at = (index: number) => shifts[index]?.at ?? 0;
  // By the wall clock, a shift begins where the earlier offset would have shown it.
  const wall = (index: number) => at(index) + (index === 0 ? offset(0) : offset(index - 1));
  return {
    toCivil: (instant) => instant + offset(inForce(instant, at)),
    toInstant(civil) {
      const index = inForce(civil, wall);
      const jump = index === 0 ? 0 : offset(index) - offset(index - 1);
      // Just after clocks went forward: the skipped times are read by the earlier offset, which moves them past the gap.
      if (jump > 0 && civil < wall(index) + jump) return civil - offset(index - 1);
      // Shortly before they go back, the times that come twice are read by the earlier offset: the first.
      return civil - offset(index);
    },
    oddity(civil) {
      const index = inForce(civil, wall);
      if (index > 0) {
        const jump = offset(index) - offset(index - 1);
        if (jump > 0 && civil < wall(index) + jump) return 'missing';
      }
      const next = index + 1;
      if (next < shifts.length) {
        const fall = offset(index) - offset(next);
        if (fall > 0 && civil >= wall(next) - fall && civil < wall(next)) return 'twice';
      }
      return undefined;
    },
  };
}

/**
 * What calendar and clock show at an instant.
 *
 * @param instant ISO, such as a job's `startBy`
 * @example
 * civilIn('2026-11-26T16:00:00Z', 'America/New_York') //=> { date: '2026-11-26', time: '11:00' }
 */
export const civilIn = (instant: string, timeZone: string): { date: string; time: string } =>
  splitCivil(clockOf(timeZone).toCivil(Math.floor(Date.parse(instant) / 60_000)));
