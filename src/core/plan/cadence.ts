import type { Cadence, Slot } from './cadence-rule';
import { addDays, dateOf, dayOf, minutesOf, sayDay } from './civil';
import { type DayRule, daysOfRule, MOST_WORK, RuleError, readDayRule } from './recurrence';

/** A cadence that cannot be used, said so that it can be mended. */
export class CadenceError extends Error {}

/** No course has more sessions: a slip in the end date must not fill the calendar. */
export const MOST_SESSIONS = 400;

/**
 * The days of a cadence in order, from a first day on.
 *
 * @param from first day that counts, YYYY-MM-DD
 * @param to last day that counts, or null when `most` ends it
 * @param most at most so many days
 * @throws CadenceError when the rule cannot be read or gives no end
 */
export function daysOf(cadence: Cadence, from: string, to: string | null, most: number): string[] {
  if (cadence.rule === null) {
    const picked = [...new Set(cadence.dates)].filter((date) => date >= from && (to === null || date <= to)).sort();
    return picked.slice(0, most);
  }
  const first = dayOf(from);
  const span = { from: first, to: to === null ? first + FARTHEST_DAYS : dayOf(to) };
  return daysOfRule(readRule(cadence.rule), first, span, most, { left: MOST_WORK }).map(dateOf);
}

/** A rule without an end is followed for forty years: whoever plans further than that has made a slip. */
const FARTHEST_DAYS = 40 * 366;

function readRule(text: string): DayRule {
  try {
    return readDayRule(text);
  } catch (error) {
    if (!(error instanceof RuleError)) throw error;
    if (error.message === 'it repeats within a day')
      throw new CadenceError(
        'Sessions repeat by day, week, month or year. Classes within a day are times of that day.',
      );
    throw new CadenceError(
      `“${text}” is not a recurrence rule of days: ${error.message}. Write for example FREQ=WEEKLY;BYDAY=TH.`,
    );
  }
}

/** Days, or hours, on which nothing takes place. */
export interface Closure {
  readonly title: string;
  /** The calendar it comes from: "School holidays". */
  readonly calendar: string;
  /** First and last day, YYYY-MM-DD. */
  readonly from: string;
  readonly to: string;
  /** Hours of those days, HH:MM, when it is not the whole day. */
  readonly hours?: { readonly from: string; readonly to: string };
  /** Only this place is closed. */
  readonly placeId?: string;
}

/** What becomes of a session that falls on a closure. */
export const ON_CLOSURE = ['move', 'skip', 'keep'] as const;
export type OnClosure = (typeof ON_CLOSURE)[number];

/** A session that the cadence gives. */
export interface LaidSession extends Slot {
  readonly date: string;
  /** Why it is not simply a day of the cadence within the season; '' when it is. */
  readonly because: string;
}

/** A day of the cadence that was lost, and what became of it. */
export interface LostDay {
  readonly date: string;
  readonly because: string;
  readonly became: 'moved' | 'skipped' | 'kept';
  /** Where its sessions went, when they were moved. */
  readonly to?: string;
}

/** The sessions of a season, and what closures did to them. */
export interface LaidDown {
  readonly sessions: readonly LaidSession[];
  readonly lost: readonly LostDay[];
}

/** How far past the season's end a moved session may go, in days of the cadence. */
const MOST_EXTRA = 20;

/** The closure that covers a class of a day, if any. */
export function closureOn(
  closures: readonly Closure[],
  date: string,
  slot: Slot,
  placeId?: string | null,
): Closure | undefined {
  return closures.find((closure) => {
    if (date < closure.from || date > closure.to) return false;
    if (closure.placeId && closure.placeId !== placeId) return false;
    if (!closure.hours) return true;
    const start = minutesOf(slot.startsAt);
    return start < minutesOf(closure.hours.to) && minutesOf(closure.hours.from) < start + slot.minutes;
  });
}

/**
 * "School holidays: Autumn half term"
 *
 * @example
 * sayClosure({ calendar: 'Quay Street school', title: 'Winter break', from: '2026-12-26', to: '2027-01-06' }) //=> 'Quay Street school: Winter break'
 */
export const sayClosure = ({ calendar, title }: Closure): string => (title ? `${calendar}: ${title}` : calendar);

