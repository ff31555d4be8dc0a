import { RRule, rrulestr } from 'rrule';
import { addDays, dateOf, dayOf, sayDay, type Weekday, weekdayName } from './civil';

/** One class of a day: civil start, HH:MM, and length. */
export interface Slot {
  readonly startsAt: string;
  readonly minutes: number;
}

/** On which days a course meets, and when on each of them. */
export interface Cadence {
  /** Recurrence rule of RFC 5545 without its start, such as "FREQ=WEEKLY;BYDAY=TH"; null when the days are picked by hand. */
  readonly rule: string | null;
  /** Days picked by hand, YYYY-MM-DD. */
  readonly dates: readonly string[];
  /** At least one; a camp with morning and afternoon has two. */
  readonly slots: readonly Slot[];
}

/** A cadence that cannot be used, said so that it can be mended. */
export class CadenceError extends Error {}

/** No course has more sessions: a slip in the end date must not fill the calendar. */
export const MOST_SESSIONS = 400;

const BYDAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;
const codes = (weekdays: readonly Weekday[]) =>
  [...new Set(weekdays)]
    .sort()
    .map((weekday) => BYDAY[weekday - 1])
    .join(',');

/** How a coordinator says a cadence; each comes to a rule. */
export type CadenceChoice =
  | { readonly kind: 'weekly'; readonly every: number; readonly weekdays: readonly Weekday[] }
  | { readonly kind: 'daily'; readonly weekdays: readonly Weekday[] }
  | { readonly kind: 'monthly'; readonly nth: number; readonly weekday: Weekday }
  | { readonly kind: 'single' };

/**
 * The rule of a choice.
 *
 * @example ruleOf({ kind: 'weekly', every: 2, weekdays: [4] }) //=> 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TH;WKST=MO'
 */
export function ruleOf(choice: CadenceChoice): string {
  switch (choice.kind) {
    case 'weekly':
      return `FREQ=WEEKLY;INTERVAL=${choice.every};BYDAY=${codes(choice.weekdays)};WKST=MO`;
    case 'daily':
      return `FREQ=DAILY;BYDAY=${codes(choice.weekdays)}`;
    case 'monthly':
      return `FREQ=MONTHLY;BYDAY=${choice.nth}${BYDAY[choice.weekday - 1]}`;
    case 'single':
      return 'FREQ=DAILY;COUNT=1';
  }
}

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
  const rule = readRule(cadence.rule, from);
  const days: string[] = [];
  rule.all((at) => {
    const date = at.toISOString().slice(0, 10);
    if (to !== null && date > to) return false;
    days.push(date);
    return days.length < most;
  });
  return days;
}

function readRule(text: string, from: string): RRule {
  let rule: RRule;
  try {
    rule = rrulestr(text, { dtstart: new Date(`${from}T00:00:00Z`) }) as RRule;
  } catch {
    throw new CadenceError(`“${text}” is not a recurrence rule. Write for example FREQ=WEEKLY;BYDAY=TH.`);
  }
  const { freq } = rule.options;
  if (freq > RRule.DAILY)
    throw new CadenceError(
      'A cadence repeats by day, week, month or year. Classes within a day are times of that day.',
    );
  return rule;
}

const ORDER = new Map([
  [1, 'first'],
  [2, 'second'],
  [3, 'third'],
  [4, 'fourth'],
  [-1, 'last'],
]);

/** A cadence as one says it: "every second Thursday, 16:00". A rule of another shape is shown as it is written. */
export function sayCadence({ rule, dates, slots }: Cadence): string {
  const times = [...new Set(slots.map((slot) => slot.startsAt))].join(' and ');
  if (rule === null) return `${dates.length === 1 ? 'one day' : `${dates.length} days`} picked by hand, ${times}`;
  return `${sayRule(rule)}, ${times}`;
}

function sayRule(rule: string): string {
  const parts = new Map(rule.split(';').map((part) => part.split('=') as [string, string]));
  const days = (parts.get('BYDAY') ?? '').split(',').filter(Boolean);
  const names = days.map((day) => weekdayName((BYDAY.indexOf(day.slice(-2) as 'MO') + 1) as Weekday));
  const every = Number(parts.get('INTERVAL') ?? 1);
  const frequency = parts.get('FREQ');
  if (parts.get('COUNT') === '1') return 'once';
  if (frequency === 'WEEKLY' && names.length > 0)
    return `every ${every === 1 ? '' : every === 2 ? 'second ' : `${every} weeks on `}${names.join(' and ')}`;
  if (frequency === 'DAILY' && names.length > 0)
    return `daily, ${names.length > 1 ? `${names[0]} to ${names.at(-1)}` : names[0]}`;
  const nth = ORDER.get(Number(days[0]?.slice(0, -2)));
  if (frequency === 'MONTHLY' && nth && names.length === 1) return `every ${nth} ${names[0]} of the month`;
  return rule;
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
    const start = Number(slot.startsAt.slice(0, 2)) * 60 + Number(slot.startsAt.slice(3));
    const [from, to] = [closure.hours.from, closure.hours.to].map(
      (time) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3)),
    ) as [number, number];
    return start < to && from < start + slot.minutes;
  });
}

/** "School holidays: Autumn half term" */
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
      `No day of the cadence lies between ${sayDay(from)}${to ? ` and ${sayDay(to)}` : ' and its end'}. Choose another weekday or a longer season.`,
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
        lost.push({ date, because: `${because}, and the cadence has no free day after it`, became: 'skipped' });
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
