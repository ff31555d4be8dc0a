import { jobsOf } from '@/core/countdown/jobs';
import { calculate } from '@/core/countdown/network';
import { programmeHours } from '@/core/countdown/work-hours';
import { addDays } from '@/core/plan/civil';
import { type Booking, conflictsOf, indexBookings, type PlanWorld } from '@/core/plan/conflicts';
import type { Place } from '@/core/plan/place';
import { type PlaceWish, weekPlaces } from '@/core/plan/week-places';
import type { JobSession } from '@/core/stages/facts';

const SEASON = { from: '2027-01-04', to: '2027-03-28' };
const WEEKDAYS = [1, 2, 3, 4, 5, 6] as const;

const place = (n: number): Place => ({
  id: `place ${n}`,
  name: `Room ${n}`,
  seats: 12 + n * 2,
  hours: [{ weekdays: WEEKDAYS, from: '08:00', to: '21:00' }],
  equipment: { burners: 4 + (n % 3), knives: 20 },
  minutesBefore: 15,
  minutesAfter: 15,
  shared: n % 4 === 0,
  outdoor: null,
});

/** A city's season: 8 rooms, 12 instructors, 60 courses of 12 weekly sessions, 10 closures; the same on every run. */
function season(): { world: PlanWorld; bookings: Booking[] } {
  const places = Array.from({ length: 8 }, (_, n) => place(n));
  const travel = new Map(
    places.flatMap((from, n) =>
      places.slice(n + 1).map((to, m) => [`${from.id} ${to.id}`, 5 + ((n * 7 + m * 3) % 30)] as const),
    ),
  );
  const world: PlanWorld = {
    timeZone: 'America/New_York',
    places: new Map(places.map((each) => [each.id, each])),
    instructors: new Map(Array.from({ length: 12 }, (_, n) => [`teacher ${n}`, `Teacher ${n}`])),
    travel,
    closures: Array.from({ length: 10 }, (_, n) => ({
      calendar: 'Closures',
      title: `Day ${n}`,
      from: addDays(SEASON.from, n * 8),
      to: addDays(SEASON.from, n * 8),
    })),
  };
  const bookings = Array.from({ length: 60 * 12 }, (_, n): Booking => {
    const course = Math.floor(n / 12);
    const date = addDays(SEASON.from, (n % 12) * 7 + (course % 6));
    return {
      id: `session ${n}`,
      courseId: `course ${course}`,
      title: `Course ${course}`,
      date,
      startsAt: `${String(9 + ((course * 5) % 10)).padStart(2, '0')}:${course % 2 === 0 ? '00' : '30'}`,
      minutes: 60 + (course % 3) * 30,
      placeId: `place ${course % 8}`,
      instructorId: `teacher ${course % 12}`,
      inRoom: 8 + (course % 9),
      people: 8 + (course % 9),
      capacity: 14,
      uses: { burners: 2 + (course % 3) },
    };
  });
  return { world, bookings };
}

/** All conflicts of 60 courses × 12 sessions, from plain data. */
export function conflicts(): () => unknown {
  const { world, bookings } = season();
  return () => conflictsOf(bookings, world);
}

/** The best places in the week for one course, in the same season: every weekday, half hour, room and instructor. */
export function placesInTheWeek(): () => unknown {
  const { world, bookings } = season();
  const index = indexBookings(bookings, world);
  const wish: PlaceWish = {
    ...SEASON,
    every: 1,
    minutes: 90,
    weekdays: WEEKDAYS,
    earliest: '08:00',
    latest: '21:00',
    people: 14,
    uses: { burners: 3 },
    instructorIds: [...world.instructors.keys()],
    placeIds: [...world.places.keys()],
    onClosure: 'move',
  };
  return () => weekPlaces(wish, index, world);
}

/** The countdown of 200 sessions × 14 jobs, from plain data. */
export function countdowns(): () => unknown {
  const hours = programmeHours({}, [{ from: '2027-01-18', to: '2027-01-18' }]);
  const sessions = Array.from(
    { length: 200 },
    (_, n): JobSession => ({
      date: addDays(SEASON.from, n % 80),
      startsAt: `${String(9 + (n % 10)).padStart(2, '0')}:00`,
      minutes: 90,
      modes: ['in person'],
      participants: 20,
      kits: 10 + (n % 30),
      dishes: 1 + (n % 3),
      rollClosesDays: 5,
      cookBy: null,
      course: { thaw: { on: true }, 'cook-ahead': { on: true } },
      session: {},
      oneOffs: [{ id: 'van', title: 'Fetch the van', stage: 'packing', minutes: 45, hours: 'crew', before: 'packing' }],
      outdoor: null,
    }),
  );
  const done = new Set(['recipes']);
  return () => {
    const networks = sessions.map((session) => calculate(jobsOf(session, hours, done), 29_000_000));
    if (networks.some(({ jobs }) => jobs.length !== 14)) throw new Error('Not fourteen jobs.');
    return networks;
  };
}
