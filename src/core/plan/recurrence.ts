import { type Weekday, weekdayOf } from './civil';

/** A rule that cannot be followed, with what is wrong with it. */
export class RuleError extends Error {}

const FREQUENCIES = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'] as const;
const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

/** A recurrence rule of whole days (RFC 5545, 3.3.10), read. */
export interface DayRule {
  readonly frequency: (typeof FREQUENCIES)[number];
  readonly interval: number;
  /** Weekdays, each with which of the month or year it is: 1 the first, -1 the last, 0 every one. */
  readonly byDay: readonly { readonly nth: number; readonly weekday: Weekday }[];
  readonly byMonth: readonly number[];
  /** Days of the month; -1 is its last. */
  readonly byMonthDay: readonly number[];
  readonly byYearDay: readonly number[];
  /** Which of the days of each period, in order; -1 is its last. */
  readonly bySetPos: readonly number[];
  readonly count: number | undefined;
  /** Last day that counts, as days since 1970-01-01. */
  readonly until: number | undefined;
  readonly weekStart: Weekday;
}

/** What is left of the work that expanding may take, in days looked at; shared by all rules of one file. */
export interface Budget {
  left: number;
}

/** Days looked at, at most: some two seconds of work. A term's rule takes a few hundred. */
export const MOST_WORK = 10_000_000;

/**
 * Reads a rule of days.
 *
 * @param text "FREQ=WEEKLY;INTERVAL=2;BYDAY=TH", with or without "RRULE:" in front
 * @throws RuleError for a part that is unknown, twice there, or out of range, and for what repeats within a day
 */
export function readDayRule(text: string): DayRule {
  const parts = new Map<string, string>();
  for (const part of text
    .trim()
    .replace(/^RRULE:/i, '')
    .split(';')
    .filter(Boolean)) {
    const [name = '', value = ''] = part.toUpperCase().split('=');
    if (parts.has(name)) throw new RuleError(`${name} is there twice`);
    parts.set(name, value);
  }
  const take = (name: string) => {
    const value = parts.get(name);
    parts.delete(name);
    return value;
  };
  const frequency = take('FREQ') as DayRule['frequency'];
  if (['HOURLY', 'MINUTELY', 'SECONDLY'].includes(frequency)) throw new RuleError('it repeats within a day');
  if (!FREQUENCIES.includes(frequency)) throw new RuleError('FREQ is missing or unknown');
  const number = (name: string, value: string, from: number, to: number): number => {
    const whole = /^[+-]?\d{1,5}$/.test(value) ? Number(value) : Number.NaN;
    if (!(whole >= from && whole <= to) || (whole === 0 && from < 0)) throw new RuleError(`${name} cannot be ${value}`);
    return whole;
  };
  const numbers = (name: string, from: number, to: number) =>
    (take(name)?.split(',') ?? []).map((value) => number(name, value, from, to));
  const one = (name: string) => {
    const value = take(name);
    return value === undefined ? undefined : number(name, value, 1, 10_000);
  };
  const weekday = (value: string) => {
    const at = WEEKDAYS.indexOf(value);
    if (at < 0) throw new RuleError(`there is no weekday ${value}`);
    return (at + 1) as Weekday;
  };
  const rule: DayRule = {
    frequency,
    interval: one('INTERVAL') ?? 1,
    byDay: (take('BYDAY')?.split(',') ?? []).map((value) => {
      const [, nth = '', name = ''] = /^([+-]?\d{1,2})?([A-Z]{2})$/.exec(value) ?? [];
      return { nth: nth === '' ? 0 : number('BYDAY', nth, -53, 53), weekday: weekday(name) };
    }),
    byMonth: numbers('BYMONTH', 1, 12),
    byMonthDay: numbers('BYMONTHDAY', -31, 31),
    byYearDay: numbers('BYYEARDAY', -366, 366),
    bySetPos: numbers('BYSETPOS', -366, 366),
    count: one('COUNT'),
    until: readUntil(take('UNTIL')),
    weekStart: weekday(take('WKST') ?? 'MO'),
  };
  const [unknown] = parts.keys();
  if (unknown) throw new RuleError(`${unknown} is not understood`);
  if (rule.byDay.some(({ nth }) => nth !== 0) && (frequency === 'DAILY' || frequency === 'WEEKLY'))
    throw new RuleError('a numbered weekday belongs to a month or a year');
  if (rule.byYearDay.length > 0 && frequency !== 'YEARLY') throw new RuleError('BYYEARDAY belongs to a year');
  return rule;
}

function readUntil(text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const [, year = '', month = '', day = ''] = /^(\d{4})(\d{2})(\d{2})(T\d{6}Z?)?$/.exec(text) ?? [];
  const at = Date.UTC(Number(year), Number(month) - 1, Number(day));
  if (year === '' || new Date(at).getUTCDate() !== Number(day)) throw new RuleError(`UNTIL cannot be ${text}`);
  return at / 86_400_000;
}

/** A day with what rules ask of it. */
interface Civil {
  readonly day: number;
  readonly year: number;
  /** 1 to 12. */
  readonly month: number;
  readonly date: number;
  readonly weekday: Weekday;
}

function civil(day: number): Civil {
  const at = new Date(day * 86_400_000);
  return {
    day,
    year: at.getUTCFullYear(),
    month: at.getUTCMonth() + 1,
    date: at.getUTCDate(),
    weekday: weekdayOf(day),
  };
}

const daysIn = (year: number, month: number) => new Date(Date.UTC(year, month, 0)).getUTCDate();
const yearStart = (year: number) => Date.UTC(year, 0, 1) / 86_400_000;

