import { type Closure, closureOn, daysOf, type OnClosure } from './cadence';
import { ruleOf } from './cadence-rule';
import { addDays, civilOf, DAY, dayOf, sayDay, timeOf, type Weekday, weekdayName, weekdayOf } from './civil';
import { type PlanIndex, type PlanWorld, travelMinutes } from './conflicts';
import { EQUIPMENT, EQUIPMENT_KINDS, type EquipmentCounts, hoursOn, type Place } from './place';

/** What a course needs that is to be placed in the week. */
export interface PlaceWish {
  readonly from: string;
  readonly to: string;
  /** Every how many weeks. */
  readonly every: number;
  readonly minutes: number;
  readonly weekdays: readonly Weekday[];
  /** Earliest start and latest end of the class, HH:MM. */
  readonly earliest: string;
  readonly latest: string;
  readonly people: number;
  readonly uses: EquipmentCounts;
  /** Who could teach; empty when that is not to be decided now. */
  readonly instructorIds: readonly string[];
  readonly placeIds: readonly string[];
  readonly onClosure: OnClosure;
}

/** A weekday, hour, room and instructor for a course. */
export interface WeekPlace {
  readonly weekday: Weekday;
  readonly startsAt: string;
  readonly placeId: string;
  readonly instructorId: string | null;
  /** Days of the season on which it can be held without any conflict. */
  readonly free: readonly string[];
  /** Days lost to closures, each with the reason. */
  readonly lost: readonly { readonly date: string; readonly because: string }[];
  /** Days on which room or instructor is taken, each with the reason. */
  readonly taken: readonly { readonly date: string; readonly because: string }[];
  /** Seats to spare; null when nobody counted. */
  readonly spareSeats: number | null;
  /** Lower is better; what it is made of is said in `reasons`. */
  readonly score: number;
  readonly reasons: readonly string[];
}

/** Starts are tried every half hour. */
const STEP = 30;

/** What a day of each kind costs against the others. A taken day has to be settled by hand, a closed one settles itself. */
const COST = { taken: 10, lost: 4, kept: 8, emptySeat: 0.05, uncounted: 1, late: 0.002 };

interface DayTrouble {
  readonly date: string;
  readonly because: string;
}

/** A place in the week before it is described: only what it is judged by. */
interface Candidate {
  readonly weekday: Weekday;
  readonly start: number;
  readonly place: Place;
  readonly instructorId: string | null;
  readonly days: readonly string[];
  readonly score: number;
}

/**
 * The best places in the week for a course, over its whole season: fewest days taken, then fewest lost to closures, then
 * the room that fits. Every weekday, half hour, room and instructor is tried; only the best are put in words.
 *
 * @param most how many to give back, the best first
 */
export function weekPlaces(wish: PlaceWish, index: PlanIndex, world: PlanWorld, most = 5): WeekPlace[] {
  const places = wish.placeIds.flatMap((id) => world.places.get(id) ?? []).filter((place) => fits(place, wish));
  const teachers = wish.instructorIds.length > 0 ? wish.instructorIds : [null];
  const found: Candidate[] = [];
  for (const weekday of wish.weekdays) {
    const days = daysOf(
      { rule: ruleOf({ kind: 'weekly', every: wish.every, weekdays: [weekday] }), dates: [], slots: [] },
      firstOn(wish.from, weekday),
      wish.to,
      400,
    );
    if (days.length === 0) continue;
    for (const place of places) {
      for (const start of startsOf(place, weekday, wish)) {
        const open = days.filter((date) => !lostTo(date, start, wish, place, world));
        const free = open.filter((date) => !roomTrouble(date, start, wish, place, index));
        for (const instructorId of teachers) {
          const left = instructorId
            ? free.filter((date) => !teacherTrouble(date, start, wish, place, instructorId, index, world)).length
            : free.length;
          if (left === 0) continue;
          const score = scoreOf({ taken: open.length - left, lost: days.length - open.length, start }, wish, place);
          found.push({ weekday, start, place, instructorId, days, score });
        }
      }
    }
  }
  return best(found, most).map((candidate) => describe(candidate, wish, index, world));
}

