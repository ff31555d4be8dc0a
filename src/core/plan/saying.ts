// How a programme says dates, times and money on its screens. Sentences of the core speak one manner; here they are said in the programme's.

import { currencyOf, sayMoney } from '../quantity/money';
import { type CivilMinutes, dayOf, splitCivil, timeOf, WEEKDAYS, type Weekday, weekdayName, weekdayOf } from './civil';
import { type Manner, mannerOf, USUAL_MANNERS, writeDate, writeTime } from './manner';

/** What sayings are made of: plain, so that a server hands it to a screen. */
export interface SayingFacts {
  readonly manner: Manner;
  /** ISO 4217 */
  readonly currency: string;
  readonly timeZone: string;
}

/** What the screens of a programme say things by. */
export const sayingFacts = (
  programme: Parameters<typeof mannerOf>[0] & Parameters<typeof currencyOf>[0] & { readonly timeZone: string },
): SayingFacts => ({
  manner: mannerOf(programme),
  currency: currencyOf(programme),
  timeZone: programme.timeZone,
});

/** Says things as one programme does. */
export interface Saying {
  /** The weekdays from the one its week begins with. */
  readonly week: readonly Weekday[];
  /** A civil date said whole. */
  longDate(date: string): string;
  /** A civil date said short. */
  shortDate(date: string): string;
  /** A civil date, short and with its year: what lies years off, or is to be kept. */
  yearDate(date: string): string;
  /** Several days from the first to the last, one day alone where they are the same. */
  span(from: string, to: string): string;
  /** A month, YYYY-MM. */
  month(month: string): string;
  /** A civil time, HH:MM, or minutes of a day; past midnight it is the next day's. */
  time(time: string | number): string;
  /** A civil moment, short. */
  civil(at: CivilMinutes): string;
  /** An ISO instant in the programme's time zone, short. */
  moment(instant: string): string;
  /** The time of day of an ISO instant in the programme's time zone. */
  timeAt(instant: string): string;
  /** Hundredths of its currency. */
  money(hundredths: number): string;
  /** A sentence of the core, whose dates are "Thu 26 Nov", "Thu 26 Nov 2026" or "2026-11-26" and whose times are "16:00". */
  text(sentence: string): string;
}

const MONTHS = 'January February March April May June July August September October November December'.split(' ');
const SHORT = MONTHS.map((month) => month.slice(0, 3));

/** Making a format takes longer than using it a hundred times: one for each zone. */
const zones = new Map<string, Intl.DateTimeFormat>();

function civilParts(instant: string, timeZone: string): { date: string; time: string } {
  let format = zones.get(timeZone);
  if (!format) {
    const figures = { year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit' } as const;
    format = new Intl.DateTimeFormat('en-GB', { ...figures, hourCycle: 'h23', timeZone });
    zones.set(timeZone, format);
  }
  const parts = new Map(format.formatToParts(new Date(instant)).map(({ type, value }) => [type, value]));
  const of = (type: Intl.DateTimeFormatPartTypes) => parts.get(type) ?? '';
  return { date: `${of('year')}-${of('month')}-${of('day')}`, time: `${of('hour')}:${of('minute')}` };
}

const DATE =
  /\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun) (\d{1,2}) (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)\b(?: (\d{4})\b)?/g;
const ISO_DATE = /\b\d{4}-\d{2}-\d{2}\b/g;
const TIME = /(?<![\d:.])([01]\d|2[0-4]):([0-5]\d)(?!:?\d)/g;

/** What stands between “ and ” was written by somebody, and is said as they wrote it. */
const QUOTED = /(“[^”]*”)/;

/**
 * How a programme says things.
 *
 * @example
 * sayingOf({ manner: USUAL_MANNERS.us, currency: 'USD', timeZone: 'America/Chicago' }).longDate('2026-11-26') //=> 'Thursday, November 26, 2026'
 * sayingOf({ manner: USUAL_MANNERS.uk, currency: 'GBP', timeZone: 'Europe/London' }).shortDate('2026-11-26') //=> 'Thu 26 Nov'
 * sayingOf({ manner: USUAL_MANNERS.us, currency: 'USD', timeZone: 'America/Chicago' }).text('Not before Thu 26 Nov, 16:00.') //=> 'Not before Thu, Nov 26, 4:00 pm.'
 */
export function sayingOf({ manner, currency, timeZone }: SayingFacts): Saying {
  const isDayFirst = manner.dateOrder === 'day first';
  const shortOf = (weekday: string, day: string, month: string, year?: string) => {
    const short = isDayFirst ? `${weekday} ${day} ${month}` : `${weekday}, ${month} ${day}`;
    return year === undefined ? short : `${short}${isDayFirst ? '' : ','} ${year}`;
  };
  const partsOf = (date: string) => {
    const [year = '', month = '', day = ''] = date.split('-');
    return { year, month: Number(month) - 1, day: String(Number(day)), weekday: weekdayName(weekdayOf(dayOf(date))) };
  };
  const shortDate = (date: string) => {
    const { month, day, weekday } = partsOf(date);
    return shortOf(weekday.slice(0, 3), day, SHORT[month] ?? '');
  };
  const yearDate = (date: string) => {
    const { year, month, day, weekday } = partsOf(date);
    return shortOf(weekday.slice(0, 3), day, SHORT[month] ?? '', year);
  };
  const time = (at: string | number) =>
    writeTime(typeof at === 'string' ? at : timeOf(((at % 1440) + 1440) % 1440), manner);
  const said = (part: string) =>
    part
      .replace(DATE, (_, weekday, day, month, year) => shortOf(weekday, day, month, year))
      .replace(ISO_DATE, (date) => writeDate(date, manner))
      .replace(TIME, (when) => writeTime(when, manner));
  return {
    week: manner.firstWeekday === 7 ? [7, 1, 2, 3, 4, 5, 6] : WEEKDAYS,
    longDate(date) {
      const { year, month, day, weekday } = partsOf(date);
      return isDayFirst ? `${weekday} ${day} ${MONTHS[month]} ${year}` : `${weekday}, ${MONTHS[month]} ${day}, ${year}`;
    },
    shortDate,
    yearDate,
    span(from, to) {
      if (from === to) return yearDate(to);
      return `${from.slice(0, 4) === to.slice(0, 4) ? shortDate(from) : yearDate(from)} to ${yearDate(to)}`;
    },
    month: (month) => `${MONTHS[Number(month.slice(5, 7)) - 1]} ${month.slice(0, 4)}`,
    time,
    civil(at) {
      const { date, time: when } = splitCivil(at);
      return `${shortDate(date)}, ${time(when)}`;
    },
    moment(instant) {
      const { date, time: when } = civilParts(instant, timeZone);
      return `${shortDate(date)}, ${time(when)}`;
    },
    timeAt: (instant) => time(civilParts(instant, timeZone).time),
    money: (hundredths) => sayMoney(hundredths, currency),
    text: (sentence) =>
      sentence
        .split(QUOTED)
        .map((part, at) => (at % 2 === 1 ? part : said(part)))
        .join(''),
  };
}

/** Where nothing is known of a programme. */
export const PLAIN_SAYING: SayingFacts = { manner: USUAL_MANNERS.uk, currency: 'GBP', timeZone: 'UTC' };
