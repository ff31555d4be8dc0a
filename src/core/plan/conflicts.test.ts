import { describe, expect, it } from 'vitest';
import { civilOf } from './civil';
import { type Booking, checkBooking, conflictsOf, fixesFor, indexBookings, type PlanWorld } from './conflicts';
import type { Place } from './place';

const WEEKDAYS = [1, 2, 3, 4, 5] as const;
const place = (id: string, name: string, change: Partial<Place> = {}): Place => ({
  id,
  name,
  seats: 14,
  hours: [{ weekdays: WEEKDAYS, from: '09:00', to: '19:00' }],
  equipment: { burners: 4, knives: 14 },
  minutesBefore: 15,
  minutesAfter: 15,
  shared: false,
  outdoor: null,
  ...change,
});
const world = (change: Partial<PlanWorld> = {}): PlanWorld => ({
  timeZone: 'Europe/London',
  places: new Map(
    [place('kitchen', 'Boatshed kitchen'), place('hall', 'Harbour hall', { seats: 40, shared: true })].map((each) => [
      each.id,
      each,
    ]),
  ),
  instructors: new Map([
    ['tobin', 'Tobin'],
    ['ines', 'Ines'],
  ]),
  travel: new Map([['kitchen hall', 25]]),
  closures: [],
  ...change,
});
const booking = (id: string, change: Partial<Booking> = {}): Booking => ({
  id,
  courseId: 'soups',
  title: id,
  date: '2026-11-26',
  startsAt: '16:00',
  minutes: 90,
  placeId: 'kitchen',
  instructorId: 'tobin',
  inRoom: 12,
  people: 12,
  capacity: 14,
  uses: { burners: 3 },
  ...change,
});
const said = (bookings: readonly Booking[], where = world()) =>
  conflictsOf(bookings, where).map(
    ({ kind, sessionId, otherId, say }) => `${kind} ${sessionId}${otherId ? `/${otherId}` : ''}: ${say}`,
  );

describe('two sessions', () => {
  it('cannot have one room at once, clearing and setting up included; it is told once', () => {
    const later = (startsAt: string) => booking('Breads', { startsAt, minutes: 60, instructorId: 'ines' });
    expect(said([booking('Soups'), later('17:45')])).toEqual([
      'room Breads/Soups: Boatshed kitchen is taken by Soups, 15:45 to 17:45.',
    ]);
    expect(said([booking('Soups'), later('13:30')])).toEqual([]);
    expect(said([booking('Soups', { startsAt: '15:00' }), later('17:00')])).toEqual([]);
  });

  it('may share a hall while its seats and burners last', () => {
    const inHall = (id: string, change: Partial<Booking>) =>
      booking(id, { placeId: 'hall', uses: { burners: 2 }, ...change });
    expect(said([inHall('A', {}), inHall('B', { instructorId: 'ines' })])).toEqual([]);
    expect(said([inHall('A', { inRoom: 30 }), inHall('B', { instructorId: 'ines', uses: { burners: 3 } })])).toEqual([
      'seats B/A: 42 (with A) come to Harbour hall, which has 40 seats.',
      'equipment B/A: 5 burners (with A) are needed, and Harbour hall has 4.',
    ]);
  });

  it('cannot have one instructor at once, nor without the time for the way', () => {
    const inHall = (startsAt: string) => booking('Breads', { placeId: 'hall', startsAt });
    expect(said([booking('Soups'), inHall('17:00')])).toEqual([
      'instructor Breads/Soups: Tobin teaches Soups then, 16:00 to 17:30.',
    ]);
    expect(said([booking('Soups', { startsAt: '14:00' }), inHall('15:50')])).toEqual([
      'travel Breads/Soups: Tobin has 20 minutes between Soups (Boatshed kitchen) and this class, and the way takes 25.',
    ]);
    expect(said([booking('Soups', { startsAt: '14:00' }), inHall('15:55')])).toEqual([]);
  });

  it('collide past midnight too', () => {
    const always = world({ places: new Map([['kitchen', place('kitchen', 'Boatshed kitchen', { hours: [] })]]) });
    const night = booking('Night bread', { startsAt: '23:00', minutes: 120 });
    const early = booking('Early bread', { date: '2026-11-27', startsAt: '01:00', instructorId: 'ines' });
    expect(said([night, early], always)).toEqual([expect.stringContaining('room Early bread/Night bread')]);
  });
});

