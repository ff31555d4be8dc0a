import { type CadenceChoice, ruleOf } from '@/core/plan/cadence-rule';
import type { Weekday } from '@/core/plan/civil';

/** What the form starts from. */
export interface Start {
  readonly from: string;
  readonly to: string;
  readonly weekday: number;
  readonly startsAt: string;
  readonly minutes: number;
  readonly place: string;
  readonly mode: string;
  readonly instructorId: string;
  readonly onClosure: string;
}

/** How a season repeats. */
export const KINDS = {
  weekly: 'on the same weekdays',
  daily: 'every day: a camp',
  monthly: 'once a month: a theme',
  single: 'once: a workshop',
  dates: 'on days picked by hand',
} as const;

/** A season as it is typed. */
export interface Wanted {
  readonly kind: keyof typeof KINDS;
  readonly every: number;
  readonly weekdays: readonly Weekday[];
  readonly nth: number;
  readonly dates: string;
  readonly slots: readonly { startsAt: string; minutes: number }[];
  readonly from: string;
  readonly to: string;
  readonly days: string;
  readonly onClosure: string;
  readonly place: string;
  readonly modes: readonly string[];
  readonly instructorId: string;
}

/** The cadence of a season that is being typed. */
export function cadenceOf(wanted: Wanted) {
  const { kind, every, weekdays, nth } = wanted;
  if (kind === 'dates')
    return { rule: null, dates: wanted.dates.split(/[\s,;]+/).filter(Boolean), slots: wanted.slots };
  const [weekday = 1] = weekdays;
  const choice: CadenceChoice =
    kind === 'monthly'
      ? { kind, nth, weekday }
      : kind === 'single'
        ? { kind }
        : kind === 'daily'
          ? { kind, weekdays }
          : { kind, every, weekdays };
  return { rule: ruleOf(choice), dates: [], slots: wanted.slots };
}
