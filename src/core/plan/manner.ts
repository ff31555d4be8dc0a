// Dates and times as a programme says them, and as its people write them.

import { minutesOf, timeOf, type Weekday } from './civil';

/** How a programme says dates and times. */
export interface Manner {
  readonly dateOrder: 'day first' | 'month first';
  /** Hours of its clock. */
  readonly clock: 12 | 24;
  /** The day its week begins with: Monday or Sunday. */
  readonly firstWeekday: Extract<Weekday, 1 | 7>;
}

/** What is usual in a country, until a programme says otherwise. */
export const USUAL_MANNERS: Readonly<Record<'us' | 'uk', Manner>> = {
  us: { dateOrder: 'month first', clock: 12, firstWeekday: 7 },
  uk: { dateOrder: 'day first', clock: 24, firstWeekday: 1 },
};

/** The manner of a programme: what it chose, else what is usual where it is. */
export const mannerOf = ({
  manner,
  safetyProfile,
}: {
  readonly manner: Manner | null;
  readonly safetyProfile: 'us' | 'uk';
}): Manner => manner ?? USUAL_MANNERS[safetyProfile];

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/**
 * A civil date in the programme's manner, its month in letters: it cannot be taken for another day.
 *
 * @param date YYYY-MM-DD
 * @example
 * writeDate('2026-11-05', USUAL_MANNERS.uk) //=> '5 Nov 2026'
 * writeDate('2026-11-05', USUAL_MANNERS.us) //=> 'Nov 5, 2026'
 */
export function writeDate(date: string, { dateOrder }: Pick<Manner, 'dateOrder'>): string {
  const [year = '', month = '', day = ''] = date.split('-');
  const name = MONTHS[Number(month) - 1];
  return dateOrder === 'day first' ? `${Number(day)} ${name} ${year}` : `${name} ${Number(day)}, ${year}`;
}

/**
 * The civil date that somebody wrote; undefined when it is none, or none that is in the calendar.
 *
 * @param manner for a month in figures: "5/11" is another day in each; without it, such a date is not understood
 * @param today YYYY-MM-DD: what is written without a year is the next such day
 * @example
 * readDate('5 november 2026') //=> '2026-11-05'
 * readDate('5/11/26', USUAL_MANNERS.uk) //=> '2026-11-05'
 * readDate('5/11/26', USUAL_MANNERS.us) //=> '2026-05-11'
 * readDate('30 Feb 2026') //=> undefined
 */
export function readDate(text: string, manner?: Pick<Manner, 'dateOrder'>, today?: string): string | undefined {
  const written = text
    .trim()
    .toLowerCase()
    .replace(/^(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*[,.]?\s+/, '');
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(written);
  if (iso) return civilDate(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const named =
    /^(?:(\d{1,2})(?:st|nd|rd|th)?\.?\s+([a-z]{3,})|([a-z]{3,})\.?\s+(\d{1,2})(?:st|nd|rd|th)?)[.,]?(?:\s+(\d{4}|\d{2}))?$/.exec(
      written,
    );
  if (named) {
    const word = (named[2] ?? named[3] ?? '').slice(0, 3);
    const month = MONTHS.findIndex((each) => each.toLowerCase() === word) + 1;
    return withYear(named[5], month, Number(named[1] ?? named[4]), today);
  }
  const figures = /^(\d{1,2})[/.\- ](\d{1,2})(?:[/.\- ](\d{4}|\d{2}))?\.?$/.exec(written);
  if (!figures || !manner) return undefined;
  const [first, second] = [Number(figures[1]), Number(figures[2])];
  const [day, month] = manner.dateOrder === 'day first' ? [first, second] : [second, first];
  return withYear(figures[3], month, day, today);
}

function withYear(year: string | undefined, month: number, day: number, today: string | undefined): string | undefined {
  if (year !== undefined) return civilDate(Number(year) + (year.length === 2 ? 2000 : 0), month, day);
  if (today === undefined) return undefined;
  const thisYear = Number(today.slice(0, 4));
  const near = civilDate(thisYear, month, day);
  return near !== undefined && near >= today ? near : civilDate(thisYear + 1, month, day);
}

/** @returns undefined for a day that no calendar has */
function civilDate(year: number, month: number, day: number): string | undefined {
  const date = new Date(Date.UTC(year, month - 1, day));
  const isReal = date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
  return isReal ? date.toISOString().slice(0, 10) : undefined;
}

/**
 * A civil time in the programme's manner.
 *
 * @param time HH:MM; 24:00 is the end of the day
 * @example
 * writeTime('16:05', USUAL_MANNERS.uk) //=> '16:05'
 * writeTime('16:05', USUAL_MANNERS.us) //=> '4:05 pm'
 */
export function writeTime(time: string, { clock }: Pick<Manner, 'clock'>): string {
  if (clock === 24) return time;
  const hour = Math.floor(minutesOf(time) / 60) % 24;
  return `${hour % 12 === 0 ? 12 : hour % 12}:${time.slice(3, 5)} ${hour < 12 ? 'am' : 'pm'}`;
}

/**
 * The civil time that somebody wrote, HH:MM; undefined when it is none.
 *
 * @param manner on a clock of 12 hours, "4:30" alone is in the morning or the afternoon: it is not guessed
 * @example
 * readTime('4.30 pm') //=> '16:30'
 * readTime('9', USUAL_MANNERS.uk) //=> '09:00'
 * readTime('4:30', USUAL_MANNERS.us) //=> undefined
 * readTime('04:30', USUAL_MANNERS.us) //=> '04:30'
 */
export function readTime(text: string, manner: Pick<Manner, 'clock'> = { clock: 24 }): string | undefined {
  const found = /^(\d{1,2})(?:[:.h](\d{2}))?\s*(?:([ap])\.?\s*m?\.?)?$/.exec(text.trim().toLowerCase());
  if (!found) return undefined;
  const [, hourText = '', minuteText = '00', half] = found;
  const [hour, minute] = [Number(hourText), Number(minuteText)];
  if (minute > 59) return undefined;
  if (half !== undefined) {
    if (hour < 1 || hour > 12) return undefined;
    return timeOf(((hour % 12) + (half === 'p' ? 12 : 0)) * 60 + minute);
  }
  const isPlain = hourText.length === 2 || hour > 12 || hour === 0;
  if (hour > 23 || (manner.clock === 12 && !isPlain)) return undefined;
  return timeOf(hour * 60 + minute);
}
