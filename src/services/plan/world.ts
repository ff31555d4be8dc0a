import { jobsOf } from '@/core/countdown/jobs';
import { calculate } from '@/core/countdown/network';
import { type Closure, nextFreeDays } from '@/core/plan/cadence';
import { addDays, civilOf, DAY } from '@/core/plan/civil';
import {
  type Booking,
  type Conflict,
  checkBooking,
  type Fix,
  fixesFor,
  indexBookings,
  type PlanIndex,
  type PlanWorld,
} from '@/core/plan/conflicts';
import type { Mode } from '@/core/plan/mode';
import { MOST_DAYS_AFTER, sittingOf } from '@/core/plan/sitting';
import type { JobSession } from '@/core/stages/facts';
import { closuresBetween, type PlannedSession, plannedSessions, teachers, travelOf } from '@/store/plan';
import { find } from '@/store/query';
import type { Db } from '@/store/store';
import type { ProgrammeRow } from '@/store/tables/programme';
import { type Context, todayIn } from '../gate/gate';
import { type Hours, loadProgramme } from '../sheet/load-programme';
import { type KnownPlace, placeFrom } from './places';

/** A span of the plan, ready to be held against itself. */
export interface Plan {
  readonly sessions: readonly PlannedSession[];
  readonly bookings: readonly Booking[];
  readonly index: PlanIndex;
  readonly world: PlanWorld & { readonly places: ReadonlyMap<string, KnownPlace> };
  readonly programme: ProgrammeRow;
  readonly hours: Hours;
  /** The programme's civil day, YYYY-MM-DD. */
  readonly today: string;
}

/** Days that may be of use around a span: where a session could move to. */
const AROUND = 60;

/** Loads all sessions between two days with what they are held against, in seven queries. */
export async function loadPlan(
  context: Context,
  span: { readonly from: string; readonly to: string },
  db: Db = context.store.db,
): Promise<Plan> {
  const { programmeId } = context.actor;
  const { programme, hours } = await loadProgramme(context, db);
  const today = todayIn(context, programme.timeZone);
  // A group meets a few days after its session's own date.
  const from = addDays(span.from, -1 - MOST_DAYS_AFTER);
  const to = addDays(span.to, AROUND);
  const sessions = await plannedSessions(db, programmeId, { from, to });
  const places = (await find(db, db.models.place, { programmeId }, [['name', 'ASC']])).map(placeFrom);
  const closures = (await closuresBetween(db, programmeId, from, to)).map(
    ({ title, calendar, fromDate, toDate, fromTime, toTime, placeId }): Closure => ({
      title,
      calendar,
      from: fromDate,
      to: toDate,
      ...(fromTime && toTime ? { hours: { from: fromTime, to: toTime } } : {}),
      ...(placeId ? { placeId } : {}),
    }),
  );
  const world = {
    timeZone: programme.timeZone,
    places: new Map(places.map((place) => [place.id, place])),
    instructors: new Map((await teachers(db, programmeId)).map(({ id, name }) => [id, name])),
    travel: new Map(
      (await travelOf(db, programmeId)).map(({ fromId, toId, minutes }) => [`${fromId} ${toId}`, minutes]),
    ),
    closures,
  };
  const bookings = sessions.flatMap((session) => bookingsOf(session, hours, today));
  return { sessions, bookings, index: indexBookings(bookings, world), world, programme, hours, today };
}

const countOf = (people: PlannedSession['people'], counts: (mode: string) => boolean = () => true) =>
  people.reduce((total, { mode, count }) => total + (counts(mode) ? count : 0), 0);

/** Id of the booking of a group beside the first; of the first it is the session's own. */
const bookingId = (sessionId: string, groupId: string) => (groupId === '' ? sessionId : `${sessionId}@${groupId}`);

/** The session and the group ('' for the first) in a booking's id. */
export function splitBookingId(id: string): { sessionId: string; groupId: string } {
  const [sessionId = '', groupId = ''] = id.split('@');
  return { sessionId, groupId };
}

/**
 * A session as it takes up room, people and hours: once for itself, and once for each group beside the first. What is
 * past or bought is not told that its roll closes late.
 */
