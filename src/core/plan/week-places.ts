import { type Closure, closureOn, daysOf, type OnClosure } from './cadence';
import { ruleOf } from './cadence-rule';
import { addDays, civilOf, DAY, dayOf, sayDay, timeOf, type Weekday, weekdayName, weekdayOf } from './civil';
import { type PlanIndex, type PlanWorld, travelMinutes } from './conflicts';
import { EQUIPMENT_KINDS, type EquipmentCounts, hoursOn, type Place } from './place';

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

/**
 * The best places in the week for a course, over its whole season: fewest days taken, then fewest lost to closures, then
 * the room that fits.
 *
 * @param most how many to give back, the best first
 */
export function weekPlaces(wish: PlaceWish, index: PlanIndex, world: PlanWorld, most = 5): WeekPlace[] {
  const places = wish.placeIds.flatMap((id) => world.places.get(id) ?? []).filter((place) => fits(place, wish));
  const found: WeekPlace[] = [];
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
        const startsAt = timeOf(start);
        const slot = { startsAt, minutes: wish.minutes };
        const lost = days.flatMap((date) => lostTo(world.closures, date, slot, place.id));
        const open = days.filter((date) => !lost.some((day) => day.date === date));
        const inRoom = open.flatMap((date) => roomTrouble(date, start, wish, place, index));
        const teachers = wish.instructorIds.length > 0 ? wish.instructorIds : [null];
        for (const instructorId of teachers) {
          const taken = new Map(inRoom.map((day) => [day.date, day]));
          if (instructorId)
            for (const date of open)
              if (!taken.has(date))
                for (const day of teacherTrouble(date, start, wish, place.id, instructorId, index, world))
                  taken.set(date, day);
          const free = open.filter((date) => !taken.has(date));
          if (free.length === 0) continue;
          found.push(
            judge(
              { weekday, startsAt, placeId: place.id, instructorId, free, lost, taken: [...taken.values()] },
              wish,
              place,
            ),
          );
        }
      }
    }
  }
  return best(found, most);
}

/** One of each weekday, hour and room is enough: another instructor of the same quality would only fill the list. */
function best(found: WeekPlace[], most: number): WeekPlace[] {
  found.sort((a, b) => a.score - b.score || a.weekday - b.weekday || (a.startsAt < b.startsAt ? -1 : 1));
  const seen = new Set<string>();
  const chosen: WeekPlace[] = [];
  for (const place of found) {
    // Half an hour to and fro is the same place in the week.
    const key = `${place.weekday} ${place.placeId}`;
    if (seen.has(key)) continue;
    seen.add(key);
    chosen.push(place);
    if (chosen.length === most) break;
  }
  return chosen;
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

function lostTo(
  closures: readonly Closure[],
  date: string,
  slot: { startsAt: string; minutes: number },
  placeId: string,
): DayTrouble[] {
  const closure = closureOn(closures, date, slot, placeId);
  return closure ? [{ date, because: closure.title || closure.calendar }] : [];
}

function roomTrouble(date: string, start: number, wish: PlaceWish, place: Place, index: PlanIndex): DayTrouble[] {
  const day = dayOf(date);
  const from = day * DAY + start - place.minutesBefore;
  const to = day * DAY + start + wish.minutes + place.minutesAfter;
  const there = (index.byPlace.get(`${place.id} ${day}`) ?? []).filter((busy) => busy.from < to && from < busy.to);
  if (there.length === 0) return [];
  if (!place.shared) return [{ date, because: `${there[0]?.booking.title} is in ${place.name}` }];
  const heads = wish.people + there.reduce((sum, busy) => sum + busy.booking.inRoom, 0);
  if (place.seats !== null && heads > place.seats) return [{ date, because: `${heads} would be in ${place.name}` }];
  const short = EQUIPMENT_KINDS.find((kind) => {
    const needed = (wish.uses[kind] ?? 0) + there.reduce((sum, busy) => sum + (busy.booking.uses[kind] ?? 0), 0);
    return (wish.uses[kind] ?? 0) > 0 && needed > (place.equipment[kind] ?? Number.POSITIVE_INFINITY);
  });
  return short ? [{ date, because: `${there[0]?.booking.title} needs the ${short} of ${place.name}` }] : [];
}

function teacherTrouble(
  date: string,
  start: number,
  wish: PlaceWish,
  placeId: string,
  instructorId: string,
  index: PlanIndex,
  world: PlanWorld,
): DayTrouble[] {
  const day = dayOf(date);
  const from = day * DAY + start;
  const to = from + wish.minutes;
  const name = world.instructors.get(instructorId) ?? 'The instructor';
  for (const other of index.byInstructor.get(`${instructorId} ${day}`) ?? []) {
    const way = other.booking.placeId ? travelMinutes(world, placeId, other.booking.placeId) : 0;
    if (other.start < to + way && from - way < other.end)
      return [{ date, because: `${name} teaches ${other.booking.title}` }];
  }
  return [];
}

function judge(
  place: Pick<WeekPlace, 'weekday' | 'startsAt' | 'placeId' | 'instructorId' | 'free' | 'lost' | 'taken'>,
  wish: PlaceWish,
  room: Place,
): WeekPlace {
  const spareSeats = room.seats === null ? null : room.seats - wish.people;
  const lostCost = wish.onClosure === 'keep' ? COST.kept : COST.lost;
  const score =
    place.taken.length * COST.taken +
    place.lost.length * lostCost +
    (spareSeats === null ? COST.uncounted : spareSeats * COST.emptySeat) +
    (civilOf('1970-01-01', place.startsAt) - civilOf('1970-01-01', wish.earliest)) * COST.late;
  return { ...place, spareSeats, score, reasons: reasonsOf(place, spareSeats) };
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