/** One of each weekday and room is enough: half an hour to and fro is the same place in the week. */
function best(found: Candidate[], most: number): Candidate[] {
  found.sort((a, b) => a.score - b.score || a.weekday - b.weekday || a.start - b.start);
  const seen = new Set<string>();
  const chosen: Candidate[] = [];
  for (const candidate of found) {
    const key = `${candidate.weekday} ${candidate.place.id}`;
    if (seen.has(key)) continue;
    seen.add(key);
    chosen.push(candidate);
    if (chosen.length === most) break;
  }
  return chosen;
}

/** A candidate with its days, each with its reason. */
function describe(
  { weekday, start, place, instructorId, days, score }: Candidate,
  wish: PlaceWish,
  index: PlanIndex,
  world: PlanWorld,
): WeekPlace {
  const free: string[] = [];
  const lost: DayTrouble[] = [];
  const taken: DayTrouble[] = [];
  for (const date of days) {
    const closure = lostTo(date, start, wish, place, world);
    const trouble = closure
      ? undefined
      : (roomTrouble(date, start, wish, place, index) ??
        (instructorId ? teacherTrouble(date, start, wish, place, instructorId, index, world) : undefined));
    if (closure) lost.push({ date, because: closure.title || closure.calendar });
    else if (trouble) taken.push({ date, because: trouble() });
    else free.push(date);
  }
  const spareSeats = place.seats === null ? null : place.seats - wish.people;
  const known = {
    weekday,
    startsAt: timeOf(start),
    placeId: place.id,
    instructorId,
    free,
    lost,
    taken,
    spareSeats,
    score,
  };
  return { ...known, reasons: reasonsOf(known, spareSeats) };
}

const firstOn = (from: string, weekday: Weekday): string => addDays(from, (weekday - weekdayOf(dayOf(from)) + 7) % 7);

const fits = (place: Place, wish: PlaceWish): boolean =>
  (place.seats === null || place.seats >= wish.people) &&
  EQUIPMENT_KINDS.every((kind) => (wish.uses[kind] ?? 0) <= (place.equipment[kind] ?? Number.POSITIVE_INFINITY));

function startsOf(place: Place, weekday: Weekday, wish: PlaceWish): number[] {
  const hours = hoursOn(place, weekday) ?? [{ from: 0, to: DAY }];
  const minutes = (time: string) => civilOf('1970-01-01', time);
  const [earliest, latest] = [minutes(wish.earliest), minutes(wish.latest) - wish.minutes];
  const starts: number[] = [];
  for (const open of hours) {
    const from = Math.max(earliest, open.from + place.minutesBefore);
    const to = Math.min(latest, open.to - place.minutesAfter - wish.minutes);
    for (let start = Math.ceil(from / STEP) * STEP; start <= to; start += STEP) starts.push(start);
  }
  return starts;
}

const lostTo = (
  date: string,
  start: number,
  { minutes }: PlaceWish,
  place: Place,
  { closures }: PlanWorld,
): Closure | undefined =>
  closures.length === 0 ? undefined : closureOn(closures, date, { startsAt: timeOf(start), minutes }, place.id);

/** What stands against a day, said only when it is asked for; undefined when nothing does. */
type Trouble = (() => string) | undefined;

