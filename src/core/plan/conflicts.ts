import { type Closure, closureOn, sayClosure } from './cadence';
import { type CivilMinutes, civilOf, DAY, dateOf, sayCivil, sayDay, timeOf } from './civil';
import { clockOf } from './clock';
import { EQUIPMENT_KINDS, type EquipmentCounts, outsideHours, type Place, sayEquipment } from './place';

/** A session as it takes up room, people and hours. */
export interface Booking {
  readonly id: string;
  readonly courseId: string;
  readonly title: string;
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  readonly placeId: string | null;
  readonly instructorId: string | null;
  /** Participants who come to the place. */
  readonly inRoom: number;
  /** Participants in all, and how many the course has room for (null: no limit). */
  readonly people: number;
  readonly capacity: number | null;
  readonly uses: EquipmentCounts;
  /** When the roll closes, and when shopping must start at the latest; left out when neither matters any more. */
  readonly rollCloses?: CivilMinutes;
  readonly shopBy?: CivilMinutes;
}

/** What a plan is held against. */
export interface PlanWorld {
  readonly timeZone: string;
  readonly places: ReadonlyMap<string, Place>;
  /** Names of those who can teach, by id. */
  readonly instructors: ReadonlyMap<string, string>;
  /** Minutes from one place to another, by "from to"; looked up both ways. */
  readonly travel: ReadonlyMap<string, number>;
  readonly closures: readonly Closure[];
}

export const CONFLICT_KINDS = {
  room: 'Room',
  instructor: 'Instructor',
  travel: 'Travel',
  equipment: 'Equipment',
  seats: 'Seats',
  capacity: 'Capacity',
  hours: 'Opening hours',
  closure: 'Closure',
  clock: 'Clock change',
  roll: 'Roll',
} as const;

export type ConflictKind = keyof typeof CONFLICT_KINDS;

/** Something that cannot be as it is planned. */
export interface Conflict {
  readonly kind: ConflictKind;
  readonly sessionId: string;
  /** The other session, where two collide. */
  readonly otherId?: string;
  /** What collides, in a sentence. */
  readonly say: string;
}

interface Busy {
  readonly booking: Booking;
  /** The class itself. */
  readonly start: CivilMinutes;
  readonly end: CivilMinutes;
  /** With setting up and clearing. */
  readonly from: CivilMinutes;
  readonly to: CivilMinutes;
}

/** Bookings by place and by instructor, a day at a time, so that one is checked against few. */
export interface PlanIndex {
  readonly byPlace: ReadonlyMap<string, readonly Busy[]>;
  readonly byInstructor: ReadonlyMap<string, readonly Busy[]>;
}

/** Minutes two bookings of one place may not share, and where in time a booking lies. */
export function busyOf(booking: Booking, world: PlanWorld): Busy {
  const start = civilOf(booking.date, booking.startsAt);
  const end = start + booking.minutes;
  const place = booking.placeId ? world.places.get(booking.placeId) : undefined;
  return {
    booking,
    start,
    end,
    from: start - (place?.minutesBefore ?? 0),
    to: end + (place?.minutesAfter ?? 0),
  };
}

/** Sorts bookings by where and with whom they are. */
export function indexBookings(bookings: readonly Booking[], world: PlanWorld): PlanIndex {
  const byPlace = new Map<string, Busy[]>();
  const byInstructor = new Map<string, Busy[]>();
  const put = (map: Map<string, Busy[]>, key: string, busy: Busy) => {
    const there = map.get(key);
    if (there) there.push(busy);
    else map.set(key, [busy]);
  };
  for (const booking of bookings) {
    const busy = busyOf(booking, world);
    const day = Math.floor(busy.start / DAY);
    if (booking.placeId) put(byPlace, `${booking.placeId} ${day}`, busy);
    if (booking.instructorId) put(byInstructor, `${booking.instructorId} ${day}`, busy);
  }
  return { byPlace, byInstructor };
}

/** Bookings near a day: a class may reach past midnight, and so may its clearing. */
function near(map: ReadonlyMap<string, readonly Busy[]>, key: string, at: CivilMinutes): Busy[] {
  const day = Math.floor(at / DAY);
  const found: Busy[] = [];
  for (let each = day - 1; each <= day + 1; each++) {
    const there = map.get(`${key} ${each}`);
    if (there) found.push(...there);
  }
  return found;
}

/** Minutes between two places; 0 when nobody said. */
export const travelMinutes = (world: PlanWorld, from: string, to: string): number =>
  world.travel.get(`${from} ${to}`) ?? world.travel.get(`${to} ${from}`) ?? 0;