export function bookingsOf(session: PlannedSession, hours: Hours, today: string): Booking[] {
  const { id, courseId, minutes, capacity, sittings, groupName } = session;
  const uses = session.uses;
  const own = { ...session, groupId: '', groupName: groupName ?? '' };
  const meeting = sittings.filter(({ status }) => status === 'planned');
  const bookings = [own, ...meeting].map(
    ({ groupId, groupName: name, date, startsAt, placeId, instructorId }): Booking => {
      const people = session.people.filter((each) => sittingOf(each.groupId, sittings) === groupId);
      return {
        id: bookingId(id, groupId),
        courseId,
        title: meeting.length > 0 && name ? `${session.title} (${name})` : session.title,
        date,
        startsAt,
        minutes,
        placeId,
        instructorId: instructorId ?? session.instructorId,
        inRoom: countOf(people, (mode) => (mode || session.mode) === 'in person'),
        people: countOf(people),
        capacity,
        uses,
      };
    },
  );
  const [first, ...others] = bookings as [Booking, ...Booking[]];
  const open = session.date >= today && !session.bought && session.mode !== 'demonstration';
  if (!open) return bookings;
  const rollCloses = civilOf(session.date, session.startsAt) - session.rollClosesDays * DAY;
  return [{ ...first, rollCloses, shopBy: shopBy(session, bookings, hours) }, ...others];
}

/** When shopping for a session must start at the latest, in civil minutes. */
function shopBy(session: PlannedSession, bookings: readonly Booking[], hours: Hours): number {
  const modes = new Set<Mode>([session.mode as Mode]);
  for (const { mode } of session.people) if (mode) modes.add(mode as Mode);
  const people = bookings.reduce((total, booking) => total + booking.people, 0);
  const facts: JobSession = {
    date: session.date,
    startsAt: session.startsAt,
    minutes: session.minutes,
    modes: [...modes],
    participants: people,
    kits: people,
    dishes: session.dishes,
    rollClosesDays: session.rollClosesDays,
    cookBy: session.cookBy,
    course: session.courseJobs,
    session: session.jobs,
    oneOffs: [],
    outdoor: null,
    groups: bookings.slice(1).map(({ id, date, startsAt, people: kits }) => {
      const { groupId } = splitBookingId(id);
      return { groupId, groupName: '', date, startsAt, kits, outdoor: null };
    }),
  };
  return calculate(jobsOf(facts, hours, new Set()), 0).timings.get('buying')?.latestStart ?? Number.POSITIVE_INFINITY;
}

/** What stands against one group's share of a session, with ways out that were tried. */
export interface SessionConflicts {
  readonly sessionId: string;
  /** '' for the first group, or the only one. */
  readonly groupId: string;
  readonly groupName: string;
  readonly conflicts: readonly Conflict[];
  readonly fixes: readonly Fix[];
}

/** What stands against one booking of a plan. Days of its course's cadence come first when it has to move. */
export function conflictsOfBooking(booking: Booking, plan: Plan): SessionConflicts {
  const { sessionId, groupId } = splitBookingId(booking.id);
  const session = plan.sessions.find(({ id }) => id === sessionId);
  const groupName = session?.sittings.find((sitting) => sitting.groupId === groupId)?.groupName ?? '';
  const conflicts = checkBooking(booking, plan.index, plan.world);
  if (conflicts.length === 0) return { sessionId, groupId, groupName, conflicts, fixes: [] };
  const { closures } = plan.world;
  const cadence = session?.cadence ?? undefined;
  const days =
    groupId !== '' && session
      ? daysFor(session.date)
      : cadence &&
        nextFreeDays(cadence, session?.seasonFrom ?? booking.date, booking.date, closures, booking.placeId, 8);
  return { sessionId, groupId, groupName, conflicts, fixes: fixesFor(booking, plan.index, plan.world, days) };
}

/** Days on which a group beside the first can meet: what is bought once is still fresh. */
const daysFor = (date: string) => Array.from({ length: MOST_DAYS_AFTER + 1 }, (_, after) => addDays(date, after));