function roomTrouble(date: string, start: number, wish: PlaceWish, place: Place, index: PlanIndex): Trouble {
  const day = dayOf(date);
  const booked = index.byPlace.get(`${place.id} ${day}`);
  if (!booked) return undefined;
  const from = day * DAY + start - place.minutesBefore;
  const to = day * DAY + start + wish.minutes + place.minutesAfter;
  const there = booked.filter((busy) => busy.from < to && from < busy.to);
  const [first] = there;
  if (!first) return undefined;
  if (!place.shared) return () => `${first.booking.title} is in ${place.name}`;
  const heads = wish.people + there.reduce((sum, busy) => sum + busy.booking.inRoom, 0);
  if (place.seats !== null && heads > place.seats) return () => `${heads} would be in ${place.name}`;
  const short = EQUIPMENT_KINDS.find((kind) => {
    const own = wish.uses[kind] ?? 0;
    const needed = own + there.reduce((sum, busy) => sum + (busy.booking.uses[kind] ?? 0), 0);
    return own > 0 && needed > (place.equipment[kind] ?? Number.POSITIVE_INFINITY);
  });
  return short && (() => `${first.booking.title} needs the ${EQUIPMENT[short]} of ${place.name}`);
}

function teacherTrouble(
  date: string,
  start: number,
  wish: PlaceWish,
  place: Place,
  instructorId: string,
  index: PlanIndex,
  world: PlanWorld,
): Trouble {
  const day = dayOf(date);
  const booked = index.byInstructor.get(`${instructorId} ${day}`);
  if (!booked) return undefined;
  const from = day * DAY + start;
  const to = from + wish.minutes;
  const held = booked.find((other) => {
    const way = other.booking.placeId ? travelMinutes(world, place.id, other.booking.placeId) : 0;
    return other.start < to + way && from - way < other.end;
  });
  return held && (() => `${world.instructors.get(instructorId) ?? 'The instructor'} teaches ${held.booking.title}`);
}

function scoreOf(
  { taken, lost, start }: { taken: number; lost: number; start: number },
  wish: PlaceWish,
  room: Place,
): number {
  const seats = room.seats === null ? COST.uncounted : (room.seats - wish.people) * COST.emptySeat;
  const earliest = civilOf('1970-01-01', wish.earliest);
  return (
    taken * COST.taken +
    lost * (wish.onClosure === 'keep' ? COST.kept : COST.lost) +
    seats +
    (start - earliest) * COST.late
  );
}

const plural = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;

function reasonsOf(place: Pick<WeekPlace, 'weekday' | 'free' | 'lost' | 'taken'>, spareSeats: number | null): string[] {
  const list = (days: readonly DayTrouble[]) =>
    `${days
      .slice(0, 3)
      .map(({ date, because }) => `${sayDay(date)}: ${because}`)
      .join('; ')}${days.length > 3 ? `; and ${days.length - 3} more` : ''}`;
  return [
    `${plural(place.free.length, `free ${weekdayName(place.weekday)}`)}`,
    place.taken.length === 0 ? 'no conflict' : `${plural(place.taken.length, 'day')} taken (${list(place.taken)})`,
    place.lost.length === 0
      ? 'no day lost to a closure'
      : `${plural(place.lost.length, 'day')} lost (${list(place.lost)})`,
    spareSeats === null
      ? 'seats not counted'
      : spareSeats === 0
        ? 'the room is just full'
        : `${plural(spareSeats, 'seat')} to spare`,
  ];
}

/** Why the first of two places in the week comes before the second, in a sentence. */
export function whyBetter(better: WeekPlace, worse: WeekPlace): string {
  const fewer = (mine: number, theirs: number, what: string) =>
    mine < theirs ? [`${plural(theirs - mine, `${what} day`)} fewer`] : [];
  const reasons = [
    ...fewer(better.taken.length, worse.taken.length, 'taken'),
    ...fewer(better.lost.length, worse.lost.length, 'lost'),
  ];
  if (reasons.length === 0 && better.free.length > worse.free.length)
    reasons.push(`${plural(better.free.length - worse.free.length, 'free day')} more`);
  if (reasons.length > 0) return `${reasons.join(' and ')}.`;
  if ((better.spareSeats ?? 1e6) < (worse.spareSeats ?? 1e6)) return 'The room fits the class better.';
  return 'Equally good; it comes earlier.';
}
