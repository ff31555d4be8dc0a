import { describe, expect, it } from 'vitest';
import { weekHours } from '@/contracts/plan';
import { hoursSent } from './hours-fields';

const day = (weekday: number, from: string, to: string) => ({ weekdays: [String(weekday)], from, to });

describe('hours as a form sends them', () => {
  it('come together where they are the same, and a weekday left empty has none', () => {
    const sent = [day(1, '09:00', '5 pm'), day(2, '09:00', '17:00'), day(3, '', ''), day(6, '10:00', '14:00')];
    expect(weekHours.parse(hoursSent(sent))).toEqual([
      { weekdays: [1, 2], from: '09:00', to: '17:00' },
      { weekdays: [6], from: '10:00', to: '14:00' },
    ]);
  });

  it('end at midnight as the end of the day', () => {
    expect(weekHours.parse(hoursSent([day(3, '18:00', '00:00')]))).toEqual([
      { weekdays: [3], from: '18:00', to: '24:00' },
    ]);
  });

  it('are refused where they stand: one end missing, or closed before it opens', () => {
    const wrong = (from: string, to: string) =>
      weekHours
        .safeParse(hoursSent([day(1, '', ''), day(2, from, to)]))
        .error?.issues.map(({ path }) => path.join('.'));
    expect(wrong('09:00', '')).toContain('1.to');
    expect(wrong('17:00', '09:00')).toEqual(['1.to']);
  });
});
