import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { closureOn, layDown } from './cadence';
import { ruleOf } from './cadence-rule';
import { addDays, civilOf, dayOf, minutesOf, splitCivil, type Weekday, weekdayOf } from './civil';
import { type Booking, conflictsOf, fixesFor, indexBookings, type PlanWorld } from './conflicts';
import type { Place } from './place';
import { weekPlaces } from './week-places';

const FROM = '2026-09-01';
const date = fc.integer({ min: 0, max: 120 }).map((days) => addDays(FROM, days));
const weekday = fc.integer({ min: 1, max: 7 }) as fc.Arbitrary<Weekday>;
const closure = fc.record({ from: date, length: fc.integer({ min: 0, max: 9 }) }).map(({ from, length }) => ({
  calendar: 'Closures',
  title: `From ${from}`,
  from,
  to: addDays(from, length),
}));
const rule = fc.oneof(
  fc
    .record({
      every: fc.integer({ min: 1, max: 4 }),
      weekdays: fc.uniqueArray(weekday, { minLength: 1, maxLength: 4 }),
    })
    .map((choice) => ruleOf({ kind: 'weekly', ...choice })),
  fc.uniqueArray(weekday, { minLength: 1, maxLength: 7 }).map((weekdays) => ruleOf({ kind: 'daily', weekdays })),
  fc.record({ nth: fc.constantFrom(1, 2, 3, 4, -1), weekday }).map((choice) => ruleOf({ kind: 'monthly', ...choice })),
);
const SLOT = { startsAt: '16:00', minutes: 90 };

describe('civil dates', () => {
  it('come back as they went, whatever the day', () => {
    fc.assert(
      fc.property(fc.integer({ min: -200_000, max: 80_000 * 1440 }), (civil) => {
        const { date: day, time } = splitCivil(civil);
        expect(civilOf(day, time)).toBe(civil);
        expect(minutesOf(time)).toBeLessThan(1440);
      }),
    );
  });

  it.each([
    ['2024-02-29', 4],
    ['2026-01-01', 4],
    ['2026-11-26', 4],
    ['2027-02-28', 7],
    ['2000-01-01', 6],
    ['1969-12-31', 3],
  ])('%s is weekday %i', (day, expected) => {
    expect(weekdayOf(dayOf(day))).toBe(expected);
  });
});

describe('a season, whatever its cadence and closures', () => {
  const season = fc.record({
    rule,
    closures: fc.array(closure, { maxLength: 8 }),
    from: date,
    most: fc.integer({ min: 1, max: 20 }),
  });
  const lay = (
    { rule: text, closures, from, most }: { rule: string; closures: never[]; from: string; most: number },
    how: 'move' | 'skip' | 'keep',
  ) => layDown({ rule: text, dates: [], slots: [SLOT] }, { from, to: null }, most, closures, how);

  it('moved around closures keeps its number of days, and none of them is closed', () => {
    fc.assert(
      fc.property(season, (wanted) => {
        const { sessions, lost } = lay(wanted as never, 'move');
        const moved = lost.filter(({ became }) => became === 'moved').length;
        expect(sessions.length + lost.length - moved).toBe(wanted.most);
        for (const session of sessions) expect(closureOn(wanted.closures, session.date, session)).toBeUndefined();
        expect(new Set(sessions.map((session) => session.date)).size).toBe(sessions.length);
        expect(sessions.map((session) => session.date)).toEqual([...sessions.map((session) => session.date)].sort());
      }),
    );
  });

  it('skipped loses exactly what is closed; kept loses nothing', () => {
    fc.assert(
      fc.property(season, (wanted) => {
        const kept = lay(wanted as never, 'keep');
        const skipped = lay(wanted as never, 'skip');
        const closed = (day: string) => closureOn(wanted.closures, day, SLOT) !== undefined;
        expect(kept.sessions).toHaveLength(wanted.most);
        expect(skipped.sessions.map((session) => session.date)).toEqual(
          kept.sessions.map((session) => session.date).filter((day) => !closed(day)),
        );
        expect(skipped.lost.map((day) => day.date)).toEqual(kept.lost.map((day) => day.date));
      }),
    );
  });
});

const PLACES: readonly Place[] = ['kitchen', 'hall', 'loft'].map((id, n) => ({
  id,
  name: id,
  seats: 10 + n * 10,
  hours: n === 2 ? [] : [{ weekdays: [1, 2, 3, 4, 5], from: '08:00', to: '20:00' }],
  equipment: { burners: 4 },
  minutesBefore: n * 15,
  minutesAfter: 15,
  shared: id === 'hall',
  outdoor: null,
}));
const world: PlanWorld = {
  timeZone: 'Europe/London',
  places: new Map(PLACES.map((place) => [place.id, place])),
  instructors: new Map([
    ['tobin', 'Tobin'],
    ['ines', 'Ines'],
  ]),
  travel: new Map([
    ['kitchen hall', 20],
    ['hall loft', 35],
  ]),
  closures: [{ calendar: 'Closures', title: '', from: '2026-09-10', to: '2026-09-11' }],
};
const booking = fc
  .record({
    day: fc.integer({ min: 0, max: 13 }),
    start: fc.integer({ min: 14, max: 40 }),
    minutes: fc.constantFrom(60, 90, 120),
    placeId: fc.constantFrom('kitchen', 'hall', 'loft', null),
    instructorId: fc.constantFrom('tobin', 'ines', null),
    inRoom: fc.integer({ min: 4, max: 16 }),
    burners: fc.integer({ min: 0, max: 3 }),
  })
  .map(
    ({ day, start, burners, ...rest }): Omit<Booking, 'id'> => ({
      courseId: 'course',
      title: 'Class',
      date: addDays('2026-09-07', day),
      startsAt: `${String(Math.floor(start / 2)).padStart(2, '0')}:${start % 2 === 0 ? '00' : '30'}`,
      people: rest.inRoom,
      capacity: null,
      uses: { burners },
      ...rest,
    }),
  );
