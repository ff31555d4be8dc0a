import { describe, expect, it } from 'vitest';
import { addDays } from './civil';
import { type Booking, checkBooking, indexBookings, type PlanWorld } from './conflicts';
import type { Place } from './place';
import { type PlaceWish, weekPlaces, whyBetter } from './week-places';

const room = (id: string, seats: number, shared = false): Place => ({
  id,
  name: id,
  seats,
  hours: [{ weekdays: [1, 2, 3, 4, 5], from: '14:00', to: '20:00' }],
  equipment: { burners: 4 },
  minutesBefore: 15,
  minutesAfter: 15,
  shared,
  outdoor: null,
});
const world: PlanWorld = {
  timeZone: 'America/New_York',
  places: new Map([room('kitchen', 12), room('hall', 30), room('nook', 6)].map((each) => [each.id, each])),
  instructors: new Map([
    ['tobin', 'Tobin'],
    ['ines', 'Ines'],
  ]),
  travel: new Map([['kitchen hall', 30]]),
  closures: [{ calendar: 'Public holidays', title: 'Founders’ day', from: '2027-01-18', to: '2027-01-18' }],
};
/** Somebody is in the kitchen every Tuesday and Thursday; Tobin teaches there. */
const taken: Booking[] = Array.from({ length: 12 }, (_, week) =>
  [0, 2].map((shift) => ({
    id: `${week} ${shift}`,
    courseId: 'breads',
    title: 'Breads',
    date: addDays('2027-01-05', week * 7 + shift),
    startsAt: '15:00',
    minutes: 90,
    placeId: 'kitchen',
    instructorId: 'tobin',
    inRoom: 10,
    people: 10,
    capacity: null,
    uses: {},
  })),
).flat();
const wish = (change: Partial<PlaceWish> = {}): PlaceWish => ({
  from: '2027-01-04',
  to: '2027-03-20',
  every: 1,
  minutes: 90,
  weekdays: [1, 2, 3, 4],
  earliest: '15:00',
  latest: '17:00',
  people: 12,
  uses: { burners: 3 },
  instructorIds: ['tobin'],
  placeIds: ['kitchen', 'hall', 'nook'],
  onClosure: 'move',
  ...change,
});
const index = indexBookings(taken, world);

describe('a place in the week', () => {
  it('is the weekday with no day taken or lost, in the room that fits, and says why', () => {
    const [first, second] = weekPlaces(wish(), index, world);
    expect(first).toMatchObject({
      weekday: 3,
      startsAt: '15:00',
      placeId: 'kitchen',
      instructorId: 'tobin',
      lost: [],
      taken: [],
    });
    expect(first?.reasons).toEqual([
      '11 free Wednesdays',
      'no conflict',
      'no day lost to a closure',
      'the room is just full',
    ]);
    expect(second).toMatchObject({ weekday: 3, placeId: 'hall' });
    expect(first && second && whyBetter(first, second)).toBe('The room fits the class better.');
  });

  it('counts what closures and others take, and minds the way', () => {
    const [first, second, third] = weekPlaces(wish({ weekdays: [1, 2], latest: '18:30' }), index, world, 10);
    // Breads are cleared away at 16:45, and setting up takes 15 minutes.
    expect(first).toMatchObject({ weekday: 2, placeId: 'kitchen', startsAt: '17:00' });
    // From the kitchen it is half an hour to the hall.
    expect(second).toMatchObject({ weekday: 2, placeId: 'hall', startsAt: '17:00' });
    expect(third).toMatchObject({
      weekday: 1,
      placeId: 'kitchen',
      lost: [{ date: '2027-01-18', because: 'Founders’ day' }],
    });
    expect(first && third && whyBetter(first, third)).toBe('1 lost day fewer.');
  });

  it('with another instructor is free where the first is not', () => {
    const [first] = weekPlaces(wish({ weekdays: [2], instructorIds: ['tobin', 'ines'] }), index, world);
    expect(first).toMatchObject({ placeId: 'hall', instructorId: 'ines', taken: [] });
  });

  it('never holds a conflict on a day that it calls free', () => {
    for (const place of weekPlaces(wish({ instructorIds: ['tobin', 'ines'], latest: '20:00' }), index, world, 50)) {
      for (const date of place.free) {
        const { startsAt, placeId, instructorId } = place;
        const booking: Booking = {
          id: 'new',
          courseId: 'new',
          title: 'New',
          date,
          startsAt,
          minutes: 90,
          placeId,
          instructorId,
          inRoom: 12,
          people: 12,
          capacity: null,
          uses: { burners: 3 },
        };
        expect(checkBooking(booking, index, world)).toEqual([]);
      }
    }
  });

  it('is not found in a room too small, too short a day, or a season without the weekday', () => {
    expect(weekPlaces(wish({ placeIds: ['nook'] }), index, world)).toEqual([]);
    expect(weekPlaces(wish({ minutes: 400, latest: '24:00' }), index, world)).toEqual([]);
    expect(weekPlaces(wish({ to: '2027-01-04', weekdays: [2] }), index, world)).toEqual([]);
  });
});