describe('a session', () => {
  it.each([
    [
      'hours',
      { startsAt: '18:00' },
      'Boatshed kitchen is open 09:00 to 19:00 on Thursdays; this needs 17:45 to 19:45, with setting up and clearing.',
    ],
    [
      'hours',
      { date: '2026-11-28' },
      'Boatshed kitchen is closed on Saturdays; this needs 15:45 to 17:45, with setting up and clearing.',
    ],
    ['capacity', { people: 15 }, '15 are on the roll, and the course has room for 14.'],
    ['seats', { inRoom: 15 }, '15 come to Boatshed kitchen, which has 14 seats.'],
    ['equipment', { uses: { burners: 5 } }, '5 burners are needed, and Boatshed kitchen has 4.'],
    [
      'roll',
      { rollCloses: civilOf('2026-11-25', '18:00'), shopBy: civilOf('2026-11-24', '10:00') },
      'The roll closes Wed 25 Nov, 18:00, after shopping must start (Tue 24 Nov, 10:00).',
    ],
  ] as const)('%s: %j', (kind, change, say) => {
    expect(conflictsOf([booking('Soups', change as Partial<Booking>)], world())).toMatchObject([{ kind, say }]);
  });

  it('cannot start in an hour that clocks skip, and is told of one that comes twice', () => {
    const always = (timeZone: string) => world({ timeZone, places: new Map() });
    const at = (date: string, timeZone: string) =>
      said([booking('Dawn fire', { date, startsAt: '02:15' })], always(timeZone));
    expect(at('2026-10-04', 'Australia/Sydney')).toEqual([
      expect.stringContaining('02:15 does not exist on Sun 4 Oct'),
    ]);
    expect(at('2027-04-04', 'Australia/Sydney')).toEqual([expect.stringContaining('02:15 comes twice')]);
    expect(at('2026-10-25', 'America/New_York')).toEqual([]);
  });
});

describe('a fix', () => {
  it('is offered only when it works against the whole plan', () => {
    const plan = [
      booking('Soups'),
      booking('Breads', { instructorId: 'ines' }),
      // The next Thursday is taken too.
      booking('Jams', { date: '2026-12-03', instructorId: 'ines' }),
    ];
    const where = world();
    const index = indexBookings(plan, where);
    const fixes = fixesFor(plan[1] as Booking, index, where);
    expect(fixes.map(({ say }) => say)).toEqual(['Take Harbour hall', 'Start at 14:00', 'Move to Thu 10 Dec, 16:00']);
    for (const { change } of fixes)
      expect(checkBooking({ ...(plan[1] as Booking), ...change }, index, where)).toEqual([]);
  });

  it('takes the time of the way into account, and keeps silent when nothing helps', () => {
    const plan = [booking('Soups', { startsAt: '14:00' }), booking('Breads', { placeId: 'hall', startsAt: '15:40' })];
    const where = world();
    expect(fixesFor(plan[1] as Booking, indexBookings(plan, where), where).map(({ say }) => say)).toEqual([
      'Let Ines teach',
      'Start at 16:10',
      'Move to Thu 3 Dec, 15:40',
    ]);
    const crowd = booking('Feast', { capacity: 10 });
    expect(fixesFor(crowd, indexBookings([crowd], where), where)).toEqual([]);
  });

  it('of a late roll says how many days before the class it must close', () => {
    const late = booking('Soups', {
      rollCloses: civilOf('2026-11-25', '16:00'),
      shopBy: civilOf('2026-11-23', '12:00'),
    });
    const fixes = fixesFor(late, indexBookings([late], world()), world());
    expect(fixes).toEqual([{ say: 'Close the roll 4 days before the class', change: { rollClosesDays: 4 } }]);
  });
});