/** Everything that stands against a booking where it is; nothing when it can be. */
export function checkBooking(booking: Booking, index: PlanIndex, world: PlanWorld): Conflict[] {
  const busy = busyOf(booking, world);
  const found: Conflict[] = [];
  const say = (kind: ConflictKind, words: string, otherId?: string) =>
    found.push({ kind, sessionId: booking.id, ...(otherId ? { otherId } : {}), say: words });
  const place = booking.placeId ? world.places.get(booking.placeId) : undefined;
  if (place) checkPlace(busy, place, index, say);
  if (booking.instructorId) checkInstructor(busy, booking.instructorId, index, world, say);
  const closure = closureOn(world.closures, booking.date, booking, booking.placeId);
  if (closure) say('closure', `${sayDay(booking.date)} is closed: ${sayClosure(closure)}.`);
  if (booking.capacity !== null && booking.people > booking.capacity)
    say('capacity', `${booking.people} are on the roll, and the course has room for ${booking.capacity}.`);
  if (booking.rollCloses !== undefined && booking.shopBy !== undefined && booking.rollCloses > booking.shopBy)
    say(
      'roll',
      `The roll closes ${sayCivil(booking.rollCloses)}, after shopping must start (${sayCivil(booking.shopBy)}).`,
    );
  const oddity = clockOf(world.timeZone).oddity(busy.start);
  if (oddity === 'missing')
    say(
      'clock',
      `Clocks go forward: ${booking.startsAt} does not exist on ${sayDay(booking.date)}. Start an hour later.`,
    );
  if (oddity === 'twice')
    say('clock', `Clocks go back: ${booking.startsAt} comes twice on ${sayDay(booking.date)}. The first one is meant.`);
  return found;
}

type Say = (kind: ConflictKind, words: string, otherId?: string) => void;

function checkPlace(busy: Busy, place: Place, index: PlanIndex, say: Say): void {
  const { booking } = busy;
  const dayStart = Math.floor(busy.start / DAY) * DAY;
  const outside = outsideHours(place, booking.date, busy.from - dayStart, busy.to - dayStart);
  if (outside) {
    const setting = busy.from < busy.start || busy.to > busy.end ? ', with setting up and clearing' : '';
    say('hours', `${outside}; this needs ${clock(busy.from)} to ${clock(busy.to)}${setting}.`);
  }
  const together = near(index.byPlace, place.id, busy.start).filter(
    (other) => other.booking.id !== booking.id && other.from < busy.to && busy.from < other.to,
  );
  if (!place.shared) {
    for (const { booking: other, from, to } of together)
      say('room', `${place.name} is taken by ${other.title}, ${clock(from)} to ${clock(to)}.`, other.id);
  }
  const there = place.shared ? together.filter((other) => other.start < busy.end && busy.start < other.end) : [];
  const heads = booking.inRoom + sum(there, (other) => other.booking.inRoom);
  if (place.seats !== null && heads > place.seats)
    say(
      'seats',
      `${heads} ${withOthers(there)}come to ${place.name}, which has ${place.seats} ${place.seats === 1 ? 'seat' : 'seats'}.`,
      there[0]?.booking.id,
    );
  for (const kind of EQUIPMENT_KINDS) {
    const own = booking.uses[kind] ?? 0;
    const has = place.equipment[kind];
    if (own === 0 || has === undefined) continue;
    const needed = own + sum(there, (other) => other.booking.uses[kind] ?? 0);
    if (needed > has)
      say(
        'equipment',
        `${sayEquipment(kind, needed)} ${withOthers(there)}${needed === 1 ? 'is' : 'are'} needed, and ${place.name} has ${has}.`,
        there[0]?.booking.id,
      );
  }
}

const sum = (list: readonly Busy[], of: (busy: Busy) => number) => list.reduce((total, busy) => total + of(busy), 0);
const withOthers = (there: readonly Busy[]) =>
  there.length === 0 ? '' : `(with ${there.map(({ booking }) => booking.title).join(' and ')}) `;
const clock = (civil: CivilMinutes) => timeOf(((civil % DAY) + DAY) % DAY);

function checkInstructor(busy: Busy, instructorId: string, index: PlanIndex, world: PlanWorld, say: Say): void {
  const { booking } = busy;
  const name = world.instructors.get(instructorId) ?? 'The instructor';
  for (const other of near(index.byInstructor, instructorId, busy.start)) {
    if (other.booking.id === booking.id) continue;
    if (other.start < busy.end && busy.start < other.end) {
      say(
        'instructor',
        `${name} teaches ${other.booking.title} then, ${clock(other.start)} to ${clock(other.end)}.`,
        other.booking.id,
      );
      continue;
    }
    const [from, to] = [booking.placeId, other.booking.placeId];
    if (!from || !to || from === to) continue;
    const needed = travelMinutes(world, from, to);
    const between = other.start >= busy.end ? other.start - busy.end : busy.start - other.end;
    if (between < needed)
      say(
        'travel',
        `${name} has ${between} minutes between ${other.booking.title} (${nameOf(world, to)}) and this class, and the way takes ${needed}.`,
        other.booking.id,
      );
  }
}

