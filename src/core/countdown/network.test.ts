import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { civilOf, DAY, sayCivil } from '../plan/civil';
import { calculate, finishAfter, type Job, NetworkError, startBefore, whyTooLate, workHours } from './network';

const at = (date: string, time: string) => civilOf(date, time);
const SHOP = workHours('the shop', [{ weekdays: [1, 2, 3, 4, 5, 6], from: '08:00', to: '20:00' }]);
const CREW = workHours('the crew', [{ weekdays: [1, 2, 3, 4, 5], from: '10:00', to: '14:00' }]);
const job = (key: string, minutes: number, after: string[], change: Partial<Job> = {}): Job => ({
  key,
  title: key,
  after,
  minutes,
  hours: null,
  done: false,
  ...change,
});
// Thursday 26 November 2026, 16:00.
const CLASS = at('2026-11-26', '16:00');
const plan = (change: Record<string, Partial<Job>> = {}): Job[] =>
  [
    job('Lock kits', 30, []),
    job('Shop', 90, ['Lock kits'], { hours: SHOP }),
    job('Pack', 180, ['Shop'], { hours: CREW, notBefore: { at: CLASS - DAY, why: 'cold food keeps 24 hours' } }),
    job('Teach', 90, ['Pack'], { at: CLASS }),
  ].map((each) => ({ ...each, ...change[each.key] }));
const timing = (jobs: readonly Job[], now: number, key: string) => {
  const found = calculate(jobs, now).timings.get(key);
  if (!found) throw new Error(key);
  return { earliest: sayCivil(found.earliestStart), latest: sayCivil(found.latestStart), slack: found.slack };
};

describe('jobs before a class', () => {
  const monday = at('2026-11-23', '09:00');

  it('are counted back within working hours, and forward from now', () => {
    expect(timing(plan(), monday, 'Pack')).toEqual({
      earliest: 'Thu 26 Nov, 10:00',
      latest: 'Thu 26 Nov, 11:00',
      slack: 60,
    });
    // Wednesday's crew hours are over when cold food may be packed at 16:00; shopping may go on until Thursday 9:30.
    expect(timing(plan(), monday, 'Shop')).toMatchObject({
      earliest: 'Mon 23 Nov, 09:30',
      latest: 'Thu 26 Nov, 09:30',
    });
    expect(timing(plan(), monday, 'Lock kits')).toMatchObject({ latest: 'Thu 26 Nov, 09:00' });
  });

  it('know the chain that decides', () => {
    expect(calculate(plan(), at('2026-11-26', '08:50')).chain).toEqual(['Lock kits', 'Shop', 'Pack']);
    const locked = plan({ 'Lock kits': { done: true }, Shop: { done: true } });
    expect(calculate(locked, monday).chain).toEqual(['Pack']);
  });

  it('that can no longer be done say which, why and by how much', () => {
    const late = calculate(plan(), at('2026-11-26', '09:45'));
    expect(whyTooLate(late)).toBe(
      'Lock kits takes 30 minutes and can start Thu 26 Nov, 09:45 at the earliest, but had to start by Thu 26 Nov, 09:00, before shop, pack: 45 minutes too late.',
    );
    expect(whyTooLate(calculate(plan(), monday))).toBeUndefined();
    const done = plan({ 'Lock kits': { done: true }, Shop: { done: true } });
    expect(whyTooLate(calculate(done, at('2026-11-26', '10:50')))).toBeUndefined();
  });

  it('cannot be done when the earliest and the latest exclude each other', () => {
    const sameDay = plan({
      Pack: { minutes: 180, notBefore: { at: at('2026-11-26', '12:00'), why: 'fruit is cut at noon' } },
    });
    expect(whyTooLate(calculate(sameDay, monday))).toContain('(fruit is cut at noon)');
  });

  it('with more work than fits a day goes on the next day; what fits is not torn apart', () => {
    expect(sayCivil(startBefore(CREW, CLASS, 400))).toBe('Wed 25 Nov, 11:20');
    expect(finishAfter(CREW, at('2026-11-25', '11:20'), 400).finish).toBe(at('2026-11-26', '14:00'));
    expect(sayCivil(startBefore(CREW, at('2026-11-26', '11:00'), 120))).toBe('Wed 25 Nov, 12:00');
  });

  it('rest on closed days', () => {
    const rest = workHours(
      'the shop',
      [{ weekdays: [1, 2, 3, 4, 5, 6, 7], from: '08:00', to: '20:00' }],
      new Set([at('2026-11-25', '00:00') / DAY]),
    );
    expect(sayCivil(startBefore(rest, at('2026-11-26', '08:30'), 60))).toBe('Tue 24 Nov, 19:00');
    const never = workHours('the crew', [{ weekdays: [], from: '08:00', to: '20:00' }]);
    expect(whyTooLate(calculate(plan({ Pack: { hours: never } }), monday))).toContain('no working hours at all');
  });

  it('that wait for themselves are named', () => {
    expect(() => calculate([job('A', 1, ['B']), job('B', 1, ['A'])], 0)).toThrow(NetworkError);
    expect(() => calculate([job('A', 1, ['A'])], 0)).toThrow('“A” waits for itself');
  });
});

describe('working hours', () => {
  it('give back the same work forward and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60 * DAY }), fc.integer({ min: 1, max: 1500 }), (shift, minutes) => {
        const end = at('2026-11-01', '00:00') + shift;
        const start = startBefore(CREW, end, minutes);
        const again = finishAfter(CREW, start, minutes);
        expect(again.start).toBe(start);
        expect(again.finish).toBeLessThanOrEqual(end);
        // Any later start would end too late.
        expect(finishAfter(CREW, start + 1, minutes).finish).toBeGreaterThan(end);
      }),
    );
  });
});