/**
 * The days of a rule in order, as days since 1970-01-01. Each day from the first to the last is looked at once, so that the
 * work follows from the span alone, whatever the rule: one that fits no day ends as soon as the others.
 *
 * @param start the day from which the rule counts
 * @param span first and last day that are wanted; days before are counted, and not given back
 * @param most at most so many days
 * @param budget taken down by each day looked at
 * @throws RuleError when the budget is used up
 * @example daysOfRule(readDayRule('FREQ=WEEKLY;BYDAY=TH'), dayOf('2026-10-01'), { from: dayOf('2026-10-01'), to: dayOf('2026-10-15') }, 10, { left: 100 })
 * //=> the days of 1, 8 and 15 October
 */
export function daysOfRule(
  rule: DayRule,
  start: number,
  span: { readonly from: number; readonly to: number },
  most: number,
  budget: Budget,
): number[] {
  const last = Math.min(span.to, rule.until ?? span.to);
  const begin = civil(start);
  // Without a count nothing before the span matters; the period it lies in is looked at whole.
  const first =
    rule.count === undefined ? Math.max(start, periodStart(rule, civil(Math.max(start, span.from)))) : start;
  const found: number[] = [];
  let counted = 0;
  let period: number[] = [];
  let key = Number.NaN;
  /** Takes the days of a period that is over. @returns false when there is no more to find */
  const close = (): boolean => {
    for (const day of chosen(period, rule.bySetPos)) {
      if (day < start) continue;
      if (rule.count !== undefined && counted >= rule.count) return false;
      counted++;
      if (day >= span.from && day <= last) found.push(day);
      if (found.length >= most) return false;
    }
    period = [];
    return true;
  };
  // Positions count in whole periods: the first is looked at from its beginning, the last to its end.
  const positions = rule.bySetPos.length > 0;
  for (let day = positions ? periodStart(rule, civil(first)) : first; ; day++) {
    const at = civil(day);
    const now = positions ? periodStart(rule, at) : day;
    if (now !== key) {
      if (!close() || day > last) return found;
      key = now;
    }
    if (--budget.left < 0) throw new RuleError('it takes too long to follow');
    if (inTurn(rule, begin, at) && fits(rule, begin, at)) period.push(day);
  }
}

/** Days of a period by their place in it, in order; all where no place is asked for. */
function chosen(period: readonly number[], positions: readonly number[]): number[] {
  if (positions.length === 0) return [...period];
  const picked = positions.flatMap((place) => period.at(place > 0 ? place - 1 : place) ?? []);
  return [...new Set(picked)].sort((a, b) => a - b);
}

/** First day of the week, month or year that a rule counts in. */
function periodStart({ frequency, weekStart }: DayRule, { day, year, month, weekday }: Civil): number {
  if (frequency === 'DAILY') return day;
  if (frequency === 'WEEKLY') return day - ((weekday - weekStart + 7) % 7);
  return frequency === 'MONTHLY' ? Date.UTC(year, month - 1, 1) / 86_400_000 : yearStart(year);
}

/** Whether a day lies in a period that counts: every second week, say. */
function inTurn(rule: DayRule, begin: Civil, at: Civil): boolean {
  const { frequency, interval } = rule;
  if (interval === 1) return true;
  if (frequency === 'DAILY') return (at.day - begin.day) % interval === 0;
  if (frequency === 'WEEKLY') return ((periodStart(rule, at) - periodStart(rule, begin)) / 7) % interval === 0;
  const years = at.year - begin.year;
  return (frequency === 'YEARLY' ? years : years * 12 + at.month - begin.month) % interval === 0;
}

/** Whether a day is one of those that the rule names in its period; what it does not name is as on the first day. */
function fits({ frequency, byDay, byMonth, byMonthDay, byYearDay }: DayRule, begin: Civil, at: Civil): boolean {
  if (byMonth.length > 0 && !byMonth.includes(at.month)) return false;
  if (byYearDay.length > 0 && !byYearDay.includes(yearDay(at)) && !byYearDay.includes(yearDay(at, true))) return false;
  if (
    byMonthDay.length > 0 &&
    !byMonthDay.includes(at.date) &&
    !byMonthDay.includes(at.date - daysIn(at.year, at.month) - 1)
  )
    return false;
  if (byDay.length > 0)
    return byDay.some(
      ({ nth, weekday }) =>
        weekday === at.weekday && (nth === 0 || isNth(nth, at, frequency === 'YEARLY' && byMonth.length === 0)),
    );
  if (byMonthDay.length > 0 || byYearDay.length > 0 || frequency === 'DAILY') return true;
  if (frequency === 'WEEKLY') return at.weekday === begin.weekday;
  if (at.date !== begin.date) return false;
  return frequency === 'MONTHLY' || byMonth.length > 0 || at.month === begin.month;
}

/** 1 for 1 January; from the end, -1 for 31 December. */
function yearDay({ day, year }: Civil, fromEnd = false): number {
  return fromEnd ? day - yearStart(year + 1) : day - yearStart(year) + 1;
}

/** Whether a day is the nth of its weekday in its month, or year. */
function isNth(nth: number, at: Civil, ofYear: boolean): boolean {
  const before = ofYear ? yearDay(at) : at.date;
  const after = ofYear ? -yearDay(at, true) : daysIn(at.year, at.month) - at.date + 1;
  return nth > 0 ? Math.ceil(before / 7) === nth : Math.ceil(after / 7) === -nth;
}
