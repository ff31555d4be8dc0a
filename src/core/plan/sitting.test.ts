import { describe, expect, it } from 'vitest';
import { daysAfter, lastDayOf, moveAlong, type Sitting, sittingOf } from './sitting';

const wednesday: Sitting = {
  groupId: 'wed',
  groupName: 'Wednesday group',
  date: '2027-03-03',
  startsAt: '16:00',
  place: 'Harbour hall',
  placeId: null,
  instructorId: null,
  status: 'planned',
};

describe('a session given to several groups', () => {
  it('takes its groups along when it moves, across the end of a month', () => {
    const [moved] = moveAlong([wednesday], '2027-03-01', '2027-03-29');
    expect(moved?.date).toBe('2027-03-31');
    expect(daysAfter('2027-03-29', moved as Sitting)).toBe(2);
  });

  it('takes those in no group, or in one that it is not given to, with the first', () => {
    expect(sittingOf(null, [wednesday])).toBe('');
    expect(sittingOf('saturday', [wednesday])).toBe('');
    expect(sittingOf('wed', [wednesday])).toBe('wed');
  });

  it('expects nobody of a group whose sitting is cancelled', () => {
    expect(sittingOf('wed', [{ ...wednesday, status: 'cancelled' }])).toBeUndefined();
  });

  it('is over when its last group and the last family have eaten', () => {
    const session = { date: '2027-03-01', cookBy: null, sittings: [wednesday] };
    expect(lastDayOf(session)).toBe('2027-03-03');
    expect(lastDayOf({ ...session, cookBy: '2027-03-07' })).toBe('2027-03-07');
    expect(lastDayOf({ ...session, sittings: [{ ...wednesday, status: 'cancelled' }] })).toBe('2027-03-01');
  });
});
