import fc from 'fast-check';
import rrule from 'rrule';
import { describe, expect, it } from 'vitest';
import { dateOf, dayOf } from './civil';
import { daysOfRule, MOST_WORK, RuleError, readDayRule } from './recurrence';

const days = (text: string, start: string, from: string, to: string, most = 500) =>
  daysOfRule(readDayRule(text), dayOf(start), { from: dayOf(from), to: dayOf(to) }, most, { left: MOST_WORK }).map(
    dateOf,
  );

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const list = <T>(of: fc.Arbitrary<T>, most: number) => fc.uniqueArray(of, { minLength: 1, maxLength: most });
const sometimes = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: undefined, freq: 2 });
const signed = (most: number) => fc.integer({ min: 1, max: most }).chain((n) => fc.constantFrom(n, -n));

/** Rules of every kind, as text. */
const rule = fc
  .record({
    frequency: fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'),
    interval: sometimes(fc.integer({ min: 1, max: 5 })),
    months: sometimes(list(fc.integer({ min: 1, max: 12 }), 3)),
    monthDays: sometimes(list(signed(31), 3)),
    // Numbered weekdays, or plain ones: the judge does not read both in one rule as RFC 5545 has it.
    isNumbered: fc.boolean(),
    weekdays: sometimes(list(fc.tuple(signed(5), fc.constantFrom(...WEEKDAYS)), 3)),
    // From the end only the last: the judge counts further back past the first.
    positions: sometimes(list(fc.constantFrom(1, 2, 3, 4, -1), 1)),
    count: sometimes(fc.integer({ min: 1, max: 30 })),
    weekStart: sometimes(fc.constantFrom('MO', 'SU', 'WE')),
  })
  .map((each) => {
    const mayNumber = each.isNumbered && /^(MONTHLY|YEARLY)$/.test(each.frequency);
    const weekdays = each.weekdays?.map(([nth, name]) => `${mayNumber ? nth : ''}${name}`);
    const monthDays = each.frequency === 'WEEKLY' ? undefined : each.monthDays;
    const mayPlace = each.frequency === 'MONTHLY' || each.frequency === 'YEARLY';
    // The judge takes positions only beside something they choose from.
    const positions = mayPlace && (monthDays || weekdays) ? each.positions : undefined;
    return [
      `FREQ=${each.frequency}`,
      each.interval && `INTERVAL=${each.interval}`,
      each.months && `BYMONTH=${each.months}`,
      monthDays && `BYMONTHDAY=${monthDays}`,
      weekdays && `BYDAY=${weekdays}`,
      positions && `BYSETPOS=${positions}`,
      each.count && `COUNT=${each.count}`,
      each.weekStart && `WKST=${each.weekStart}`,
    ]
      .filter(Boolean)
      .join(';');
  });

describe('the days of a rule', () => {
  it('are those that another reader of RFC 5545 finds, for rules made by chance', () => {
    const start = fc.integer({ min: dayOf('2023-01-01'), max: dayOf('2027-12-31') });
    fc.assert(
      fc.property(rule, start, fc.integer({ min: 0, max: 500 }), (text, first, skipped) => {
        const from = first + skipped;
        const to = from + 900;
        const judge = rrule.rrulestr(`${text};UNTIL=${dateOf(to).replaceAll('-', '')}T000000Z`, {
          dtstart: new Date(first * 86_400_000),
        });
        const expected = judge
          .between(new Date(from * 86_400_000), new Date(to * 86_400_000), true)
          .map((at) => at.toISOString().slice(0, 10));
        expect(days(text, dateOf(first), dateOf(from), dateOf(to))).toEqual(expected.slice(0, 500));
      }),
      // 4,000 of them were compared once. The judge walks to the last year of all for a rule that never comes: whatever it has judged
      // after some seconds must do.
      { numRuns: Number(process.env.RULES ?? 100), interruptAfterTimeLimit: 15_000 },
    );
  }, 120_000);

  it.each([
    ['FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', 0],
    ['FREQ=YEARLY;BYDAY=53MO;BYMONTH=2', 0],
    ['FREQ=MONTHLY;BYMONTHDAY=31;BYMONTH=4,6,9,11', 0],
    ['FREQ=DAILY;INTERVAL=10000', 8],
    ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29', 50],
  ])('of a rule that hardly ever comes, %s, are found as fast as any', (text, found) => {
    const budget = { left: MOST_WORK };
    const span = { from: dayOf('2000-01-01'), to: dayOf('2200-01-01') };
    expect(daysOfRule(readDayRule(text), dayOf('2000-01-01'), span, 500, budget).length).toBeGreaterThanOrEqual(
      Math.min(found, 1),
    );
    expect(MOST_WORK - budget.left).toBeLessThanOrEqual(span.to - span.from + 400);
  });

  it('end with the budget, said so', () => {
    const span = { from: 0, to: 100_000 };
    expect(() => daysOfRule(readDayRule('FREQ=DAILY;COUNT=9999'), -1_000_000, span, 10, { left: 1000 })).toThrow(
      'takes too long',
    );
  });

  it.each([
    ['FREQ=SECONDLY', 'within a day'],
    ['FREQ=SOMETIMES', 'unknown'],
    ['FREQ=DAILY;FREQ=WEEKLY', 'twice'],
    ['FREQ=DAILY;BYHOUR=3', 'BYHOUR is not understood'],
    ['FREQ=DAILY;INTERVAL=0', 'INTERVAL cannot be 0'],
    ['FREQ=DAILY;INTERVAL=1e9', 'INTERVAL'],
    ['FREQ=WEEKLY;BYDAY=2MO', 'numbered weekday'],
    ['FREQ=MONTHLY;BYMONTHDAY=0', 'BYMONTHDAY cannot be 0'],
    ['FREQ=DAILY;UNTIL=20261399', 'UNTIL'],
    ['FREQ=WEEKLY;BYDAY=XX', 'no weekday'],
    ['', 'FREQ is missing'],
  ])('are not looked for where the rule is wrong: %s', (text, words) => {
    expect(() => readDayRule(text)).toThrow(RuleError);
    expect(() => readDayRule(text)).toThrow(words);
  });
});