/**
 * Lays a course's sessions over a season.
 *
 * A day on which one of its classes falls on a closure is lost for all of them: moved to the next free day of the
 * cadence after those already planned (the order of the sessions stays, so nothing else is renumbered), skipped, or kept.
 *
 * @param season first and last day; the last may be null when `most` says how many days there are
 * @param most how many days of the cadence at most, null for as many as the season holds
 * @throws CadenceError for a season that ends before it starts, no day at all, or more than 400 sessions
 */
export function layDown(
  cadence: Cadence,
  season: { readonly from: string; readonly to: string | null },
  most: number | null,
  closures: readonly Closure[],
  onClosure: OnClosure,
  placeId?: string | null,
): LaidDown {
  const { from, to } = season;
  if (to !== null && to < from) throw new CadenceError('The season ends before it starts. Change one of the two days.');
  if (cadence.slots.length === 0) throw new CadenceError('Say at what time the class starts.');
  if (to === null && most === null && cadence.rule !== null && !/COUNT=|UNTIL=/.test(cadence.rule))
    throw new CadenceError('This rule has no end. Give the season a last day, or say how many days it has.');
  const limit = Math.floor(MOST_SESSIONS / cadence.slots.length);
  // Days past those of the season wait to take what closures push away.
  const wanted = Math.min(most ?? limit + 1, limit + 1);
  const days = daysOf(cadence, from, to, wanted);
  if (days.length > limit)
    throw new CadenceError(
      `This makes more than ${MOST_SESSIONS} sessions. Choose an earlier last day, or fewer days a week.`,
    );
  if (days.length === 0)
    throw new CadenceError(
      `No such day lies between ${sayDay(from)}${to ? ` and ${sayDay(to)}` : ' and its end'}. Choose another weekday or a longer season.`,
    );
  const last = days.at(-1) as string;
  const later = cadence.rule === null ? [] : laterDays(cadence, from, last, MOST_EXTRA);
  const closed = (date: string) =>
    cadence.slots.map((slot) => closureOn(closures, date, slot, placeId)).find((closure) => closure !== undefined);

  const sessions: LaidSession[] = [];
  const lost: LostDay[] = [];
  const add = (date: string, because: string) => {
    for (const slot of cadence.slots) sessions.push({ date, ...slot, because });
  };
  for (const date of days) {
    const closure = closed(date);
    if (!closure) {
      add(date, '');
      continue;
    }
    const because = sayClosure(closure);
    if (onClosure === 'keep') {
      add(date, `Kept although ${because}.`);
      lost.push({ date, because, became: 'kept' });
    } else if (onClosure === 'skip') {
      lost.push({ date, because, became: 'skipped' });
    } else {
      let free = later.shift();
      while (free !== undefined && closed(free)) free = later.shift();
      if (free === undefined) {
        lost.push({ date, because: `${because}, and none of the later days is free`, became: 'skipped' });
      } else {
        const past = to !== null && free > to ? ', after the season’s end' : '';
        add(free, `Instead of ${sayDay(date)} (${because})${past}.`);
        lost.push({ date, because, became: 'moved', to: free });
      }
    }
  }
  return { sessions: sessions.sort((a, b) => (a.date + a.startsAt < b.date + b.startsAt ? -1 : 1)), lost };
}

/** Days of the cadence after the last of the season; a rule that ends by itself is gone on with. */
function laterDays({ rule, slots, dates }: Cadence, from: string, last: string, most: number): string[] {
  const endless = (rule ?? '').replace(/;?(COUNT|UNTIL)=[^;]*/g, '');
  const past = dateOf(dayOf(last) + 800);
  const all = daysOf({ rule: endless, slots, dates }, from, past, MOST_SESSIONS + most);
  return all.filter((date) => date > last).slice(0, most);
}

/** The next free days of a cadence after a given one, for a session that has to move. */
export function nextFreeDays(
  cadence: Cadence,
  from: string,
  after: string,
  closures: readonly Closure[],
  placeId: string | null,
  most: number,
): string[] {
  const days =
    cadence.rule === null
      ? cadence.dates.filter((date) => date > after)
      : laterDays(cadence, from < after ? from : addDays(after, -7), after, most + MOST_EXTRA);
  return days.filter((date) => cadence.slots.every((slot) => !closureOn(closures, date, slot, placeId))).slice(0, most);
}
