import { type JobChanges, type JobSession, jobsOf } from '@/core/countdown/jobs';
import { calculate } from '@/core/countdown/network';
import { type Closure, nextFreeDays } from '@/core/plan/cadence';
import type { Cadence } from '@/core/plan/cadence-rule';
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
import type { EquipmentCounts } from '@/core/plan/place';
import { closuresBetween, type PlannedSession, plannedSessions, teachers, travelOf } from '@/store/plan';
import { find } from '@/store/query';
import type { ProgrammeRow } from '@/store/rows';
import type { Db } from '@/store/store';
import type { Context } from '../access/gate';
import { type Hours, loadProgramme } from '../programme/load';
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
  const today = context.clock().toZonedDateTimeISO(programme.timeZone).toPlainDate().toString();
  const from = addDays(span.from, -1);
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
  const bookings = sessions.map((session) => bookingOf(session, hours, today));
  return { sessions, bookings, index: indexBookings(bookings, world), world, programme, hours, today };
}

const sum = (people: PlannedSession['people'], counts: (mode: string) => boolean) =>
  Object.entries(people).reduce((total, [mode, count]) => total + (counts(mode) ? count : 0), 0);

/** A session as it takes up room, people and hours. What is past or bought is not told that its roll closes late. */
export function bookingOf(session: PlannedSession, hours: Hours, today: string): Booking {
  const { id, courseId, date, startsAt, minutes, placeId, instructorId, capacity } = session;
  const people = sum(session.people, () => true);
  const inRoom = sum(session.people, (mode) => (mode || session.mode) === 'in person');
  const open = date >= today && !session.bought && session.mode !== 'demonstration';
  return {
    id,
    courseId,
    title: session.title,
    date,
    startsAt,
    minutes,
    placeId,
    instructorId,
    inRoom,
    people,
    capacity,
    uses: JSON.parse(session.uses) as EquipmentCounts,
    ...(open
      ? {
          rollCloses: civilOf(date, startsAt) - session.rollClosesDays * DAY,
          shopBy: shopBy(session, people, hours),
        }
      : {}),
  };
}

/** When shopping for a session must start at the latest, in civil minutes. */
function shopBy(session: PlannedSession, people: number, hours: Hours): number {
  const modes = new Set<Mode>([session.mode as Mode]);
  for (const mode of Object.keys(session.people)) if (mode) modes.add(mode as Mode);
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
    course: JSON.parse(session.courseJobs) as JobChanges,
    session: JSON.parse(session.jobs) as JobChanges,
    oneOffs: [],
    outdoor: null,
  };
  return calculate(jobsOf(facts, hours, new Set()), 0).timings.get('buying')?.latestStart ?? Number.POSITIVE_INFINITY;
}

/** What stands against a session, with ways out that were tried. */
export interface SessionConflicts {
  readonly sessionId: string;
  readonly conflicts: readonly Conflict[];
  readonly fixes: readonly Fix[];
}

/** What stands against one booking of a plan. Days of its course's cadence come first when it has to move. */
export function conflictsOfBooking(booking: Booking, plan: Plan): SessionConflicts {
  const conflicts = checkBooking(booking, plan.index, plan.world);
  if (conflicts.length === 0) return { sessionId: booking.id, conflicts, fixes: [] };
  const session = plan.sessions.find(({ id }) => id === booking.id);
  const cadence = session?.cadence ? (JSON.parse(session.cadence) as Cadence) : undefined;
  const days = cadence
    ? nextFreeDays(cadence, session?.seasonFrom ?? booking.date, booking.date, plan.world.closures, booking.placeId, 8)
    : undefined;
  return { sessionId: booking.id, conflicts, fixes: fixesFor(booking, plan.index, plan.world, days) };
}