const plan = fc
  .array(booking, { minLength: 1, maxLength: 14 })
  .map((list): Booking[] => list.map((each, n) => ({ id: `session ${n}`, ...each })));

/** Pairs that collide in room or instructor, found by comparing each with each. */
function collisions(bookings: readonly Booking[]): string[] {
  const found: string[] = [];
  const span = (each: Booking) => {
    const start = civilOf(each.date, each.startsAt);
    const place = PLACES.find(({ id }) => id === each.placeId);
    return {
      start,
      end: start + each.minutes,
      from: start - (place?.minutesBefore ?? 0),
      to: start + each.minutes + (place?.minutesAfter ?? 0),
    };
  };
  bookings.forEach((one, n) => {
    for (const other of bookings.slice(n + 1)) {
      const [a, b] = [span(one), span(other)];
      const pair = [one.id, other.id].sort().join(' and ');
      if (one.placeId && one.placeId === other.placeId && one.placeId !== 'hall' && a.from < b.to && b.from < a.to)
        found.push(`room: ${pair}`);
      if (one.instructorId && one.instructorId === other.instructorId && a.start < b.end && b.start < a.end)
        found.push(`instructor: ${pair}`);
    }
  });
  return found.sort();
}

describe('conflicts, whatever the plan', () => {
  it('are those that one finds by comparing every session with every other', () => {
    fc.assert(
      fc.property(plan, (bookings) => {
        const found = conflictsOf(bookings, world)
          .filter(({ kind }) => kind === 'room' || kind === 'instructor')
          .map(({ kind, sessionId, otherId }) => `${kind}: ${[sessionId, otherId].sort().join(' and ')}`);
        expect(found.sort()).toEqual(collisions(bookings));
      }),
      { numRuns: 300 },
    );
  });

  it('do not depend on the order in which the sessions are given', () => {
    const said = (bookings: readonly Booking[]) =>
      conflictsOf(bookings, world)
        .map(({ kind, sessionId, otherId }) => `${kind} ${[sessionId, otherId ?? ''].sort().join()}`)
        .sort();
    fc.assert(
      fc.property(plan, (bookings) => {
        // Sessions of one moment are told by which comes first: those differ, and are left out here.
        const starts = bookings.map((each) => `${each.date} ${each.startsAt}`);
        fc.pre(new Set(starts).size === starts.length);
        expect(said([...bookings].reverse())).toEqual(said(bookings));
      }),
    );
  });

  it('are gone for a session whose fix is taken', () => {
    fc.assert(
      fc.property(plan, (bookings) => {
        const index = indexBookings(bookings, world);
        for (const each of bookings) {
          for (const { change } of fixesFor(each, index, world)) {
            const after = bookings.map((other) => (other.id === each.id ? { ...other, ...change } : other));
            const left = conflictsOf(after, world).filter(
              ({ sessionId, otherId }) => sessionId === each.id || otherId === each.id,
            );
            expect(left).toEqual([]);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('places in the week, whatever is booked', () => {
  it('call free only what has no conflict, and come in order of what they cost', () => {
    fc.assert(
      fc.property(plan, fc.integer({ min: 4, max: 25 }), (bookings, people) => {
        const index = indexBookings(bookings, world);
        const found = weekPlaces(
          {
            from: '2026-09-07',
            to: '2026-09-20',
            every: 1,
            minutes: 90,
            weekdays: [1, 2, 3, 4, 5, 6],
            earliest: '09:00',
            latest: '19:00',
            people,
            uses: { burners: 2 },
            instructorIds: ['tobin', 'ines'],
            placeIds: ['kitchen', 'hall', 'loft'],
            onClosure: 'move',
          },
          index,
          world,
          20,
        );
        for (const { free, startsAt, placeId, instructorId } of found) {
          const asked = {
            title: 'New',
            courseId: 'new',
            minutes: 90,
            inRoom: people,
            people,
            capacity: null,
            uses: { burners: 2 },
          };
          const added = free.map(
            (day, n): Booking => ({ id: `new ${n}`, date: day, startsAt, placeId, instructorId, ...asked }),
          );
          const clashes = conflictsOf([...bookings, ...added], world).filter(
            ({ sessionId, otherId }) => sessionId.startsWith('new') || otherId?.startsWith('new'),
          );
          expect(clashes).toEqual([]);
        }
        expect(found.map(({ score }) => score)).toEqual(found.map(({ score }) => score).sort((a, b) => a - b));
      }),
      { numRuns: 40 },
    );
  });
});
