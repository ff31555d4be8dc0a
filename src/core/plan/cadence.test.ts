import { describe, expect, it } from 'vitest';
import { CadenceError, type Closure, type LaidDown, layDown, type OnClosure } from './cadence';
import { type Cadence, ruleOf, sayCadence } from './cadence-rule';

const AFTER_SCHOOL = [{ startsAt: '15:45', minutes: 90 }];
const cadence = (rule: string | null, change: Partial<Cadence> = {}): Cadence => ({
  rule,
  dates: [],
  slots: AFTER_SCHOOL,
  ...change,
});
const THURSDAYS = cadence(ruleOf({ kind: 'weekly', every: 1, weekdays: [4] }));
const HALF_TERM: Closure = {
  calendar: 'School holidays',
  title: 'Autumn break',
  from: '2026-10-26',
  to: '2026-10-30',
};
const days = ({ sessions }: LaidDown) => sessions.map(({ date }) => date);
const lay = (from: string, to: string | null, which: Cadence = THURSDAYS, most: number | null = null) =>
  layDown(which, { from, to }, most, [], 'move');

describe('a cadence', () => {
  it.each([
    [
      'every Thursday',
      { kind: 'weekly', every: 1, weekdays: [4] },
      ['2026-10-01', '2026-10-08', '2026-10-15', '2026-10-22'],
    ],
    ['every second Thursday', { kind: 'weekly', every: 2, weekdays: [4] }, ['2026-10-01', '2026-10-15']],
    [
      'every Tuesday and Thursday',
      { kind: 'weekly', every: 1, weekdays: [4, 2] },
      ['2026-10-01', '2026-10-06', '2026-10-08', '2026-10-13', '2026-10-15', '2026-10-20', '2026-10-22'],
    ],
    ['every first Tuesday of the month', { kind: 'monthly', nth: 1, weekday: 2 }, ['2026-10-06']],
    ['every last Wednesday of the month', { kind: 'monthly', nth: -1, weekday: 3 }, []],
    ['once', { kind: 'single' }, ['2026-10-01']],
  ] as const)('%s', (said, choice, expected) => {
    const which = cadence(ruleOf(choice as never));
    expect(sayCadence(which)).toBe(`${said}, 15:45`);
    if (expected.length > 0) expect(days(lay('2026-10-01', '2026-10-22', which))).toEqual(expected);
  });

  it('of a holiday camp has a morning and an afternoon each day', () => {
    const slots = [
      { startsAt: '09:30', minutes: 150 },
      { startsAt: '13:00', minutes: 120 },
    ];
    const camp = cadence(ruleOf({ kind: 'daily', weekdays: [1, 2, 3, 4, 5] }), { slots });
    const { sessions } = lay('2027-02-15', '2027-02-21', camp);
    expect(sessions.map(({ date, startsAt }) => `${date} ${startsAt}`)).toEqual(
      ['15', '16', '17', '18', '19'].flatMap((day) => [`2027-02-${day} 09:30`, `2027-02-${day} 13:00`]),
    );
  });

  it('knows 29 February where there is one', () => {
    const yearly = cadence('FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29');
    expect(days(lay('2027-01-01', '2033-01-01', yearly))).toEqual(['2028-02-29', '2032-02-29']);
  });

  it('picked by hand keeps those days, each once, in order', () => {
    const picked = cadence(null, { dates: ['2026-12-05', '2026-11-07', '2026-12-05'] });
    expect(days(lay('2026-11-01', '2026-12-31', picked))).toEqual(['2026-11-07', '2026-12-05']);
  });

  it.each([
    ['ends before it starts', () => lay('2026-10-01', '2026-09-30')],
    ['No such day lies between', () => lay('2026-10-02', '2026-10-07')],
    ['more than 400 sessions', () => lay('2026-10-01', '2090-01-01')],
    ['has no end', () => lay('2026-10-01', null)],
    ['not a recurrence rule', () => lay('2026-10-01', '2026-12-01', cadence('FREQ=SOMETIMES'))],
    ['repeat by day, week, month or year', () => lay('2026-10-01', '2026-12-01', cadence('FREQ=SECONDLY'))],
    ['at what time', () => lay('2026-10-01', '2026-12-01', cadence('FREQ=DAILY', { slots: [] }))],
  ])('that cannot be says so: %s', (words, work) => {
    expect(work).toThrow(CadenceError);
    expect(work).toThrow(words);
  });
});

describe('a session that falls on a closure', () => {
  const season = { from: '2026-10-08', to: '2026-11-12' };
  const laid = (onClosure: OnClosure, closures: readonly Closure[] = [HALF_TERM], placeId?: string) =>
    layDown(THURSDAYS, season, null, closures, onClosure, placeId);

  it('is moved to the next free day of the cadence, and says why', () => {
    const { sessions, lost } = laid('move');
    expect(sessions.map(({ date }) => date.slice(5))).toEqual(['10-08', '10-15', '10-22', '11-05', '11-12', '11-19']);
    expect(sessions.at(-1)?.because).toBe(
      'Instead of Thu 29 Oct (School holidays: Autumn break), after the season’s end.',
    );
    expect(lost).toEqual([
      { date: '2026-10-29', because: 'School holidays: Autumn break', became: 'moved', to: '2026-11-19' },
    ]);
  });

  it('is not moved onto the next closure', () => {
    const feast = { calendar: 'Public holidays', title: 'Harvest feast', from: '2026-11-19', to: '2026-11-19' };
    expect(laid('move', [HALF_TERM, feast]).lost[0]?.to).toBe('2026-11-26');
  });

  it('is skipped, or kept with a word', () => {
    expect(days(laid('skip'))).toHaveLength(5);
    expect(laid('skip').lost).toMatchObject([{ date: '2026-10-29', became: 'skipped' }]);
    expect(laid('keep').sessions[3]).toMatchObject({ date: '2026-10-29', because: expect.stringContaining('Kept') });
  });

  it('stays where only another place, or another hour, is closed', () => {
    const loft = { ...HALF_TERM, placeId: 'loft' };
    expect(laid('move', [loft], 'kitchen').lost).toEqual([]);
    expect(laid('move', [loft], 'loft').lost).toHaveLength(1);
    const morning = { ...HALF_TERM, hours: { from: '08:00', to: '15:45' } };
    expect(laid('move', [morning]).lost).toEqual([]);
    expect(laid('move', [{ ...morning, hours: { from: '08:00', to: '15:46' } }]).lost).toHaveLength(1);
  });

  it('counts as many days as were wanted', () => {
    const { sessions } = layDown(THURSDAYS, { from: '2026-10-08', to: null }, 4, [HALF_TERM], 'move');
    expect(sessions.map(({ date }) => date.slice(5))).toEqual(['10-08', '10-15', '10-22', '11-05']);
  });
});