const nameOf = (world: PlanWorld, placeId: string) => world.places.get(placeId)?.name ?? 'another place';

/** All conflicts of a plan; where two sessions collide it is told once, at the later one. */
export function conflictsOf(
  bookings: readonly Booking[],
  world: PlanWorld,
  index = indexBookings(bookings, world),
): Conflict[] {
  const place = new Map(
    bookings.map((booking, at) => [booking.id, `${booking.date} ${booking.startsAt} ${String(at).padStart(6, '0')}`]),
  );
  return bookings.flatMap((booking) =>
    checkBooking(booking, index, world).filter(
      ({ otherId }) => otherId === undefined || (place.get(otherId) ?? '') < (place.get(booking.id) ?? ''),
    ),
  );
}

/** A way out of a conflict that was tried and leaves the session without any. */
export interface Fix {
  readonly say: string;
  readonly change: {
    readonly date?: string;
    readonly startsAt?: string;
    readonly placeId?: string;
    readonly instructorId?: string;
    readonly rollClosesDays?: number;
  };
}

/** A start is tried every half hour. */
const STEP = 30;
/** Weeks that are looked through for a free slot. */
const WEEKS = 6;

/**
 * Ways to settle what stands against a booking, each tried against the whole plan: the next free slot, another time that
 * day, another room, another instructor, an earlier end of the roll.
 *
 * @param days days on which the course could meet besides, in order; the next weeks' same weekday when left out
 */
export function fixesFor(
  booking: Booking,
  index: PlanIndex,
  world: PlanWorld,
  days: readonly string[] = sameWeekday(booking.date),
): Fix[] {
  const now = checkBooking(booking, index, world);
  const works = (change: Fix['change']) => {
    const { rollClosesDays: _, ...moved } = change;
    const shift = moved.date ? civilOf(moved.date, '00:00') - civilOf(booking.date, '00:00') : 0;
    const shifted =
      booking.rollCloses !== undefined && booking.shopBy !== undefined
        ? { rollCloses: booking.rollCloses + shift, shopBy: booking.shopBy + shift }
        : {};
    return checkBooking({ ...booking, ...shifted, ...moved }, index, world).length === 0;
  };
  const fixes: Fix[] = [];
  const offer = (say: string, change: Fix['change']) => {
    if (works(change)) fixes.push({ say, change });
    return fixes.at(-1)?.change === change;
  };
  const is = (...kinds: readonly ConflictKind[]) => now.some(({ kind }) => kinds.includes(kind));
  if (is('roll') && booking.rollCloses !== undefined && booking.shopBy !== undefined) {
    const start = civilOf(booking.date, booking.startsAt);
    const days = Math.ceil((start - booking.shopBy) / DAY);
    const say = `Close the roll ${days} days before the class`;
    const settled = { ...booking, rollCloses: start - days * DAY };
    if (checkBooking(settled, index, world).length === 0) fixes.push({ say, change: { rollClosesDays: days } });
  }
  if (is('room', 'seats', 'equipment', 'hours', 'closure', 'travel')) {
    const rooms = [...world.places.values()].filter((place) => place.id !== booking.placeId && !place.outdoor);
    rooms.sort((a, b) => spare(a, booking) - spare(b, booking) || (a.name < b.name ? -1 : 1));
    let found = 0;
    for (const room of rooms) if (found < 2 && offer(`Take ${room.name}`, { placeId: room.id })) found++;
  }
  if (is('instructor', 'travel')) {
    let found = 0;
    for (const [id, name] of world.instructors)
      if (id !== booking.instructorId && found < 2 && offer(`Let ${name} teach`, { instructorId: id })) found++;
  }
  if (is('room', 'instructor', 'travel', 'equipment', 'hours', 'clock', 'seats', 'closure')) {
    for (const startsAt of timesAround(booking.startsAt)) if (offer(`Start at ${startsAt}`, { startsAt })) break;
    for (const date of days) if (offer(`Move to ${sayDay(date)}, ${booking.startsAt}`, { date })) break;
  }
  return fixes;
}

/** Seats left over: the room that fits best comes first, one that nobody counted last. */
const spare = (place: Place, booking: Booking) => (place.seats === null ? 1e6 : place.seats - booking.inRoom);

function sameWeekday(date: string): string[] {
  const day = civilOf(date, '00:00') / DAY;
  return Array.from({ length: WEEKS }, (_, week) => dateOf(day + 7 * (week + 1)));
}

/** Other starts of the day, the nearest first, from 07:00 to 21:00. */
function timesAround(startsAt: string): string[] {
  const start = Number(startsAt.slice(0, 2)) * 60 + Number(startsAt.slice(3));
  return Array.from({ length: 28 }, (_, n) => (Math.floor(n / 2) + 1) * STEP * (n % 2 === 0 ? 1 : -1))
    .map((shift) => start + shift)
    .filter((at) => at >= 7 * 60 && at <= 21 * 60)
    .map(timeOf);
}
