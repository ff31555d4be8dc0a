import { describe, expect, it } from 'vitest';
import { civilOf, sayCivil } from '../plan/civil';
import type { RhythmRule } from '../stages/facts';
import { plannedStart } from './rhythm';

/** 2026-11-26 is a Thursday; the job may begin from Friday before it, and must on Wednesday at four. */
const ROOM = { earliestStart: civilOf('2026-11-20', '08:00'), latestStart: civilOf('2026-11-25', '16:00') };
const planned = (rule: RhythmRule, room = ROOM) => sayCivil(plannedStart(rule, '2026-11-26', room));

describe('when a job is planned by habit', () => {
  it('is the last such weekday that is not too late', () => {
    expect(planned({ weekday: 6, time: '10:00' })).toBe('Sat 21 Nov, 10:00');
    expect(planned({ weekday: 3, time: '15:00' })).toBe('Wed 25 Nov, 15:00');
    // On Wednesday at five it is too late this week.
    expect(planned({ weekday: 3, time: '17:00' }, { ...ROOM, earliestStart: 0 })).toBe('Wed 18 Nov, 17:00');
  });

  it('is so many days before the session', () => {
    expect(planned({ daysBefore: 2, time: '18:00' })).toBe('Tue 24 Nov, 18:00');
  });

  it('never leaves the room that the job has', () => {
    expect(planned({ daysBefore: 0, time: '09:00' })).toBe('Wed 25 Nov, 16:00');
    expect(planned({ daysBefore: 9, time: '09:00' })).toBe('Fri 20 Nov, 08:00');
    // Too late already: what must be done now is not planned for later.
    expect(
      planned(
        { weekday: 6, time: '10:00' },
        { earliestStart: civilOf('2026-11-27', '08:00'), latestStart: civilOf('2026-11-22', '08:00') },
      ),
    ).toBe('Sun 22 Nov, 08:00');
  });
});
