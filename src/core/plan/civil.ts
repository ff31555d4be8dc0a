// Civil dates and times as whole numbers: comparing thousands of them must cost next to nothing.

/** Minutes of a day. */
export const DAY = 1440;

/** A civil moment: minutes since 1970-01-01, 00:00, on the wall clock of the programme. */
export type CivilMinutes = number;

/** Monday is 1, Sunday 7 (ISO 8601). */
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7;

export const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];
export const WEEKDAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

/**
 * "Thursday" for 4.
 *
 * @example
 * weekdayName(4) //=> 'Thursday'
 */
export const weekdayName = (weekday: Weekday): string => WEEKDAY_NAMES[weekday - 1] as string;

/**
 * Days since 1970-01-01. @param date civil date, YYYY-MM-DD
 *
 * @example
 * dayOf('1970-01-03') //=> 2
 */
export const dayOf = (date: string): number => Date.parse(`${date}T00:00:00Z`) / 86_400_000;

/**
 * The civil date, YYYY-MM-DD, so many days after 1970-01-01.
 *
 * @example
 * dateOf(20785) //=> '2026-11-28'
 */
export const dateOf = (day: number): string => new Date(day * 86_400_000).toISOString().slice(0, 10);

/**
 * A civil date some days later, or earlier when negative.
 *
 * @example
 * addDays('2026-02-27', 2) //=> '2026-03-01'
 */
export const addDays = (date: string, days: number): string => dateOf(dayOf(date) + days);

/**
 * 1970-01-01 was a Thursday.
 *
 * @example
 * weekdayOf(dayOf('2026-11-26')) //=> 4
 */
export const weekdayOf = (day: number): Weekday => (((((day + 3) % 7) + 7) % 7) + 1) as Weekday;

/**
 * Minutes after midnight. @param time civil time, HH:MM; 24:00 is the end of the day
 *
 * @example
 * minutesOf('08:05') //=> 485
 */
export const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));

/** "08:05" for 485. @param minutes after midnight, 0 to 1440 */
export const timeOf = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/**
 * A civil date and time as one number.
 *
 * @example
 * civilOf('1970-01-02', '00:30') //=> 1470
 */
export const civilOf = (date: string, time: string): CivilMinutes => dayOf(date) * DAY + minutesOf(time);

/**
 * Date and time of a civil moment.
 *
 * @example
 * splitCivil(1470) //=> { date: '1970-01-02', time: '00:30' }
 */
export function splitCivil(civil: CivilMinutes): { date: string; time: string } {
  const day = Math.floor(civil / DAY);
  return { date: dateOf(day), time: timeOf(civil - day * DAY) };
}

/**
 * "Thu 26 Nov" for a civil date.
 *
 * @example
 * sayDay('2026-11-26') //=> 'Thu 26 Nov'
 */
export function sayDay(date: string): string {
  const day = dayOf(date);
  const at = new Date(day * 86_400_000);
  return `${weekdayName(weekdayOf(day)).slice(0, 3)} ${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]}`;
}

/**
 * "Thu 26 Nov, 16:00" for a civil moment.
 *
 * @example
 * sayCivil(civilOf('2026-11-26', '16:00')) //=> 'Thu 26 Nov, 16:00'
 */
export function sayCivil(civil: CivilMinutes): string {
  const { date, time } = splitCivil(civil);
  return `${sayDay(date)}, ${time}`;
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
