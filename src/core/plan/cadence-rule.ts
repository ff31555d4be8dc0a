import { type Weekday, weekdayName } from './civil';

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

const ORDER = new Map([
  [1, 'first'],
  [2, 'second'],
  [3, 'third'],
  [4, 'fourth'],
  [-1, 'last'],
]);

/**
 * A cadence as one says it: "every second Thursday, 16:00". A rule of another shape is shown as it is written.
 *
 * @example
 * sayCadence({ rule: 'FREQ=WEEKLY;BYDAY=TU,TH', dates: [], slots: [{ startsAt: '16:00', minutes: 90 }] }) //=> 'every Tuesday and Thursday, 16:00'
 */
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
